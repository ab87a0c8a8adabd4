import type {
  BreakdownAnswer,
  ChartAnswer,
  ConcentrationAnswer,
  KnownField,
  StandingAnswer,
  SummaryAnswer,
} from '../../../contract/market.ts';
import { bucketsOf, sourceColumn, type Buckets } from '../../../core/charts/buckets.ts';
import { barRanges } from '../../../core/charts/bars.ts';
import type { Axis, Chart } from '../../../core/charts/chart.ts';
import { chartFigures, scatterOf, spanOf } from '../../../core/charts/figures.ts';
import { testOfGroup } from '../../../core/charts/line-of.ts';
import { readyCharts } from '../../../core/charts/ready.ts';
import { logEdges } from '../../../core/charts/edges.ts';
import { checkChart } from '../../../core/charts/validate.ts';
import { yearOf } from '../../../core/dates.ts';
import type { Field } from '../../../core/fields/field.ts';
import { fieldOf, SUBJECTS } from '../../../core/fields/registry.ts';
import { Recent } from '../../../core/recent.ts';
import { quantilesOf } from '../../../core/stats/quantiles.ts';
import { recordsOf, type Bits } from '../../../core/tally/bits.ts';
import { Basis, type CategoryColumn, type Column, type RangeColumn } from '../../../core/tally/columns.ts';
import { barTest } from '../../../core/tally/evaluate.ts';
import { figuresOf, type Figures } from '../../../core/tally/figures.ts';
import { barNumbers } from '../../../core/tally/in-bars.ts';
import { plane, type Plane } from '../../../core/tally/plane.ts';
import { emptyTape, isBlock, isHas, type Line, type Tape } from '../../../core/tape/nodes.ts';
import { wordLine } from '../../../core/tape/wording.ts';
import { Concentrations } from '../../../core/stats/concentrations.ts';
import type { Engine } from '../engine.ts';
import { groupLabels } from './group-labels.ts';
import { KnownRecords } from './known-records.ts';

const MOST_DOTS = 4000;
/** Bars beyond which those of a figure are made wider. */
const MOST_BARS = 14;
/** Bytes of groups and figures that are kept between questions. */
const CACHE_BYTES = 96 * 2 ** 20;

/** What a company's standing is told by, with the key of measures. */
const STRIPS: readonly [field: string, key: string | undefined][] = [
  ['headcount', undefined],
  ['revenue', undefined],
  ['revenue-per-head', undefined],
  ['growth', 'headcount 1y'],
  ['age', undefined],
];
/** Figures from which percentiles mean something. */
const LEAST_KNOWN = 5;

/** What charts are compared with: everybody, or another tape. */
export type Against = 'universe' | object | undefined;

/** What a ready page has but for what is known. */
type ReadyPage = Pick<BreakdownAnswer, 'charts' | 'concentration'>;

/** The result as a market: charts of it, how concentrated it is, what is known of it, and the foot of the sheet. */
export class Market {
  private readonly engine: Engine;
  private readonly known: KnownRecords;
  private readonly buckets = new Recent<Buckets>(
    CACHE_BYTES,
    ({ single, many }) =>
      (single?.byteLength ?? 0) + (many ? many.offsets.byteLength + many.values.byteLength : 0),
  );
  private readonly figures = new Recent<Figures>(CACHE_BYTES, ({ values }) => values.byteLength);
  private readonly concentrations = new Concentrations();
  private readonly pages = new Map<string, ReadyPage>();
  private readonly names = new WeakMap<Column, number>();
  private named = 0;

  constructor(engine: Engine) {
    this.engine = engine;
    this.known = new KnownRecords(engine);
  }

  /** Charts of a tape, each beside the same of what it is compared with. */
  charts(input: unknown, charts: readonly unknown[], currency: string, against: Against): ChartAnswer[] {
    const tape = this.engine.checked(input);
    const kept = recordsOf(this.engine.kept(tape));
    const base = recordsOrNull(this.base(tape, against));
    return charts.map((chart, i) =>
      this.chart(tape, checkChart(chart, `charts[${i}]`, tape.subject), currency, kept, base),
    );
  }

