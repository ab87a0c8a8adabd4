import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type {
  CategoryCounts,
  CodesCounts,
  KeyedCounts,
  NearCounts,
  PlaceCounts,
  RangeCounts,
  TownCounts,
} from '../../../contract/responses.ts';
import { axisFields, keysOf, levelsOf } from '../../../core/charts/axes.ts';
import type { Field } from '../../../core/fields/field.ts';
import { fieldOf, lineFields, SUBJECTS } from '../../../core/fields/registry.ts';
import { emptyTape, type FieldLine, type Tape, type Test } from '../../../core/tape/nodes.ts';
import { overUniverses } from '../../testing/over-universes.ts';
import { RandomUniverse } from '../../testing/random-universe.ts';
import type { CountsRequest } from './counts-request.ts';
import type { Engine } from '../engine.ts';
import { Market } from '../market/market.ts';

/** A count beside a choice is what choosing it leaves: every choice of every picker and chart is chosen, and counted. */

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

/** A choice as it is shown, and the line that a click on it makes. */
interface Choice {
  count: number;
  test: Test;
  estimates?: true;
  fresh?: string;
}

type Asked = Omit<CountsRequest, 'tape' | 'field'>;

/** Ways to ask for codes: a scheme, which of a company's codes count, and whether other schemes decide too. */
const CODE_FORMS = [
  ['nace-2.1', 'any', undefined],
  ['nace-2.1', 'main', 'possible'],
  ['naics-2022', 'main', undefined],
  ['naics-2022', 'any', 'sure'],
  ['isic-4', 'any', 'possible'],
  ['isic-4', 'main', 'sure'],
] as const;

/** All choices that the picker of a field offers, in all the forms it has. */
function* choicesOf(engine: Engine, tape: Tape, field: Field): Generator<Choice> {
  const ask = <T>(request: Asked = {}) =>
    engine.counts({ tape, field: field.id, ...request }) as unknown as T & { unknown: number; total: number };
  const estimates = field.store.at === 'range' ? { estimates: true as const } : {};
  switch (field.kind) {
    case 'codes':
      for (const [scheme, rank, kin] of CODE_FORMS) {
        const more = { rank, ...(kin ? { kin } : {}) };
        for (const [node, { code, count }] of ask<CodesCounts>({ scheme, ...more }).codes.entries())
          if (count > 0 || node % 50 === 0) yield { count, test: { scheme, any: [code], ...more } };
      }
      return;
    case 'place':
      for (const site of field.subject === 'companies' ? ([undefined, 'any'] as const) : [undefined]) {
        const more = site ? { site } : {};
        const { countries, regions, groups } = ask<PlaceCounts>(more);
        for (const { key, count } of [...countries, ...groups])
          yield { count, test: { countries: [key], ...more } };
        for (const { key, count } of regions) yield { count, test: { regions: [key], ...more } };
        for (const { key, count } of ask<TownCounts>({ level: 'towns', ...more }).values)
          yield { count, test: { towns: [key], ...more } };
        for (const { key, count } of ask<TownCounts>({ level: 'metro', search: 'Brno', ...more }).values)
          yield { count, test: { metro: [key], ...more } };
        for (const request of [{}, { within: 'CZ' }, { within: 'GB' }, { within: 'MT' }, { search: '6' }])
          for (const { key, count } of ask<TownCounts>({ level: 'postcodes', ...request, ...more }).values)
            yield { count, test: { postcodes: [key], ...more } };
        for (const unit of ['km', 'miles'] as const) {
          const near = { lat: 49.2, lon: 16.6 };
          for (const { radius, count } of ask<NearCounts>({ near: { ...near, unit }, ...more }).radii)
            yield { count, test: { near: { ...near, [unit]: radius }, ...more } };
        }
      }
      return;
    case 'number':
    case 'money':
      for (const currency of field.kind === 'money' ? ['EUR', 'CZK', 'USD'] : [undefined]) {
        const own = currency ? { currency } : {};
        const { bars, counts, estimated } = ask<RangeCounts>(own);
        for (const [i, bar] of bars.entries()) {
          yield { count: counts[i]!, test: { ...bar, ...own }, ...estimates };
          yield { count: counts[i]! - estimated[i]!, test: { ...bar, ...own } };
        }
      }
      return;
    case 'keyed':
      for (const { key } of keysOf(field)) {
        const { bars, counts } = ask<KeyedCounts>({ key });
        for (const [i, bar] of bars.entries()) yield { count: counts[i]!, test: { key, ...bar } };
      }
      return;
    case 'growth':
      for (const { key } of keysOf(field)) {
        const { bars, counts } = ask<RangeCounts>({ key });
        const [of, over] = key.split(' ') as [string, '1y'];
        for (const [i, bar] of bars.entries()) yield { count: counts[i]!, test: { of, over, ...bar } };
      }
      return;
    case 'category': {
      for (const { key, count } of ask<CategoryCounts>().values) yield { count, test: { any: [key] } };
      if (field.store.at !== 'many' || !field.store.seen) return;
      for (const { key, count } of ask<CategoryCounts>({ seen: '12 months' }).values)
        yield { count, test: { any: [key], seen: '12 months' } };
      return;
    }
    case 'flag':
      for (const { key, count } of ask<CategoryCounts>().values) yield { count, test: { is: key === 'yes' } };
      return;
    case 'list':
      for (const { key, count } of ask<CategoryCounts>().values) yield { count, test: { any: [key] } };
      return;
    default:
      return;
  }
}

