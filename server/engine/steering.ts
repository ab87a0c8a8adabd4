import type { NearAnswer, NearWay, PartingAnswer, PartingLine } from '../../contract/steering.ts';
import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell } from '../../core/cells.ts';
import type { Field } from '../../core/fields/field.ts';
import { columnFields } from '../../core/fields/registry.ts';
import { fisherExact } from '../../core/stats/beta.ts';
import {
  allBits,
  countBits,
  countBoth,
  hasBit,
  intersect,
  keepBits,
  noBits,
  setBit,
  type Bits,
} from '../../core/tally/bits.ts';
import type { ListColumn } from '../../core/tally/columns.ts';
import { lineOf } from '../../core/tape/edit.ts';
import {
  isBlock,
  isHas,
  isLive,
  VERDICTS,
  type FieldLine,
  type Line,
  type Tape,
} from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { turnsOf } from '../../core/tape/steer.ts';
import { wordTape } from '../../core/tape/wording.ts';
import type { Engine } from './engine.ts';

/** Turns of each line that are tried together with those of another: the nearest by themselves. */
const PAIRED = 10;
const MOST_WAYS = 8;
/** Of the ways that turn the same lines, how many are shown. */
const ALIKE = 2;

/** Judged members whose values are looked at for limits; more say nothing new. */
const MOST_READ = 2000;
const LIMITS = 9;
const VALUES = 6;
const MOST_PARTING = 8;
/** A line that drops fewer of those out is not worth its place. */
const LEAST_DROPPED = 2;

/** Finds lines that would bring a tape where somebody wants it, each counted exactly. */
export class Steering {
  private readonly engine: Engine;

  constructor(engine: Engine) {
    this.engine = engine;
  }

  /** The ways nearest to a number by turning one or two lines that are not *must*. */
  near(input: unknown, target: number): NearAnswer {
    const tape = this.engine.checked(input);
    const kept = (lines: readonly Line[]) => this.engine.kept({ ...tape, lines });
    const live = tape.lines.filter(isLive);
    const passes = live.map((line) => kept([line]));
    const { size } = this.engine.universeOf(tape.subject);
    const without = (...places: number[]) => {
      const left = allBits(size);
      passes.forEach((pass, at) => !places.includes(at) && keepBits(left, pass));
      return left;
    };
    const distance = (count: number) => Math.abs(count - target);
    const turns = live.map((line, at) => {
      const context = without(at);
      return turnsOf(line, tape.subject)
        .map(({ to }) => {
          const pass = kept([to]);
          return { at, to, pass, count: countBoth(context, pass) };
        })
        .sort((a, b) => distance(a.count) - distance(b.count));
    });
    const found: { places: number[]; to: FieldLine[]; count: number }[] = turns
      .flat()
      .map(({ at, to, count }) => ({ places: [at], to: [to], count }));
    const both = noBits(size);
    for (let i = 0; i < turns.length; i++)
      for (let j = i + 1; j < turns.length; j++) {
        if (!turns[i]!.length || !turns[j]!.length) continue;
        const context = without(i, j);
        for (const one of turns[i]!.slice(0, PAIRED)) {
          intersect(both, context, one.pass);
          for (const other of turns[j]!.slice(0, PAIRED)) {
            const count = countBoth(both, other.pass);
            // Where one of the two changes nothing, the other says it all.
            if (count !== one.count && count !== other.count)
              found.push({ places: [i, j], to: [one.to, other.to], count });
          }
        }
      }
    const now = countBits(without());
    const words = (line: Line) => wordTape([line], tape.subject, this.engine.lookup)[0]!;
    const ways: NearWay[] = [];
    const shown = new Map<string, number>();
    found.sort((a, b) => distance(a.count) - distance(b.count) || a.places.length - b.places.length);
    for (const { places, to, count } of found) {
      if (count === now || ways.length === MOST_WAYS) continue;
      const name = places.join();
      const times = shown.get(name) ?? 0;
      if (times === ALIKE) continue;
      shown.set(name, times + 1);
      ways.push({
        count,
        lines: to.map((line, i) => ({ line, words: words(line), was: words(live[places[i]!]!) })),
      });
    }
    return { now, ways };
  }

