import { goingOut, stayingOff, type GoingWish } from './going-out.ts';
import type { PersonFunction } from '../../core/people/functions.ts';
import type { Scheme } from '../../core/codes/tree.ts';
import type { MapView } from '../../core/geo/clusters.ts';
import type { CorrectionWish } from './rows/corrections.ts';
import type { Keys } from '../../core/tally/order.ts';
import type { Dialect } from '../../core/tape/sql/compile.ts';
import type { Engine } from './engine.ts';
import type { ListsEngine } from './lists-engine.ts';
import type { Steering } from './steering.ts';
import type { MapEngine } from './market/map-engine.ts';
import type { Against, Market } from './market/market.ts';
import type { CountsRequest } from './pickers/counts-request.ts';

import { titlesLike } from '../tables/title-readings.ts';
import type { Picks } from './subject-engine.ts';

/** What answers within a counting thread. */
export interface Answering {
  engine: Engine;
  market: Market;
  map: MapEngine;
  lists: ListsEngine;
  steering: Steering;
}

/**
 * Which of the two threads answers: the first counts tapes; the second looks at records, and searches codes, whose index would
 * make each collection of garbage hold up the counts.
 */
export type Thread = 'first' | 'second';

/** One thing that the counting threads can be asked. Its handler runs in the thread; the others only name it. */
export interface Call<A extends unknown[] = never[], R = unknown> {
  /** Its key in `calls`, by which threads speak of it. */
  readonly method: string;
  readonly thread: Thread;
  readonly handler: (on: Answering, ...args: A) => R;
}

type Unnamed<A extends unknown[], R> = Omit<Call<A, R>, 'method'>;

function first<A extends unknown[], R>(handler: Call<A, R>['handler']): Unnamed<A, R> {
  return { thread: 'first', handler };
}

function second<A extends unknown[], R>(handler: Call<A, R>['handler']): Unnamed<A, R> {
  return { thread: 'second', handler };
}

function named<T extends Record<string, Unnamed<never[], unknown>>>(
  all: T,
): { [K in keyof T]: T[K] & { readonly method: string } } {
  const entries = Object.entries(all).map(([method, call]) => [method, { method, ...call }]);
  return Object.fromEntries(entries) as { [K in keyof T]: T[K] & { readonly method: string } };
}

