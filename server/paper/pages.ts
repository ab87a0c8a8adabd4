import type { BreakdownAnswer, ChartAnswer } from '../../contract/market.ts';
import type { VisitsAnswer } from '../../contract/visits.ts';
import type { ProfileAnswer, RowsAnswer } from '../../contract/responses.ts';
import type { CodeCell, MoneyCell, PlaceCell, QuantityCell } from '../../core/cells.ts';
import { titleOf } from '../../core/charts/wording.ts';
import { SCHEMES } from '../../core/codes/tree.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import type { ExportColumn } from '../../core/exports/field-columns.ts';
import { sketchOf, townsOnSketch } from '../../core/geo/sketch.ts';
import { ROAD_FACTOR } from '../../core/geo/tour.ts';
import { fieldOf, subjectOf } from '../../core/fields/registry.ts';
import { INK, Paper } from './paper.ts';
import {
  barsOf,
  chart,
  concentration,
  head,
  howMade,
  knownBars,
  plain,
  printed,
  tableColumns,
  type Made,
} from './parts.ts';

export type PaperWish = Made &
  (
    | {
        kind: 'sheet';
        title: string;
        subject: string;
        columns: readonly string[];
        headings: Record<string, string>;
        order: string;
        rows: RowsAnswer;
      }
    | {
        kind: 'profile';
        profile: ProfileAnswer;
        related: { subject: string; total: number; columns: readonly string[]; rows: RowsAnswer['rows'] }[];
        note: string;
      }
    | { kind: 'breakdown'; title: string; subject: string; breakdown: BreakdownAnswer; own: ChartAnswer[] }
    | { kind: 'summary'; title: string; subject: string; breakdown: BreakdownAnswer; rows: RowsAnswer }
    | { kind: 'visits'; title: string; day: string; speed: number; visits: VisitsAnswer }
  );

/** Makes a paper. */
export function makePaper(wish: PaperWish): Promise<Buffer> {
  switch (wish.kind) {
    case 'sheet':
      return sheet(wish);
    case 'profile':
      return profile(wish);
    case 'breakdown':
      return breakdown(wish);
    case 'summary':
      return summary(wish);
    case 'visits':
      return visitsOfDay(wish);
  }
}

type Wish<K extends PaperWish['kind']> = Extract<PaperWish, { kind: K }>;

function sheet(wish: Wish<'sheet'>): Promise<Buffer> {
  const { subject, rows, figuring } = wish;
  const { many } = subjectOf(subject);
  const shown = rows.rows.length;
  const paper = new Paper(
    head(
      wish,
      wish.title,
      `${figuring.number(rows.total)} ${many}, ${wish.order}${shown < rows.total ? `; the first ${figuring.number(shown)} are printed` : ''}`,
      true,
    ),
  );
  howMade(paper, wish);
  paper.y += 6;
  const columns = printed(exportColumns(subject, wish.columns, wish.currency, wish.headings));
  const text = (column: ExportColumn, row: RowsAnswer['rows'][number]) => {
    const value = column.value(row);
    if (value === null) return '';
    return typeof value === 'number'
      ? column.heading === 'Founded'
        ? String(value)
        : figuring.number(value, column.digits ?? 0)
      : value;
  };
  paper.table(
    tableColumns(columns),
    rows.rows.map((row) => columns.map((column) => text(column, row))),
  );
  return paper.done();
}

function quantity(cell: QuantityCell, say: (value: number) => string): string {
  const year = cell.year ? ` (${cell.year})` : '';
  if (cell.basis === 'band')
    return `${say(cell.low ?? 0)}${cell.high === null ? '+' : ` to ${say(cell.high)}`}, a band${year}`;
  if (cell.basis === 'estimate')
    return `c. ${say(cell.amount!)}, between ${say(cell.low ?? 0)} and ${cell.high === null ? 'more' : say(cell.high)}${year}`;
  return `${say(cell.amount!)}${year}`;
}