  /** What the tape would leave if one of its lines asked each of some tests instead; of a line within a has-line, how many related records. */
  alternatives(input: unknown, at: string, tests: readonly unknown[]): number[] {
    const tape = this.engine.checked(input);
    const own = this.engine.subject(tape.subject).tally;
    const inner = own.innerContext(tape, at);
    const tally = inner?.tally ?? own;
    const context = inner?.kept ?? tally.kept(tape, at);
    const line = inner ? lineOf(tape, at) : tape.lines.find((one) => one.id === at);
    if (!line || isBlock(line) || isHas(line))
      throw new Problem('unknown-line', `The tape has no line "${at}" whose test can be changed.`, {
        field: 'at',
        value: at,
        rule: 'the id of a line that is no either-block and no has-line',
      });
    const { parked: _, ...live } = line;
    return tests.map((test) => {
      const lines = [{ ...live, test }];
      const changed = this.engine.checked({ ...tape, subject: tally.subject, lines, sort: undefined });
      return countBoth(tally.kept(changed), context);
    });
  }

  /** Of each field, the one line that best parts the members of a list that are judged in from those judged out. */
  parting(subject: string, key: string, currency: string): PartingAnswer {
    const own = this.engine.subject(subject);
    const { lists } = own.tally.universe.columns.get('list') as ListColumn;
    const held = lists.get(key);
    if (!held)
      throw new Problem('unknown-list', `There is no list "${key}" of ${subject} in this workspace.`, {
        field: 'key',
        value: key,
      });
    const sets = VERDICTS.map(() => noBits(own.size));
    held.records.forEach((record, i) => setBit(sets[held.verdicts[i]!]!, record));
    const [isIn, isOut, , open] = sets as [Bits, Bits, Bits, Bits];
    const judged = held.records.filter((record) => hasBit(isIn, record) || hasBit(isOut, record));
    const [judgedIn, judgedOut] = [countBits(isIn), countBits(isOut)];
    if (judgedIn === 0 || judgedOut === 0) return { judgedIn, judgedOut, tried: 0, lines: [] };
    const fields = columnFields(subject).filter(({ openers, kind }) => openers.length > 0 && kind !== 'text');
    const step = Math.max(1, judged.length / MOST_READ);
    const some = Uint32Array.from(
      { length: Math.min(MOST_READ, judged.length) },
      (_, i) => judged[Math.floor(i * step)]!,
    );
    const rows = own.rows(
      { format: 'just-tally.tape', version: 1, subject, lines: [] },
      some,
      fields.map(({ id }) => id),
    );
    let tried = 0;
    const gain = ({ dropsIn, dropsOut }: PartingLine) => dropsOut / judgedOut - dropsIn / judgedIn;
    const best = fields.flatMap((field): PartingLine[] => {
      const cells = rows.map((row) => row.cells[field.id] ?? null);
      const lines = candidates(field, cells, currency).flatMap((line): PartingLine[] => {
        const tape = this.checked(subject, line);
        if (!tape) return [];
        tried++;
        const pass = this.engine.kept(tape);
        const dropsIn = judgedIn - countBoth(isIn, pass);
        const dropsOut = judgedOut - countBoth(isOut, pass);
        if (dropsOut < LEAST_DROPPED || dropsIn * 2 > judgedIn || dropsOut * judgedIn <= dropsIn * judgedOut)
          return [];
        return [
          {
            line: tape.lines[0]!,
            words: wordTape(tape.lines, subject, this.engine.lookup)[0]!,
            dropsIn,
            dropsOut,
            dropsNotJudged: countBits(open) - countBoth(open, pass),
            chance: fisherExact(dropsOut, judgedOut - dropsOut, dropsIn, judgedIn - dropsIn),
          },
        ];
      });
      return lines.sort((a, b) => a.chance - b.chance || b.dropsOut - a.dropsOut).slice(0, 1);
    });
    const lines = best
      .map((one) => ({ ...one, chance: Math.min(1, one.chance * tried) }))
      .sort((a, b) => a.chance - b.chance || gain(b) - gain(a));
    return { judgedIn, judgedOut, tried, lines: lines.slice(0, MOST_PARTING) };
  }

