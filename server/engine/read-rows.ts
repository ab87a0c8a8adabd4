import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../../core/cells.ts';
import type { Scheme } from '../../core/codes/tree.ts';
import { isoOf, yearOf } from '../../core/dates.ts';
import type { Field } from '../../core/fields/field.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import type { Reason } from '../../core/tally/columns.ts';
import type { Db } from '../db/open.ts';

type Value = string | number | null;

/** Companies read at a time; the others wait as ids. */
const COMPANIES_A_READ = 500;

/** How a cell is made: from columns of `company`, whose values begin at a place of the row read, or from a list of the company. */
type CellReader =
  | { columns: readonly string[]; cell(row: readonly Value[], at: number): Cell }
  | { list: string; known: string | null };

/** The statements and readers of some columns. */
interface Plan {
  select(ids: string): Value[][];
  cells: { column: string; at: number; reader: CellReader; why: number }[];
  lists: string[];
}

/** Reads companies as rows of cells. */
export class RowSource {
  private readonly db: Db;
  private readonly lookup: Lookup;
  private readonly plans = new Map<string, Plan>();
  private readonly lists: Record<string, (ids: string) => Map<number, CodeCell[] | string[]>>;

  constructor(db: Db, lookup: Lookup) {
    this.db = db;
    this.lookup = lookup;
    const codes = db
      .prepare<[string], [number, Scheme, string, number]>(
        'SELECT company_id, scheme, code, rank FROM company_code WHERE company_id IN (SELECT value FROM json_each(?)) ORDER BY rank, scheme',
      )
      .raw();
    const labels = (query: string) => {
      const statement = db.prepare<[string], [number, string]>(query).raw();
      return (ids: string) => gathered(statement.all(ids), ([, label]) => label);
    };
    this.lists = {
      company_code: (ids) =>
        gathered(codes.all(ids), ([, scheme, code, rank]): CodeCell => {
          const tree = lookup.codes(scheme);
          return { scheme, code, title: tree.titles[tree.nodeOf(code)]!, main: rank === 0 };
        }),
      company_technology: labels(
        'SELECT v.company_id, t.label FROM company_technology v JOIN technology t ON t.key = v.technology WHERE v.company_id IN (SELECT value FROM json_each(?)) ORDER BY t.label',
      ),
      company_offer: labels(
        "SELECT company_id, replace(offer, '-', ' ') FROM company_offer WHERE company_id IN (SELECT value FROM json_each(?)) ORDER BY offer",
      ),
      company_certificate: labels(
        'SELECT company_id, certificate FROM company_certificate WHERE company_id IN (SELECT value FROM json_each(?)) ORDER BY certificate',
      ),
      departments: labels(
        "SELECT company_id, key || ' ' || CAST(value AS INTEGER) FROM company_measure WHERE measure = 'departments' AND company_id IN (SELECT value FROM json_each(?)) ORDER BY value DESC, key",
      ),
      company_source: labels(
        'SELECT v.company_id, s.name FROM company_source v JOIN source s ON s.key = v.source WHERE v.company_id IN (SELECT value FROM json_each(?)) ORDER BY s.id',
      ),
    };
  }

  /**
   * The rows of companies, in the order of their ids.
   * @throws Error where a company is gone, which happens only if the universe changed since the ids were found.
   */
  rows(ids: ArrayLike<number>, columns: readonly string[]): Row[] {
    const plan = this.planOf(columns);
    const rows: Row[] = [];
    for (let start = 0; start < ids.length; start += COMPANIES_A_READ) {
      const some = Array.from(
        { length: Math.min(COMPANIES_A_READ, ids.length - start) },
        (_, i) => ids[start + i]!,
      );
      const text = JSON.stringify(some);
      const found = new Map(plan.select(text).map((row) => [row[0] as number, row]));
      const lists = new Map(plan.lists.map((list) => [list, this.lists[list]!(text)]));
      for (const id of some) {
        const values = found.get(id);
        if (!values) throw new Error('The universe has changed meanwhile. Count again and start anew.');
        rows.push(rowOf(plan, values, lists));
      }
    }
    return rows;
  }

  private planOf(columns: readonly string[]): Plan {
    const key = columns.join();
    let plan = this.plans.get(key);
    if (!plan) this.plans.set(key, (plan = this.plan(columns)));
    return plan;
  }

