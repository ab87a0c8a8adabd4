/** Where a value stands among ascending ones, or would stand. */
export function bisect(sorted: Uint32Array, value: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Where a value stands among ascending ones; -1 where it does not. */
export function placeIn(sorted: Uint32Array, value: number): number {
  const at = bisect(sorted, value);
  return sorted[at] === value ? at : -1;
}