/** Everything that the counting threads answer. */
export const calls = named({
  // Counts of a tape.
  tally: first(({ engine }, tape: unknown) => engine.tally(tape)),
  sql: first(({ engine }, tape: unknown, dialect: Dialect) => engine.sql(tape, dialect)),
  wordsOf: first(({ engine }, tape: unknown) => engine.wordsOf(tape)),
  exportHeadings: first(({ engine }, tape: unknown, columns: readonly string[]) =>
    engine.exportHeadings(tape, columns),
  ),
  describe: first(({ engine }) => engine.describe()),
  inhabitants: first(({ map }) => map.inhabitants()),

  // What pickers and typed lines ask.
  counts: second(({ engine }, wish: CountsRequest) => engine.counts(wish)),
  alternatives: second(({ steering }, tape: unknown, at: string, tests: readonly unknown[]) =>
    steering.alternatives(tape, at, tests),
  ),
  plane: second(({ market }, tape: unknown, currency: string) => market.plane(tape, currency)),
  code: second(({ engine }, scheme: Scheme, code: string) => engine.code(scheme, code)),
  typed: second(({ engine }, text: string, stem: string, subject: string) =>
    engine.typed(text, stem, subject),
  ),
  complete: second(({ engine }, text: string, tape: unknown) => engine.complete(text, tape)),
  jump: second(({ engine }, text: string) => engine.jump(text)),
  townsWithin: second(({ map }, lats: readonly [number, number], lons: readonly [number, number]) =>
    map.townsWithin(lats, lons),
  ),
  towns: second(({ map }, text: string, limit: number) => map.towns(text, limit)),

  titlesLike: second(({ engine }, wish: Parameters<typeof titlesLike>[1]) => titlesLike(engine.db, wish)),

  // The records of a tape.
  rows: second(
    (
      { engine },
      tape: unknown,
      columns: readonly string[],
      sort: unknown,
      offset: number,
      limit: number,
      picks?: Picks,
    ) => engine.rows(tape, columns, sort, offset, limit, picks),
  ),
  idsOf: second(({ engine }, tape: unknown, sort: unknown, picks?: Picks) => engine.idsOf(tape, sort, picks)),
  // Lists: records to be put on one, a list held against a tape, and what is kept off an export.
  recordsFor: second(
    (
      { lists },
      tape: unknown,
      sort: unknown,
      picks: Picks,
      subject: string,
      functions?: readonly PersonFunction[],
    ) => lists.recordsFor(tape, sort, picks, subject, functions),
  ),
  keptOffOf: second(({ lists }, subject: string, ids: Uint32Array) => lists.keptOffOf(subject, ids)),
  keptOffAmong: second(({ lists }, subject: string, keys: readonly string[]) =>
    lists.keptOffAmong(subject, keys),
  ),
  goingOut: second(({ engine }, tape: unknown, sort: unknown, picks: Picks, wish: GoingWish) =>
    goingOut(engine, tape, sort, picks, wish),
  ),
  stayingOff: second(
    ({ engine }, tape: unknown, sort: unknown, picks: Picks, wish: GoingWish, step: string) =>
      stayingOff(engine, tape, sort, picks, wish, step),
  ),
  near: second(({ steering }, tape: unknown, target: number) => steering.near(tape, target)),
  parting: second(({ steering }, subject: string, list: string, currency: string) =>
    steering.parting(subject, list, currency),
  ),
  drawSample: second(({ lists }, tape: unknown, size: number, seed: number, by: string | null) =>
    lists.drawSample(tape, size, seed, by),
  ),
  heldAgainst: second(({ lists }, tape: unknown, list: string) => lists.heldAgainst(tape, list)),
  pickedCount: second(({ engine }, tape: unknown, sort: unknown, picks: Picks) =>
    engine.pickedCount(tape, sort, picks),
  ),
  position: second(({ engine }, tape: unknown, sort: unknown, key: string) =>
    engine.position(tape, sort, key),
  ),
  find: second(({ engine }, tape: unknown, sort: unknown, text: string, from: number) =>
    engine.find(tape, sort, text, from),
  ),
  ownColumns: second(({ engine }, tape: unknown, ids: Uint32Array, columns: readonly string[]) =>
    engine.ownColumns(tape, ids, columns),
  ),
  readCorrections: second(({ engine }, key: string, corrections: readonly CorrectionWish[]) =>
    engine.checkCorrections(key, corrections),
  ),
  profile: second(({ engine }, key: string) => engine.profile(key)),
  record: second(({ engine }, subject: string, key: string) => engine.record(subject, key)),
  takeLabelKeys: second(({ engine }, by: string, keys: Keys) => engine.takeLabelKeys(by, keys)),

  // The records of a tape as a market and on a map.
  breakdown: second(({ market }, tape: unknown, currency: string, against: Against) =>
    market.breakdown(tape, currency, against),
  ),
  charts: second(
    ({ market }, tape: unknown, charts: readonly unknown[], currency: string, against: Against) =>
      market.charts(tape, charts, currency, against),
  ),
  summary: second(({ market }, tape: unknown, columns: readonly string[], currency: string) =>
    market.summary(tape, columns, currency),
  ),
  standing: second(({ market }, key: string, currency: string) => market.standing(key, currency)),
  points: second(({ map }, tape: unknown, at: string | undefined, limit: number) =>
    map.points(tape, at, limit),
  ),
  clusters: second(({ map }, tape: unknown, view: MapView, seen?: Omit<MapView, 'cells'>) =>
    map.clusters(tape, view, seen),
  ),
  cities: second(({ map }) => map.cities()),
});