  private plan(columns: readonly string[]): Plan {
    const expressions = ['id', 'key'];
    const place = (expression: string) => expressions.push(expression) - 1;
    const cells = columns.map((column) => {
      const field = fieldOf('companies', column)!;
      const reader = this.readerOf(field);
      let at = expressions.length;
      if ('columns' in reader) expressions.push(...reader.columns);
      else if (reader.known !== null) at = place(reader.known);
      const why = field.store.at === 'range' ? place(`${field.store.stem}_why`) : -1;
      return { column, at, reader, why };
    });
    const statement = this.db
      .prepare<[string], Value[]>(
        `SELECT ${expressions.join(', ')} FROM company WHERE id IN (SELECT value FROM json_each(?))`,
      )
      .raw();
    return {
      select: (ids) => statement.all(ids),
      cells,
      lists: cells.flatMap(({ reader }) => ('list' in reader ? [reader.list] : [])),
    };
  }

  private readerOf({ store, kind, yearsSince, column }: Field): CellReader {
    switch (store.at) {
      case 'column':
        return {
          columns: [store.column],
          cell:
            kind === 'date'
              ? (row, at) => (row[at] === null ? null : isoOf(row[at] as number))
              : kind === 'flag'
                ? (row, at) => (row[at] === null ? null : row[at] === 1 ? 'yes' : 'no')
                : yearsSince
                  ? (row, at) => (row[at] === null ? null : yearOf(this.lookup.asOf) - (row[at] as number))
                  : (row, at) => row[at]!,
        };
      case 'range': {
        const parts = ['basis', 'low', 'high', 'point', 'year', ...(kind === 'money' ? ['currency'] : [])];
        const columns = parts.map((part) => `${store.stem}_${part}`);
        return { columns, cell: kind === 'money' ? money : quantity };
      }
      case 'place':
        return {
          columns: ['town', 'region', 'country', 'lat', 'lon'],
          cell: (row, at) => this.place(row, at),
        };
      case 'codes':
        return { list: 'company_code', known: null };
      case 'many':
        return { list: store.table, known: store.known };
      case 'keyed':
        if (column?.key === undefined)
          return {
            list: store.measure,
            known: `(SELECT 1 FROM company_measure m WHERE m.company_id = company.id AND m.measure = '${store.measure}' LIMIT 1)`,
          };
        return {
          columns: [
            `(SELECT value FROM company_measure m WHERE m.company_id = company.id AND m.measure = '${store.measure}' AND m.key = '${column.key}')`,
          ],
          cell: (row, at) => row[at]!,
        };
      case 'words':
      case 'rank':
      case 'lists':
        return { columns: [], cell: () => null };
    }
  }

  private place(row: readonly Value[], at: number): PlaceCell | null {
    const [town, region, country] = row.slice(at, at + 3) as [string | null, string | null, string | null];
    if (town === null && country === null) return null;
    return {
      town,
      country,
      lat: row[at + 3] as number | null,
      lon: row[at + 4] as number | null,
      region: region === null ? null : (this.lookup.places.region(region)?.english ?? region),
      townKey: town === null || (region ?? country) === null ? null : `${town}, ${region ?? country}`,
    };
  }
}

function rowOf(
  { cells }: Plan,
  values: readonly Value[],
  lists: ReadonlyMap<string, ReadonlyMap<number, CodeCell[] | string[]>>,
): Row {
  const row: Row = { key: values[1] as string, cells: {} };
  for (const { column, at, reader, why } of cells) {
    const cell =
      'columns' in reader
        ? reader.cell(values, at)
        : reader.known !== null && values[at] === null
          ? null
          : (lists.get(reader.list)!.get(values[0] as number) ?? []);
    row.cells[column] = cell;
    if (cell === null && why >= 0 && values[why] !== null)
      row.why = { ...row.why, [column]: values[why] as Reason };
  }
  return row;
}

/** Lists by company, from rows that begin with the company's id. */
function gathered<R extends readonly [number, ...unknown[]], T>(
  rows: readonly R[],
  value: (row: R) => T,
): Map<number, T[]> {
  const lists = new Map<number, T[]>();
  for (const row of rows) {
    const list = lists.get(row[0]);
    if (list) list.push(value(row));
    else lists.set(row[0], [value(row)]);
  }
  return lists;
}

/** From basis, low, high, point and year, and for money the currency. */
function quantity(row: readonly Value[], at: number): QuantityCell | null {
  const basis = row[at] as QuantityCell['basis'] | null;
  if (basis === null) return null;
  const finite = (value: Value | undefined) =>
    typeof value === 'number' && Number.isFinite(value) ? value : null;
  return {
    basis,
    low: finite(row[at + 1]),
    high: finite(row[at + 2]),
    amount: finite(row[at + 3]),
    year: finite(row[at + 4]),
  };
}

function money(row: readonly Value[], at: number): MoneyCell | null {
  const value = quantity(row, at);
  return value && { ...value, currency: row[at + 5] as string };
}