  /** The page that Breakdown opens with. */
  breakdown(input: unknown, currency: string, against: Against): BreakdownAnswer {
    const tape = this.engine.checked(input);
    const context = this.engine.kept(tape);
    const kept = recordsOf(context);
    const base = recordsOrNull(this.base(tape, against));
    const make = (): ReadyPage => ({
      charts: readyCharts(tape.subject).map((chart) => this.chart(tape, chart, currency, kept, base)),
      concentration:
        tape.subject === 'companies'
          ? {
              revenue: this.concentration(tape, 'revenue', currency, against),
              headcount: this.concentration(tape, 'headcount', currency, against),
            }
          : null,
    });
    const ofAll = tape.lines.length === 0 && against === undefined;
    return {
      total: kept.length,
      base: base?.length ?? null,
      known: this.knownOf(tape, context),
      ...(ofAll ? this.ofEverybody(`${tape.subject} ${currency}`, make) : make()),
    };
  }

  /** The page of a whole subject is made once: it looks at nothing that changes while the columns are the same. */
  private ofEverybody(name: string, make: () => ReadyPage): ReadyPage {
    let page = this.pages.get(name);
    if (!page) this.pages.set(name, (page = make()));
    return page;
  }

  /** What the first ready page would make, in parts that a call can come between. */
  warmUp(): (() => unknown)[] {
    const everybody = emptyTape();
    const kept = recordsOf(this.engine.kept(everybody));
    return [
      ...readyCharts('companies').map((chart) => () => this.chart(everybody, chart, 'EUR', kept, null)),
      ...(['revenue', 'headcount'] as const).map(
        (by) => () => this.concentration(everybody, by, 'EUR', undefined),
      ),
      () => this.breakdown(everybody, 'EUR', undefined),
    ];
  }

  /** By column: how many of a tape's records have a value, and of figures their median and sum. */
  summary(input: unknown, columns: readonly string[], currency: string): SummaryAnswer['columns'] {
    const tape = this.engine.checked(input);
    const kept = this.engine.kept(tape);
    const records = recordsOf(kept);
    return Object.fromEntries(
      columns.flatMap((id) => {
        const field = fieldOf(tape.subject, id);
        if (!field?.column) return [];
        const known = this.known.count(tape.subject, field, kept);
        if (known === null) return [];
        const key = field.column.key;
        if (!['number', 'money', 'growth'].includes(field.kind) && !(field.kind === 'keyed' && key))
          return [[id, { known }]];
        const { values } = this.figuresFor(tape.subject, field, key, currency);
        const own = figuresAmong(values, records);
        let sum = 0;
        for (let i = 0; i < own.length; i++) sum += own[i]!;
        return [
          [
            id,
            {
              known,
              exact: own.length,
              median: quantilesOf(own, [0.5])[0] ?? null,
              ...(adds(field) ? { sum } : {}),
            },
          ],
        ];
      }),
    );
  }

  /** Headcount by revenue of the companies that all lines but those on either let through. */
  plane(input: unknown, currency: string): Plane {
    const tape = this.engine.checked(input);
    const others = tape.lines.filter(
      (line) => isBlock(line) || isHas(line) || (line.field !== 'headcount' && line.field !== 'revenue'),
    );
    const universe = this.engine.universeOf('companies');
    const barsOf = (id: 'headcount' | 'revenue', edges: number[]) => {
      const field = fieldOf('companies', id)!;
      const bars = barRanges(field, edges);
      const tests = bars.map((bar) => barTest(field, bar, currency, this.engine.lookup));
      const own = tape.lines.find((line) => 'field' in line && line.field === id && !line.not);
      // A line that is there keeps its policy on estimates; one that is to be made counts them.
      const estimates = !own || ('estimates' in own && own.estimates === true);
      return {
        bars,
        numbers: barNumbers(universe.columns.get(id) as RangeColumn, tests, universe.size, estimates),
      };
    };
    const [x, y] = [barsOf('headcount', logEdges(0, 4)), barsOf('revenue', logEdges(4, 9))];
    return plane(x.numbers, y.numbers, this.engine.kept({ ...tape, lines: others }), x.bars, y.bars);
  }

