import { fieldOf } from '../fields/registry.ts';
import { isWhole, stepOf } from '../fields/field.ts';
import {
  isBlock,
  isHas,
  isLive,
  passesUnknown,
  type CodesTest,
  type FieldLine,
  type Line,
  type NumberTest,
  type PlaceTest,
  type Test,
} from './nodes.ts';

/** A line turned a little: one limit, distance, policy or reach of it is another. */
export interface Turned {
  /** Id of the line. */
  line: string;
  to: FieldLine;
}

/** Limits that are tried, by decade. */
const ROUND = [1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8];
/** How far from the limit at hand they may lie, as a factor. */
const REACH = 8;
const FACTORS = [0.25, 0.4, 0.5, 0.65, 0.8, 0.9, 1.1, 1.25, 1.5, 2, 3];
const SPANS = ['6 months', '12 months', '24 months', '36 months', '60 months'];

/**
 * The lines that one of a tape may become to bring it near a number: limits and distances wider and narrower, kin, rank,
 * estimates, freshness, and what happens to its unknowns. A line that is *must*, parked, or no plain one becomes none.
 */
export function turnsOf(line: Line, subject: string): Turned[] {
  if (line.must || !isLive(line) || isBlock(line) || isHas(line)) return [];
  const field = fieldOf(subject, line.field)!;
  const turns: FieldLine[] = [];
  const test = (one: Test) => turns.push({ ...line, test: one });
  if (
    field.kind === 'number' ||
    field.kind === 'money' ||
    field.kind === 'keyed' ||
    field.kind === 'growth'
  ) {
    for (const one of ranges(line.test as NumberTest, isWhole(field) ? 1 : stepOf(field)))
      test({ ...line.test, ...one } as Test);
    if (field.store.at === 'range') turns.push(withEstimates(line));
  }
  if (field.kind === 'place') distances(line.test as PlaceTest).forEach(test);
  if (field.kind === 'codes') codes(line.test as CodesTest).forEach(test);
  if (line.fresh) for (const fresh of SPANS) if (fresh !== line.fresh) turns.push({ ...line, fresh });
  if (field.kind !== 'list' && field.kind !== 'record')
    turns.push({ ...line, unknown: passesUnknown(line) ? 'drop' : 'keep' });
  return turns.map((to) => ({ line: line.id, to }));
}

/** The range with one of its limits at each round figure near it. */
function ranges(test: NumberTest, step: number): NumberTest[] {
  const found: NumberTest[] = [];
  for (const end of ['from', 'to'] as const) {
    const now = test[end];
    if (now === undefined || now <= 0) continue;
    for (const limit of roundNear(now)) {
      const figure = Math.round(limit / step) * step;
      const moved = { ...test, [end]: Number(figure.toPrecision(12)) };
      if (moved[end] !== now && (moved.from ?? -Infinity) <= (moved.to ?? Infinity)) found.push(moved);
    }
  }
  return found;
}

function* roundNear(limit: number): Generator<number> {
  const decade = 10 ** Math.floor(Math.log10(limit));
  for (const tens of [0.1, 1, 10])
    for (const one of ROUND) {
      const figure = one * tens * decade;
      if (figure >= limit / REACH && figure <= limit * REACH) yield figure;
    }
}

function distances(test: PlaceTest): PlaceTest[] {
  const { near } = test;
  if (!near) return [];
  const unit = near.miles === undefined ? 'km' : 'miles';
  const now = near[unit]!;
  const others = new Set(FACTORS.map((factor) => Math.max(1, Math.round(now * factor))));
  others.delete(now);
  return [...others].map((distance) => ({ ...test, near: { ...near, [unit]: distance } }));
}

function codes({ kin, rank, ...test }: CodesTest): CodesTest[] {
  const whole = (kins: CodesTest['kin'], ranks: CodesTest['rank']): CodesTest => ({
    ...test,
    ...(ranks ? { rank: ranks } : {}),
    ...(kins ? { kin: kins } : {}),
  });
  return [
    ...([undefined, 'sure', 'possible'] as const).filter((one) => one !== kin).map((one) => whole(one, rank)),
    whole(kin, rank === 'main' ? 'any' : 'main'),
  ];
}

function withEstimates(line: FieldLine): FieldLine {
  const { estimates, ...rest } = line;
  return estimates ? rest : { ...line, estimates: true };
}
