import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../../../core/cells.ts';
import type { Scheme } from '../../../core/codes/tree.ts';
import { isoOf, yearOf } from '../../../core/dates.ts';
import type { Field, Relation, Store, Subject } from '../../../core/fields/field.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { historyText, type History } from '../../../core/records/history-words.ts';
import { partyWords } from '../../../core/records/party-words.ts';
import type { Lookup } from '../../../core/tape/lookup.ts';
import type { Reason } from '../../../core/tally/columns.ts';
import type { Db } from '../../db/open.ts';
import { companySays, holderSql, storedRoles } from './label-keys.ts';

type Value = string | number | null;

/** Records read at a time; the others wait as ids. */
const RECORDS_A_READ = 500;

/** Cells of one column by record id, for those asked for as a JSON list of ids. */
type ListReader = (ids: string) => ReadonlyMap<number, CodeCell[] | string[]>;

/** How a cell is made: from columns of the subject's table, whose values begin at a place of the row read, or from a list. */
type CellReader =
  | { columns: readonly string[]; cell(row: readonly Value[], at: number): Cell }
  | { list: ListReader; known: string | null };

/** The statements and readers of some columns. */
interface Plan {
  select(ids: string): Value[][];
  cells: { column: string; at: number; reader: CellReader; why: number }[];
  /** Where the key of the company stands that a record hangs on, or -1. */
  company: number;
}

/** Reads the records of one subject as rows of cells. */
export class RowSource {
  private readonly db: Db;
  private readonly lookup: Lookup;
  private readonly subject: Subject;
  private readonly plans = new Map<string, Plan>();

  constructor(db: Db, lookup: Lookup, subject: string) {
    this.db = db;
    this.lookup = lookup;
    this.subject = subjectOf(subject);
  }

