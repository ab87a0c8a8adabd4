import type { VisitsAnswer } from '../../contract/visits.ts';

const SIZE = 200;
const EDGE = 14;

/** The way of a day drawn to scale, north up, with the stops by number. */
export function RouteSketch({ start, stops }: Pick<VisitsAnswer, 'start' | 'stops'>) {
  const points = [start, ...stops];
  const middle = points.reduce((sum, { lat }) => sum + lat, 0) / points.length;
  // So near together a degree of longitude is just shorter by the cosine of the latitude.
  const flat = points.map(({ lat, lon }) => ({ x: lon * Math.cos((middle * Math.PI) / 180), y: -lat }));
  const [west, north] = [Math.min(...flat.map(({ x }) => x)), Math.min(...flat.map(({ y }) => y))];
  const span = Math.max(...flat.map(({ x }) => x - west), ...flat.map(({ y }) => y - north), 1e-6);
  const at = ({ x, y }: { x: number; y: number }) => [
    EDGE + ((x - west) / span) * (SIZE - 2 * EDGE),
    EDGE + ((y - north) / span) * (SIZE - 2 * EDGE),
  ];
  const drawn = flat.map(at);
  const way = [...drawn, drawn[0]!].map(([x, y]) => `${x},${y}`).join(' ');
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className="w-full border border-rule bg-ground"
      role="img"
      aria-label={`The way from ${start.label} by ${stops.length} stops and back`}
    >
      <polyline points={way} fill="none" stroke="var(--ink)" strokeWidth="1.4" strokeLinejoin="round" />
      {drawn.map(([x, y], nth) => (
        <g key={nth}>
          <circle
            cx={x}
            cy={y}
            r={nth === 0 ? 4 : 7}
            fill={nth === 0 ? 'var(--ink)' : 'var(--paper)'}
            stroke="var(--ink)"
          />
          {nth > 0 && (
            <text x={x} y={y! + 3} textAnchor="middle" fontSize="8" fill="var(--ink)">
              {nth}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
