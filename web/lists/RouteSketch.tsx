import type { VisitsAnswer } from '../../contract/visits.ts';
import { sketchOf, townsOnSketch } from '../../core/geo/sketch.ts';

const SIZE = 200;
const EDGE = 14;

/** The way of a day drawn to scale, north up, with the stops by number and towns by name. */
export function RouteSketch({ start, stops, towns }: Pick<VisitsAnswer, 'start' | 'stops' | 'towns'>) {
  const place = sketchOf([start, ...stops], SIZE, EDGE);
  const drawn = [start, ...stops].map(place);
  const way = [...drawn, drawn[0]!].map(({ x, y }) => `${x},${y}`).join(' ');
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className="w-full border border-rule bg-ground"
      role="img"
      aria-label={`The way from ${start.label} by ${stops.length} stops and back`}
    >
      <polyline points={way} fill="none" stroke="var(--ink)" strokeWidth="1.4" strokeLinejoin="round" />
      {drawn.map(({ x, y }, nth) => (
        <g key={nth}>
          <circle
            cx={x}
            cy={y}
            r={nth === 0 ? 4 : 7}
            fill={nth === 0 ? 'var(--ink)' : 'var(--paper)'}
            stroke="var(--ink)"
          />
          {nth > 0 && (
            <text x={x} y={y + 3} textAnchor="middle" fontSize="8" fill="var(--ink)">
              {nth}
            </text>
          )}
        </g>
      ))}
      {townsOnSketch(towns, drawn, place, SIZE).map(({ name, x, y, at }) => (
        <g key={name}>
          <rect x={x - 1.5} y={y - 1.5} width="3" height="3" fill="var(--soft)" />
          <text x={at} y={y + 2.5} fontSize="7.5" fill="var(--soft)">
            {name}
          </text>
        </g>
      ))}
    </svg>
  );
}
