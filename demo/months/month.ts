import { rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { join } from 'node:path';
import { stringify } from 'csv-stringify/sync';
import { isoOf } from '../../core/dates.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Db } from '../../server/db/open.ts';
import { loadFile } from '../../server/load/load-file.ts';
import { relate } from '../../server/load/relate.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../../server/reference.ts';
import { MONTHLY_SOURCE } from '../../server/runs/months.ts';
import { relatedWriter } from '../../server/tables/related.ts';
import { revisionOf } from '../../server/tables/revision.ts';
import { sourceByKey, type SourceRow } from '../../server/tables/source.ts';
import { Companies } from '../company.ts';
import { happening } from '../happenings.ts';
import { Places } from '../places.ts';
import { Chance } from '../random.ts';
import { DEMO_SOURCES } from '../sources.ts';
import { TECHNOLOGIES } from '../technologies.ts';
import { peopleOfMonth } from './people.ts';
import { lastDayOf, monthNumber } from './calendar.ts';
import { addressOf, nextMonth, type Cells, type Nearby } from './register.ts';

/** The scenario's next month: newer versions of its sources, loaded as anybody's are. */

const SEED = 20_260_930;
/** New companies a month, of those there are. */
const NEW = 0.006;
/** Numbers of companies founded in a month begin here, beyond any that the demo was made with. */
const FOUNDED_FROM = 40_000_000;
const MOST_FOUNDED = 100_000;
/** Of the companies surveyed a month: those seen with a further product. */
const EQUIPPED = 0.012;
/** Companies with an event, and with a loan, a month. */
const [EVENTS, LOANS] = [0.07, 0.0016];
/** Sources that are of the new day too, since what changed is written into them. */
const OF_THE_DAY = ['people-directory', 'event-log', 'deal-file'];

/** Brings the demo to the end of a month, inside the transaction that the caller opened. */
export async function loadMonth(
  db: Db,
  { dir, job, month }: { dir: string; job: string; month: string },
  progress: (message: string) => void,
): Promise<Record<string, unknown>> {
  const day = lastDayOf(month);
  const seed = SEED ^ Math.imul(monthNumber(month), 0x9e3779b1);
  progress('the register’s next version');
  const register = await refresh(db, { dir, job, day }, MONTHLY_SOURCE, (source) =>
    registerRows(db, source, month, seed, day),
  );
  progress('the survey’s next version');
  await refresh(db, { dir, job, day }, 'web-survey', (source) => surveyRows(db, source, seed, day));
  progress('people, events and loans');
  const { revision } = revisionOf(db);
  const writer = relatedWriter(db);
  const people = peopleOfMonth(db, { revision, day, seed }, writer);
  const events = eventsOfMonth(db, seed, day, writer);
  const setDay = db.prepare('UPDATE source SET as_of = ? WHERE key = ?');
  for (const key of OF_THE_DAY) setDay.run(day, key);
  relate(db, revision, ['people', 'events', 'deals']);
  return { asOf: isoOf(day), month, refreshed: register.refreshed, people, ...events };
}

async function refresh(
  db: Db,
  { dir, job, day }: { dir: string; job: string; day: number },
  key: string,
  rowsOf: (source: SourceRow) => Generator<string[]>,
): Promise<Record<string, unknown>> {
  const source = sourceByKey(db, key)!;
  const header = JSON.parse(source.header) as string[];
  const path = join(dir, `${key}-${isoOf(day)}.csv.part`);
  const file = await open(path, 'w');
  try {
    await file.write(stringify([header]));
    let some: string[][] = [];
    for (const row of rowsOf(source)) {
      if (some.push(row) < ROWS_A_WRITE) continue;
      await file.write(stringify(some));
      some = [];
    }
    await file.write(stringify(some));
    await file.close();
    return await loadFile(db, {
      ...{
        dir,
        job,
        path,
        header,
        fileName: `${key}-${isoOf(day)}.csv`,
        name: source.name,
        licence: source.licence,
        asOf: day,
      },
      reading: {
        kind: 'csv',
        encoding: 'utf-8',
        delimiter: ',',
        hasHeader: true,
        sheet: null,
        skip: 0,
        headerRows: 1,
      },
      mapping: JSON.parse(source.mapping) as Mapping,
      ...{ allOrNothing: false, subject: 'companies', covers: [], refreshes: { key, gone: 'removed' } },
    });
  } finally {
    await file.close().catch(() => {});
    rmSync(path, { force: true });
  }
}

const ROWS_A_WRITE = 2000;

/** Rows of a source as they came, by heading. */
function* cellsOf(db: Db, { id, header }: SourceRow): Generator<{ cells: Cells; row: number }> {
  const headings = JSON.parse(header) as string[];
  const rows = db
    .prepare<[number], { cells: string; row: number }>(
      'SELECT cells, row FROM record WHERE source_id = ? ORDER BY id',
    )
    .all(id);
  for (const { cells, row } of rows) {
    const values = JSON.parse(cells) as string[];
    yield { row, cells: Object.fromEntries(headings.map((heading, i) => [heading, values[i] ?? ''])) };
  }
}

function* registerRows(
  db: Db,
  source: SourceRow,
  month: string,
  seed: number,
  day: number,
): Generator<string[]> {
  const header = JSON.parse(source.header) as string[];
  const addresses = new Map<string, Nearby['address']>();
  const codes = new Map<string, string>();
  let owner: string | null = null;
  let count = 0;
  for (const { cells, row } of cellsOf(db, source)) {
    const chance = new Chance(seed ^ Math.imul(row, 0x85ebca6b));
    const trade = (cells['main-code'] ?? '').slice(0, 2);
    const nearby = { address: addresses.get(cells.country!) ?? null, owner, code: codes.get(trade) ?? null };
    const next = nextMonth(cells, chance, nearby, isoOf(day));
    addresses.set(cells.country!, addressOf(cells));
    if (cells['main-code']) codes.set(trade, cells['main-code']);
    if (Number(cells.headcount) > 150) owner = cells.name!;
    if (next) yield header.map((heading) => next[heading] ?? '');
    count++;
  }
  yield* founded(month, Math.ceil(NEW * count));
}

/** Companies that were founded, or came to be known to the register, in a month. */
function* founded(month: string, count: number): Generator<string[]> {
  const gazetteer = loadGazetteer();
  const places = new Places(gazetteer, readReference('geo/postcodes.tsv.gz'));
  const makers = new Companies(places, gazetteer, loadCodeTrees().get('nace-2.1')!, SEED, FOUNDED_FROM);
  const [register] = DEMO_SOURCES;
  const first = FOUNDED_FROM + (monthNumber(month) % 1000) * MOST_FOUNDED;
  for (let i = 0; i < count; i++) {
    const truth = makers.first(first + i);
    yield register!.cells(truth, new Chance(SEED ^ Math.imul(first + i, 0xc2b2ae35)));
  }
}

function* surveyRows(db: Db, source: SourceRow, seed: number, day: number): Generator<string[]> {
  const header = JSON.parse(source.header) as string[];
  const products = TECHNOLOGIES.flatMap((one) => one.products);
  for (const { cells, row } of cellsOf(db, source)) {
    const chance = new Chance(seed ^ Math.imul(row, 0x27d4eb2f));
    const product = chance.pick(products);
    if (chance.in(EQUIPPED) && cells.surveyed && !cells.technologies!.includes(product)) {
      const seen = `${product} [${isoOf(day - chance.whole(1, 25))}..${isoOf(day)}]`;
      cells.technologies = cells.technologies ? `${cells.technologies}; ${seen}` : seen;
      for (const heading of ['surveyed', 'site-checked', 'checked']) cells[heading] = isoOf(day);
    }
    yield header.map((heading) => cells[heading] ?? '');
  }
}

function eventsOfMonth(db: Db, seed: number, day: number, writer: ReturnType<typeof relatedWriter>) {
  const companies = db
    .prepare<[], { id: number; name: string; euros: number | null }>(
      "SELECT id, name, revenue_eur_point AS euros FROM company WHERE status IS NULL OR status = 'active' ORDER BY id",
    )
    .all();
  const counts = { events: 0, deals: 0 };
  for (const { id, name, euros } of companies) {
    const chance = new Chance(seed ^ Math.imul(id, 0x165667b1));
    const on = day - chance.whole(0, 27);
    if (chance.in(EVENTS)) {
      writer.event('event-log', { id, reference: null }, happening(chance, on));
      counts.events++;
    }
    if (!chance.in(LOANS)) continue;
    const value = euros === null ? null : Number((0.12 * euros).toPrecision(2));
    writer.deal(['deal-file'], [{ role: 'target', id, reference: null }], {
      ...{ name: `${name} takes a growth loan`, kind: 'growth-loan', date: on, bidders: null },
      amount: value
        ? {
            basis: 'reported',
            low: value,
            high: value,
            point: value,
            currency: 'EUR',
            year: Number(isoOf(on).slice(0, 4)),
          }
        : null,
    });
    counts.deals++;
  }
  return counts;
}