function profile(wish: Wish<'profile'>): Promise<Buffer> {
  const { profile: found, figuring } = wish;
  const { cells, why } = found.row;
  const text = (id: string) => cells[id] as string | null;
  const home = cells.place as PlaceCell | null;
  const paper = new Paper(
    head(
      wish,
      text('name') ?? found.row.key,
      [
        [home?.town, home?.region, home?.country].filter(Boolean).join(', '),
        typeof cells.founded === 'number' ? `since ${cells.founded}` : '',
        text('status') ?? '',
        text('checked') ? `checked ${text('checked')}` : '',
      ]
        .filter(Boolean)
        .join(' · '),
    ),
  );
  if (text('description')) paper.write(text('description')!, { size: 10.5 });
  if (wish.note) paper.write(`Note: ${wish.note}`, { colour: INK.soft });
  paper.heading('Size');
  const unknown = (id: string) => `unknown: ${why?.[id] ?? 'not collected'}`;
  const headcount = cells.headcount as QuantityCell | null;
  paper.fact(
    'Headcount',
    headcount ? quantity(headcount, (value) => figuring.number(value)) : unknown('headcount'),
    headcount?.basis === 'estimate' ? INK.unsure : INK.ink,
  );
  for (const id of ['revenue', 'profit', 'assets']) {
    const cell = cells[id] as MoneyCell | null;
    const say = (value: number) => `${figuring.number(value)} ${cell!.currency}`;
    paper.fact(
      fieldOf('companies', id)!.label,
      cell ? quantity(cell, say) : unknown(id),
      cell?.basis === 'estimate' ? INK.unsure : INK.ink,
    );
  }
  const history =
    found.records.find(({ id }) => id === found.from.headcountHistory)?.record.headcountHistory ?? [];
  if (history.length) {
    paper.heading('Headcount by year');
    const most = Math.max(...history.map(({ value }) => value), 1);
    paper.bars(
      history.map(({ year, value, estimate }) => ({
        name: String(year),
        length: value / most,
        soft: estimate ? 1 : 0,
        shown: `${estimate ? 'c. ' : ''}${figuring.number(value)}`,
      })),
      { named: 0.12 },
    );
  }
  paper.heading('Codes', 'main first');
  for (const code of (cells.industry as CodeCell[] | null) ?? [])
    paper.fact(`${code.code}${code.main ? ', main' : ''}`, `${code.title} (${SCHEMES[code.scheme]})`);
  paper.heading('Reach');
  for (const id of ['web', 'phone', 'mail'])
    paper.fact(fieldOf('companies', id)!.label, text(id) ?? 'unknown');
  paper.fact(
    'Address',
    [text('street'), [text('postcode'), home?.town].filter(Boolean).join(' '), home?.country]
      .filter(Boolean)
      .join(', ') || 'unknown',
  );
  paper.heading('Register');
  for (const id of ['legal-form', 'registration', 'ownership', 'group', 'listing'])
    if (text(id)) paper.fact(fieldOf('companies', id)!.label, text(id)!);
  const technologies = cells.technology as string[] | null;
  paper.heading('Technology');
  paper.write(
    technologies === null
      ? 'unknown: the site was never surveyed'
      : technologies.join(', ') || 'surveyed; none seen',
  );
  for (const { subject, total, columns, rows } of wish.related) {
    if (total === 0) continue;
    paper.heading(
      subject.charAt(0).toUpperCase() + subject.slice(1),
      total > rows.length
        ? `the first ${rows.length} of ${figuring.number(total)}`
        : `${figuring.number(total)}`,
    );
    const shown = printed(exportColumns(subject, columns, wish.currency));
    paper.table(
      tableColumns(shown),
      rows.map((row) => shown.map((column) => plain(column.value(row), figuring))),
    );
  }
  paper.heading('Where it is from');
  for (const { source, asOf, record } of found.records) paper.fact(source, `as of ${asOf}: ${record.name}`);
  return paper.done();
}

function breakdown(wish: Wish<'breakdown'>): Promise<Buffer> {
  const { breakdown: found, own, subject, figuring } = wish;
  const paper = new Paper(
    head(wish, wish.title, `Breakdown of ${figuring.number(found.total)} ${subjectOf(subject).many}`),
  );
  howMade(paper, wish);
  for (const answer of [...own, ...found.charts]) chart(paper, answer, subject, figuring);
  if (found.concentration)
    for (const by of ['revenue', 'headcount'] as const)
      concentration(paper, found.concentration[by], figuring);
  paper.heading('What is known', 'hatched: in bands or by estimate');
  paper.bars(knownBars(found, figuring, 60));
  return paper.done();
}

/** Rows of the largest that a summary names. */
const NAMED = 12;
/** Bars that a summary has room for. */
const SUMMARY_BARS = 9;