  /** Where a company stands among those of its industry group; null where there is none of this key. */
  standing(key: string, currency: string): StandingAnswer | null {
    const companies = this.engine.subject('companies');
    const own = companies.records.byKey(key);
    if (own === undefined) return null;
    const axis = { field: 'industry', level: 'group' };
    const { single, keys } = this.bucketsFor('companies', axis, currency, null);
    const group = single![own]!;
    if (group === 0) return { among: null, strips: [] };
    const peers: number[] = [];
    for (let r = 0; r < single!.length; r++) if (single![r] === group) peers.push(r);
    const strips = STRIPS.flatMap(([id, measure]) => {
      const field = fieldOf('companies', id)!;
      const { values, column } = this.figuresFor('companies', field, measure, currency);
      const known = peers.flatMap((r) => (Number.isNaN(values[r]!) ? [] : [values[r]!]));
      if (known.length < LEAST_KNOWN) return [];
      const value = Number.isNaN(values[own]!) ? null : values[own]!;
      return [
        {
          field: id,
          label: field.label,
          value,
          estimated: column?.basis[own] === Basis.Estimate,
          known: known.length,
          quantiles: quantilesOf(known, [0.05, 0.25, 0.5, 0.75, 0.95]),
          percentile:
            value === null
              ? null
              : Math.round((100 * known.filter((other) => other < value).length) / known.length),
        },
      ];
    });
    const label = groupLabels(this.engine.lookup, 'companies', axis);
    return { among: { label: label(keys[group - 1]!), count: peers.length }, strips };
  }

  private base(tape: Tape, against: Against): Bits | null {
    if (against === undefined) return null;
    const other =
      against === 'universe'
        ? { ...tape, lines: [] }
        : this.engine.checked({ ...against, subject: tape.subject });
    return this.engine.kept(other);
  }

  private chart(
    tape: Tape,
    chart: Chart,
    currency: string,
    kept: Uint32Array,
    base: Uint32Array | null,
  ): ChartAnswer {
    const { subject } = tape;
    const field = fieldOf(subject, chart.by.field)!;
    const own = chart.measure.field === undefined ? null : fieldOf(subject, chart.measure.field)!;
    const figures = own && this.figuresFor(subject, own, chart.measure.key, currency);
    const axis = ['number', 'money', 'keyed', 'growth'].includes(field.kind)
      ? this.figuresFor(subject, field, chart.by.key, currency)
      : null;
    const buckets = this.bucketsFor(subject, chart.by, currency, kept);
    const split = chart.split ? this.bucketsFor(subject, chart.split, currency, kept) : null;
    const told = chartFigures(
      {
        by: buckets,
        split,
        measure: chart.measure,
        figures,
        axisFigures: axis,
        strips: chart.shape === 'strip',
        ...(chart.most ? { most: chart.most } : {}),
      },
      kept,
      base,
    );
    const label = groupLabels(this.engine.lookup, subject, chart.by);
    const partLabel = chart.split ? groupLabels(this.engine.lookup, subject, chart.split) : null;
    return {
      chart,
      total: told.total,
      median: axis ? this.medianOf(axis, kept) : null,
      slots: told.slots.map((slot) => ({
        ...slot,
        label: slot.key === null ? null : label(slot.key),
        edges:
          slot.key === null || !buckets.edges
            ? null
            : [Number(slot.key), buckets.edges[buckets.edges.indexOf(Number(slot.key)) + 1] ?? null],
        test: testOfGroup(field, chart.by, buckets, slot.key, currency),
      })),
      split:
        told.split?.map((part) => ({
          ...part,
          label: part.key === null ? null : partLabel!(part.key),
          test: testOfGroup(fieldOf(subject, chart.split!.field)!, chart.split!, split!, part.key, currency),
        })) ?? null,
      scatter:
        chart.shape === 'scatter' && axis && figures ? this.scatter(subject, axis, figures, kept) : null,
    };
  }

  private scatter(subject: string, x: Figures, y: Figures, kept: Uint32Array): ChartAnswer['scatter'] {
    const { dots, records, placed } = scatterOf(x, y, kept, MOST_DOTS);
    const own = this.engine.subject(subject);
    return { dots, placed, keys: own.keysOf(Uint32Array.from(records)) };
  }