  /** A tape of one line; null where the line is none, such as of a value that is no choice. */
  private checked(subject: string, line: FieldLine): Tape | null {
    try {
      return this.engine.checked({ format: 'just-tally.tape', version: 1, subject, lines: [line] });
    } catch (error) {
      if (error instanceof Problem) return null;
      throw error;
    }
  }
}

/** Lines on a field that are worth trying, by the values that the judged have. Unknowns stay in. */
function candidates(field: Field, cells: readonly Cell[], currency: string): FieldLine[] {
  const line = (test: object, more: object = {}): FieldLine => ({
    id: 'parting',
    field: field.id,
    test,
    unknown: 'keep',
    ...more,
  });
  switch (field.kind) {
    case 'number':
    case 'money': {
      const money = field.kind === 'money' ? { currency } : {};
      const estimates = field.store.at === 'range' ? { estimates: true } : {};
      return limitsAmong(cells).flatMap((limit) => [
        line({ from: limit, ...money }, estimates),
        line({ to: limit, ...money }, estimates),
      ]);
    }
    case 'category':
    case 'flag':
      return often(cells.flatMap(valuesOf)).flatMap((value) =>
        field.kind === 'flag'
          ? [line({ is: value === 'yes' })]
          : [line({ any: [value] }), line({ any: [value] }, { not: true })],
      );
    case 'place': {
      const countries = often(cells.flatMap((cell) => (cell as PlaceCell | null)?.country ?? []));
      return countries.flatMap((country) => [
        line({ countries: [country] }),
        line({ countries: [country] }, { not: true }),
      ]);
    }
    case 'codes': {
      const codes = cells.flatMap((cell) => (cell as CodeCell[] | null)?.filter(({ main }) => main) ?? []);
      const scheme = often(codes.map((code) => code.scheme))[0];
      if (!scheme) return [];
      const own = codes.filter((code) => code.scheme === scheme);
      return often(own.flatMap(({ code }) => [code, code.slice(0, 2)])).flatMap((code) => [
        line({ scheme, any: [code], rank: 'main' }),
        line({ scheme, any: [code], rank: 'main' }, { not: true }),
      ]);
    }
    default:
      return [];
  }
}

function valuesOf(cell: Cell): string[] {
  if (typeof cell === 'string') return [cell];
  return Array.isArray(cell) ? cell.filter((one): one is string => typeof one === 'string') : [];
}

/** The values that come most often. */
function often(values: readonly string[]): string[] {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts]
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .slice(0, VALUES)
    .map(([value]) => value);
}

/** Round limits at even shares of the values. */
function limitsAmong(cells: readonly Cell[]): number[] {
  const values = cells
    .flatMap((cell) => {
      if (typeof cell === 'number') return [cell];
      const amount = (cell as QuantityCell | MoneyCell | null)?.amount ?? null;
      return amount === null ? [] : [amount];
    })
    .sort((a, b) => a - b);
  if (values.length < 4) return [];
  const limits = new Set<number>();
  for (let i = 1; i <= LIMITS; i++)
    limits.add(round(values[Math.floor((i * values.length) / (LIMITS + 1))]!));
  return [...limits];
}

/** To two figures, years whole. */
function round(value: number): number {
  return value > 1800 && value < 2100 ? Math.round(value) : Number(value.toPrecision(2));
}