  /**
   * The rows of records, in the order of their ids.
   * @throws Error where a record is gone, which happens only if the universe changed since the ids were found.
   */
  rows(ids: ArrayLike<number>, columns: readonly string[]): Row[] {
    const plan = this.planOf(columns);
    const rows: Row[] = [];
    for (let start = 0; start < ids.length; start += RECORDS_A_READ) {
      const some = Array.from(
        { length: Math.min(RECORDS_A_READ, ids.length - start) },
        (_, i) => ids[start + i]!,
      );
      const text = JSON.stringify(some);
      const found = new Map(plan.select(text).map((row) => [row[0] as number, row]));
      const lists = plan.cells.map(({ reader }) => ('list' in reader ? reader.list(text) : null));
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
    const { id: subject, table, relation } = this.subject;
    const expressions = ['id', 'key'];
    const place = (expression: string) => expressions.push(expression) - 1;
    const cells = columns.map((column) => {
      const field = fieldOf(subject, column)!;
      const reader = this.readerOf(field);
      let at = expressions.length;
      if ('columns' in reader) expressions.push(...reader.columns);
      else if (reader.known !== null) at = place(reader.known);
      const why = field.store.at === 'range' ? place(`${field.store.stem}_why`) : -1;
      return { column, at, reader, why };
    });
    const company =
      relation?.roles.length === 0
        ? place(`(SELECT c.key FROM company c WHERE c.id = ${table}.company_id)`)
        : -1;
    const statement = this.db
      .prepare<[string], Value[]>(
        `SELECT ${expressions.join(', ')} FROM ${table} WHERE id IN (SELECT value FROM json_each(?))`,
      )
      .raw();
    return { select: (ids) => statement.all(ids), cells, company };
  }

  private readerOf(field: Field): CellReader {
    const { store, kind, yearsSince, column } = field;
    const sources = field.id === 'source' ? this.labelsOf(field) : new Map<string, string>();
    const { table, relation } = this.subject;
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
                  : field.id === 'source'
                    ? (row, at) => sources.get(row[at] as string) ?? row[at]!
                    : (row, at) => row[at]!,
        };
      case 'text':
        return { columns: [store.column], cell: (row, at) => row[at]! };
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
        return {
          list: this.codes(),
          known: `(SELECT 1 FROM company_code k WHERE k.company_id = ${table}.id LIMIT 1)`,
        };
      case 'many':
        return {
          list: this.values(field, store),
          // What nothing was done to has nothing to say, rather than a list of nothing.
          known: store.days
            ? `(SELECT 1 FROM ${store.table} m WHERE m.${table}_id = ${table}.id LIMIT 1)`
            : store.known,
        };
      case 'keyed': {
        const measures = store.table ?? `${table}_measure`;
        const own = `FROM ${measures} m WHERE m.${table}_id = ${table}.id AND m.measure = '${store.measure}'`;
        if (column?.key === undefined)
          return { list: this.measures(field, measures, store.measure), known: `(SELECT 1 ${own} LIMIT 1)` };
        return {
          columns: [`(SELECT value ${own} AND m.key = '${column.key}')`],
          cell: (row, at) => row[at]!,
        };
      }
      case 'parties':
        if (relation!.roles.length)
          return {
            list: store.says === 'all' ? this.allParties(relation!) : this.parties(relation!, store.role),
            known: null,
          };
        return {
          columns: [companySays(store.says, table)],
          cell:
            store.says === 'country'
              ? (row, at) => (row[at] === null ? null : this.countryName(row[at] as string))
              : (row, at) => row[at]!,
        };
      case 'history':
        return {
          columns: [store.column],
          cell: (row, at) =>
            row[at] === null ? null : historyText(JSON.parse(row[at] as string) as History),
        };
      case 'holder':
        return { columns: [holderSql(store, table)], cell: (row, at) => row[at]! };
      case 'words':
      case 'rank':
      case 'lists':
      case 'key':
      case 'contacts':
      case 'handed':
      case 'joined':
      case 'peers':
        return { columns: [], cell: () => null };
    }
  }

  private codes(): ListReader {
    const codes = this.db
      .prepare<[string], [number, Scheme, string, number]>(
        'SELECT company_id, scheme, code, rank FROM company_code WHERE company_id IN (SELECT value FROM json_each(?)) ORDER BY rank, scheme',
      )
      .raw();
    return (ids) =>
      gathered(codes.all(ids), ([, scheme, code, rank]): CodeCell => {
        const tree = this.lookup.codes(scheme);
        return { scheme, code, title: tree.titles[tree.nodeOf(code)]!, main: rank === 0 };
      });
  }

  /** What the values of a field are called; countries by name, whether any company has them or not. */
  private labelsOf(field: Field): ReadonlyMap<string, string> {
    if (field.id === 'sold-in')
      return new Map(this.lookup.places.countries.map(({ code, name }) => [code, name]));
    return new Map(this.lookup.choices(field).map(({ key, label }) => [key, label]));
  }

  /** The values of a many-valued field by their labels, in alphabetical order. */
  private values(field: Field, store: Extract<Store, { at: 'many' }>): ListReader {
    const id = `${this.subject.table}_id`;
    const statement = this.db
      .prepare<[string], [number, string]>(
        `SELECT ${id}, ${store.value} FROM ${store.table} WHERE ${id} IN (SELECT value FROM json_each(?))`,
      )
      .raw();
    const labels = this.labelsOf(field);
    return (ids) => {
      const lists = gathered(statement.all(ids), ([, value]) => labels.get(value) ?? value);
      for (const list of lists.values()) list.sort((a, b) => (a < b ? -1 : 1));
      return lists;
    };
  }

  /** Measures as "sales 12", the largest first. */
  private measures(field: Field, table: string, measure: string): ListReader {
    const id = `${this.subject.table}_id`;
    const statement = this.db
      .prepare<[string, string], [number, string, number]>(
        `SELECT ${id}, key, value FROM ${table} WHERE measure = ? AND ${id} IN (SELECT value FROM json_each(?)) ORDER BY value DESC, key`,
      )
      .raw();
    const labels = new Map(field.values?.map(({ key, label }) => [key, label]));
    return (ids) =>
      gathered(
        statement.all(measure, ids),
        ([, key, value]) => `${labels.get(key) ?? key} ${Math.round(value * 10) / 10}`,
      );
  }

  /** Names of the companies in a role; as the source has them where the universe has not the company. */
  private parties({ table, record, ...relation }: Relation, role: string | undefined): ListReader {
    const statement = this.db
      .prepare<[string], [number, string | null]>(
        `SELECT p.${record}, COALESCE(c.name, json_extract(p.reference, '$[2]'), json_extract(p.reference, '$[1]'), json_extract(p.reference, '$[0]'))
         FROM ${table} p LEFT JOIN company c ON c.id = p.company_id
         WHERE p.role IN (${storedRoles({ table, record, ...relation }, role)}) AND p.${record} IN (SELECT value FROM json_each(?)) ORDER BY p.rowid`,
      )
      .raw();
    return (ids) =>
      gathered(
        statement.all(ids).filter(([, name]) => name !== null),
        ([, name]) => name!,
      );
  }

  /** All companies of a record with their roles, and all that finds them again. */
  private allParties({ table, record }: Relation): ListReader {
    const told = (column: string, at: number) =>
      `COALESCE(c.${column}, json_extract(p.reference, '$[${at}]'))`;
    const statement = this.db
      .prepare<[string], [number, string, ...(string | null)[]]>(
        `SELECT p.${record}, p.role, ${told('registration', 0)}, ${told('domain', 1)}, ${told('name', 2)}, ${told('country', 3)}
         FROM ${table} p LEFT JOIN company c ON c.id = p.company_id
         WHERE p.${record} IN (SELECT value FROM json_each(?)) ORDER BY p.rowid`,
      )
      .raw();
    return (ids) =>
      gathered(statement.all(ids), ([, role, number = null, domain = null, name = null, country = null]) =>
        partyWords(role, { number, domain, name, country }),
      );
  }

  private countryName(code: string): string {
    return this.lookup.places.country(code)?.name ?? code;
  }

  private place(row: readonly Value[], at: number): PlaceCell | null {
    const [town, region, country] = row.slice(at, at + 3) as [string | null, string | null, string | null];
    if (town === null && country === null) return null;
    return {
      town,
      country,
      countryName: country === null ? null : this.countryName(country),
      lat: row[at + 3] as number | null,
      lon: row[at + 4] as number | null,
      region: region === null ? null : (this.lookup.places.region(region)?.english ?? region),
      townKey: town === null || (region ?? country) === null ? null : `${town}, ${region ?? country}`,
    };
  }
}

function rowOf(
  { cells, company }: Plan,
  values: readonly Value[],
  lists: readonly (ReadonlyMap<number, CodeCell[] | string[]> | null)[],
): Row {
  const row: Row = { key: values[1] as string, cells: {} };
  if (company >= 0 && values[company] !== null) row.company = values[company] as string;
  cells.forEach(({ column, at, reader, why }, i) => {
    const cell =
      'columns' in reader
        ? reader.cell(values, at)
        : reader.known !== null && values[at] === null
          ? null
          : (lists[i]!.get(values[0] as number) ?? []);
    row.cells[column] = cell;
    if (cell === null && why >= 0 && values[why] !== null)
      row.why = { ...row.why, [column]: values[why] as Reason };
  });
  return row;
}

/** Lists by record, from rows that begin with its id. */
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