  private medianOf({ values }: Figures, kept: Uint32Array): number | null {
    return quantilesOf(figuresAmong(values, kept), [0.5])[0] ?? null;
  }

  /** Concentration without the lines on size, which would cut off the largest or the smallest, and with groups as one. */
  concentration(
    input: unknown,
    by: 'revenue' | 'headcount',
    currency: string,
    against: Against,
  ): ConcentrationAnswer {
    const tape = this.engine.checked(input);
    const [lines, left] = withoutSize(tape.lines);
    const figures = this.figuresFor('companies', fieldOf('companies', by)!, undefined, currency);
    const of = (context: Bits) =>
      this.concentrations.of(
        context,
        figures,
        this.engine.universeOf('companies').columns.get('group') as CategoryColumn | undefined,
      );
    const own = of(this.engine.kept({ ...tape, lines }));
    const other = this.base(tape, against);
    return {
      by,
      ...own,
      leftOut: left.map((line) => {
        const { label, text } = wordLine(line, 'companies', this.engine.lookup);
        return `${label} ${text}`;
      }),
      base: other ? of(other).found : null,
    };
  }

  private knownOf(tape: Tape, kept: Bits): KnownField[] {
    return SUBJECTS.get(tape.subject)!.fields.flatMap((field) => {
      const known = this.known.count(tape.subject, field, kept);
      if (known === null) return [];
      const { estimated, banded } = this.known.softer(tape.subject, field, kept);
      return [{ field: field.id, label: field.label, known, estimated, banded }];
    });
  }

  /** The groups of an axis; of figures with wider bars where those of a context would be many. */
  private bucketsFor(subject: string, axis: Axis, currency: string, kept: Uint32Array | null): Buckets {
    const universe = this.engine.universeOf(subject);
    const column = this.nameOf(sourceColumn(universe, subject, axis));
    const of = (wide: boolean) =>
      this.buckets.get(`${column} ${JSON.stringify(axis)} ${currency} ${wide}`, () =>
        bucketsOf({ universe, subject, axis, lookup: this.engine.lookup, currency, wide }),
      );
    const fine = of(false);
    return kept && fine.edges && fine.edges.length > MOST_BARS && spanOf(fine, kept) > MOST_BARS
      ? of(true)
      : fine;
  }

  private figuresFor(subject: string, field: Field, key: string | undefined, currency: string): Figures {
    const universe = this.engine.universeOf(subject);
    const column = universe.columns.get(field.yearsSince ?? field.id);
    return this.figures.get(`${this.nameOf(column)} ${field.id} ${key ?? ''} ${currency}`, () =>
      figuresOf(universe, field, key, currency, yearOf(this.engine.lookup.asOf)),
    );
  }

  /** A name for a column: what was made of one is kept as long as it is the same. */
  private nameOf(column: Column | undefined): number {
    if (!column) return 0;
    let name = this.names.get(column);
    if (name === undefined) this.names.set(column, (name = ++this.named));
    return name;
  }
}

function recordsOrNull(bits: Bits | null): Uint32Array | null {
  return bits && recordsOf(bits);
}

/** The figures that some records have. */
function figuresAmong(values: Float64Array, records: Uint32Array): Float64Array {
  const own = new Float64Array(records.length);
  let count = 0;
  for (let i = 0; i < records.length; i++) {
    const value = values[records[i]!]!;
    if (value === value) own[count++] = value;
  }
  return own.subarray(0, count);
}

/** Whether the figures of a field add up to something. */
function adds(field: Field): boolean {
  return field.kind === 'money'
    ? field.id !== 'revenue-per-head'
    : field.kind === 'number' && !['founded', 'age', 'certainty', 'share', 'own-share'].includes(field.id);
}

/** The lines of a tape without those on size, and those apart. */
function withoutSize(lines: readonly Line[]): [others: Line[], size: Line[]] {
  const isSize = (line: Line): boolean =>
    isBlock(line)
      ? line.either.some(isSize)
      : !isHas(line) && fieldOf('companies', line.field)?.section === 'size';
  return [lines.filter((line) => !isSize(line)), lines.filter((line) => isSize(line) && !line.parked)];
}
