import type { CitiesAnswer } from '../../../contract/responses.ts';

const MOST_LABELS = 26;

/** Names of large towns for bearings: the largest first, none over another. */
export function drawCities(
  context: CanvasRenderingContext2D,
  cities: CitiesAnswer['cities'],
  projection: (point: [number, number]) => [number, number] | null,
  size: { width: number; height: number },
  colour: (name: string) => string,
  except: string | undefined,
): void {
  const taken: { x: number; y: number; width: number }[] = [];
  context.font = '12px "Hanken Grotesk Variable"';
  for (const { name, lat, lon } of cities) {
    if (taken.length === MOST_LABELS) break;
    const at = projection([lon, lat]);
    if (
      name === except ||
      !at ||
      at[0] < 4 ||
      at[1] < 10 ||
      at[0] > size.width - 40 ||
      at[1] > size.height - 10
    )
      continue;
    const width = context.measureText(name).width + 14;
    if (
      taken.some(
        (other) => at[0] < other.x + other.width && other.x < at[0] + width && Math.abs(at[1] - other.y) < 18,
      )
    )
      continue;
    taken.push({ x: at[0], y: at[1], width });
    context.beginPath();
    context.arc(at[0], at[1], 2, 0, 2 * Math.PI);
    context.fillStyle = colour('--soft');
    context.fill();
    context.lineWidth = 3;
    context.strokeStyle = colour('--paper');
    context.strokeText(name, at[0] + 6, at[1] + 4);
    context.fillText(name, at[0] + 6, at[1] + 4);
  }
}