/** Every third of a field's choices asked again among values that are fresh. */
function* freshOf(engine: Engine, tape: Tape, field: Field): Generator<Choice> {
  if (!field.dated || field.kind !== 'category') return;
  const { values } = engine.counts({
    tape,
    field: field.id,
    fresh: '12 months',
  }) as unknown as CategoryCounts;
  for (const { key, count } of values) yield { count, test: { any: [key] }, fresh: '12 months' };
}

function leaves(engine: Engine, tape: Tape, field: string, { count: _, ...line }: Choice): number {
  const added: FieldLine = { id: 'clicked', field, ...line };
  return engine.tally({ ...tape, lines: [...tape.lines, added] }).tally;
}

const tapesOf = (tape: Tape): Tape[] =>
  tape.lines.length ? [tape] : [...SUBJECTS.keys()].map((subject) => emptyTape(subject));

test('every count of every picker is what a click on it leaves', () => {
  overUniverses(random, 3, (engine, given) => {
    for (const tape of tapesOf(given))
      for (const field of lineFields(tape.subject))
        for (const choice of [...choicesOf(engine, tape, field), ...freshOf(engine, tape, field)]) {
          const left = leaves(engine, tape, field.id, choice);
          // Tens of thousands of choices: only one that is wrong is worth the words.
          if (left !== choice.count) expect({ field: field.id, choice }).toEqual({ left });
        }
  });
});

test('bars, wider bands and unknowns are together all of a context', () => {
  overUniverses(random, 8, (engine, tape) => {
    for (const field of lineFields(tape.subject)) {
      if (!['number', 'money', 'keyed', 'growth'].includes(field.kind)) continue;
      const { total, counts, banded, unknown, reasons } = engine.counts({
        tape,
        field: field.id,
      }) as unknown as RangeCounts;
      expect(counts.reduce((sum, count) => sum + count, 0) + banded + unknown).toBe(total);
      expect(banded).toBeGreaterThanOrEqual(0);
      if (field.store.at === 'range')
        expect(Object.values(reasons).reduce((sum, count) => sum + count, 0)).toBe(unknown);
    }
  });
});

/** Charts by every axis of a subject. */
function chartsOf(subject: string): object[] {
  return axisFields(subject).flatMap((field, i) => {
    const levels = levelsOf(field).length ? levelsOf(field) : [undefined];
    const keys = keysOf(field).length ? keysOf(field).map(({ key }) => key) : [undefined];
    return levels.flatMap((level) =>
      keys.map((key, k) => ({
        id: `c${i}-${level ?? ''}-${k}`,
        shape: ['number', 'money'].includes(field.kind) ? 'histogram' : 'bars',
        by: { field: field.id, ...(level ? { level } : {}), ...(key ? { key } : {}) },
        measure: { of: 'count' },
        most: 2000,
      })),
    );
  });
}

test('every bar of every chart is what a click on it leaves', () => {
  overUniverses(random, 3, (engine, given) => {
    const market = new Market(engine);
    for (const tape of tapesOf(given))
      for (const currency of ['EUR', 'CZK'])
        for (const { chart, slots } of market.charts(tape, chartsOf(tape.subject), currency, undefined))
          for (const slot of slots) {
            if (!slot.test) continue;
            const field = fieldOf(tape.subject, chart.by.field)!;
            const estimates = field.store.at === 'range' ? { estimates: true as const } : {};
            const choice = { count: slot.count, test: slot.test, ...estimates };
            const left = leaves(engine, tape, field.id, choice);
            expect({ by: chart.by, choice, left }).toEqual({ by: chart.by, choice, left: slot.count });
          }
  });
});

test('every cell of headcount by revenue is what the two lines leave', () => {
  overUniverses(random, 3, (engine, given) => {
    const tape = { ...given, lines: given.lines.filter((line) => !('field' in line)) };
    const { xBars, yBars, counts, placed, total } = new Market(engine).plane(tape, 'CZK');
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(placed);
    expect(total).toBe(engine.tally(tape).tally);
    for (const [at, count] of counts.entries()) {
      if (count === 0 && at % 7) continue;
      const [x, y] = [at % xBars.length, Math.floor(at / xBars.length)];
      const lines: FieldLine[] = [
        { id: 'x', field: 'headcount', test: xBars[x]!, estimates: true },
        { id: 'y', field: 'revenue', test: { ...yBars[y]!, currency: 'CZK' }, estimates: true },
      ];
      expect(engine.tally({ ...tape, lines: [...tape.lines, ...lines] }).tally).toBe(count);
    }
  });
});