/** The market on two pages: what it is, how large and where, and who is largest. */
function summary(wish: Wish<'summary'>): Promise<Buffer> {
  const { breakdown: found, subject, figuring, rows } = wish;
  const { many } = subjectOf(subject);
  const paper = new Paper(head(wish, wish.title, `Market summary: ${figuring.number(found.total)} ${many}`));
  howMade(paper, { ...wish, words: wish.words.slice(0, 9) });
  const ofId = (id: string) => found.charts.find(({ chart: own }) => own.id === id);
  const panel = (answer: ChartAnswer | undefined) => (x: number, width: number) => {
    if (!answer) return;
    paper.write(titleOf(subject, answer.chart), { font: 'slab', size: 12, x, width });
    const bars = barsOf(answer, subject, figuring);
    const tail = bars.filter((bar) => bar.rest || bar.unknown);
    paper.bars([...bars.filter((bar) => !bar.rest && !bar.unknown).slice(0, SUMMARY_BARS), ...tail], {
      x,
      width,
      named: 0.46,
    });
  };
  paper.y += 6;
  paper.beside(190, panel(ofId('where') ?? found.charts[0]), panel(ofId('size') ?? found.charts[1]));
  paper.beside(190, panel(ofId('what') ?? found.charts[2]), panel(ofId('use') ?? found.charts[3]));
  const key = { ...found, known: found.known.filter(({ field }) => KEY_FIELDS.includes(field)) };
  paper.beside(150, panel(ofId('age') ?? found.charts[4]), (x, width) => {
    paper.write('What is known', { font: 'slab', size: 12, x, width });
    paper.bars(knownBars(key, figuring, SUMMARY_BARS + 1), { x, width, named: 0.46 });
  });
  paper.newPage();
  if (found.concentration)
    for (const by of ['revenue', 'headcount'] as const)
      concentration(paper, found.concentration[by], figuring);
  paper.heading(
    'The largest',
    rows.total > NAMED ? `the first ${NAMED} of ${figuring.number(rows.total)}` : '',
  );
  const shown = printed(
    exportColumns(
      subject,
      subject === 'companies' ? ['name', 'place', 'headcount', 'revenue'] : ['name'],
      wish.currency,
    ),
  ).filter(({ heading }) => heading !== 'Region');
  paper.table(
    tableColumns(shown),
    rows.rows.slice(0, NAMED).map((row) => shown.map((column) => plain(column.value(row), figuring))),
  );
  return paper.done();
}

const KEY_FIELDS = [
  'industry',
  'place',
  'headcount',
  'revenue',
  'growth',
  'technology',
  'web',
  'phone',
  'mail',
  'founded',
];

const SKETCH = 220;

/** A day's visits: the way to scale, the stops in their order, and what was noted of each. */
function visitsOfDay(wish: Wish<'visits'>): Promise<Buffer> {
  const { figuring } = wish;
  const { start, stops, back, km, minutes } = wish.visits;
  const under = `${wish.day}: ${stops.length} from ${start.label} and back, ${figuring.number(km)} km as the crow flies, about ${figuring.number(minutes)} minutes of driving; back at ${back.at}`;
  const paper = new Paper(head(wish, wish.title, under, true));
  const place = sketchOf([start, ...stops], SKETCH, 14);
  const points = [start, ...stops].map(place);
  paper.way(points, townsOnSketch(wish.visits.towns, points, place, SKETCH), SKETCH);
  paper.table(
    [
      { heading: '', width: 3, mono: true },
      { heading: 'when', width: 11, mono: true },
      { heading: 'company', width: 24 },
      { heading: 'where', width: 30 },
      { heading: 'whom to ask for', width: 26 },
      { heading: 'phone', width: 17, mono: true },
      { heading: 'km', width: 7, right: true, mono: true },
    ],
    stops.map((stop, nth) => [
      String(nth + 1),
      `${stop.at}–${stop.until}`,
      stop.name,
      [stop.street, [stop.postcode, stop.town].filter(Boolean).join(' ')].filter(Boolean).join(', '),
      [stop.person?.name, stop.person?.title].filter(Boolean).join(', '),
      stop.person?.phone ?? stop.phone ?? '',
      figuring.number(stop.km, 1),
    ]),
  );
  const noted = stops.map(({ name, note }, nth) => ({ nth: nth + 1, name, note })).filter(({ note }) => note);
  if (noted.length) paper.heading('Notes');
  for (const { nth, name, note } of noted) paper.write(`${nth}  ${name}: ${note}`);
  paper.write(
    `Driving is an estimate: roads taken ${ROAD_FACTOR} times as long as the crow flies, at ${wish.speed} km an hour.`,
    { colour: INK.soft, size: 8.5 },
  );
  return paper.done();
}
