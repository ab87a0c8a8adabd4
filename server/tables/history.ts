import { changedField, changesBetween, type Changes, type ToldRecord } from '../../core/records/changes.ts';
import type { Money, Quantity } from '../../core/records/record.ts';
import type { Db } from '../db/open.ts';

/** What was and is, of records that changes of the universe changed. */

/** Which changes are kept: all, or only of values that were known before, since a further source makes very many known. */
export type Told = 'all' | 'replaced';

/** The word for a record that left the universe. */
export const GONE = 'gone';
/** The word for a record that came with a newer version of its source. */
export const CAME = 'came';

export interface HistoryRow {
  revision: number;
  record: number;
  key: string;
  name: string;
  field: string;
  was: string | null;
  now: string | null;
  was_number: number | null;
  now_number: number | null;
}

/** Writes the history of one change of the universe. */
export function historyWriter(db: Db, revision: number, subject: string) {
  const insert = db.prepare(
    `INSERT INTO history (revision, subject, record, key, name, field, was, now, was_number, now_number)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  return (
    { id, key, name }: { id: number; key: string; name: string },
    field: string,
    [was, now]: readonly [string | null, string | null],
    [wasNumber, nowNumber]: readonly [number | null, number | null] = [null, null],
  ): void => {
    insert.run(revision, subject, id, key, name, field, was, now, wasNumber, nowNumber);
  };
}

/** A company as its table has it, of what is told where it changes; sizes as numbers beside. */
interface Before {
  key: string;
  record: ToldRecord;
  sizes: Readonly<Record<string, number | null>>;
}

/** Notes what changes of companies do to them; each is read before it is changed and after. */
export class CompanyHistory {
  private readonly told: Told;
  private readonly day: number;
  private readonly write;
  private readonly row;
  private readonly codes;
  private readonly technologies;
  private readonly noteField;

  constructor(db: Db, revision: number, told: Told) {
    this.told = told;
    this.day =
      db.prepare<[number], number>('SELECT day FROM revision_log WHERE revision = ?').pluck().get(revision) ??
      0;
    this.write = historyWriter(db, revision, 'companies');
    this.row = db.prepare<[number], Record<string, string | number | null>>(
      `SELECT ${READ} FROM company WHERE id = ?`,
    );
    this.codes = db
      .prepare<[number], string>('SELECT code FROM company_code WHERE company_id = ? ORDER BY scheme, rank')
      .pluck();
    this.technologies = db
      .prepare<[number], string>(
        'SELECT t.label FROM company_technology c JOIN technology t ON t.key = c.technology WHERE c.company_id = ? ORDER BY 1',
      )
      .pluck();
    this.noteField = db.prepare(
      'INSERT OR REPLACE INTO company_changed (company_id, field, changed_on) VALUES (?, ?, ?)',
    );
  }

  read(id: number): Before {
    const row = this.row.get(id)!;
    const text = (column: string) => row[column] as string | null;
    return {
      key: row.key as string,
      sizes: { headcount: row.head_point as number | null, revenue: row.turn_point as number | null },
      record: {
        ...{ name: row.name as string, status: text('status') as ToldRecord['status'] },
        ...{ legalForm: text('legal_form'), registration: text('registration') },
        ...{
          town: text('town'),
          street: text('street'),
          postcode: text('postcode'),
          country: text('country'),
        },
        ...{ phone: text('phone'), mail: text('mail'), web: text('web'), description: text('description') },
        ...{ ownership: text('ownership') as ToldRecord['ownership'], group: text('group_name') },
        headcount: quantityIn(row, 'headcount'),
        ...{
          revenue: moneyIn(row, 'revenue'),
          profit: moneyIn(row, 'profit'),
          assets: moneyIn(row, 'assets'),
        },
        codes: this.codes.all(id).map((code) => ({ code })),
        technologies: this.technologies.all(id).map((label) => ({ label })),
      },
    };
  }

  /** What became of a company since it was read. */
  changed(id: number, before: Before): void {
    const after = this.read(id);
    const changes = this.kept(changesBetween(before.record, after.record));
    const fields = new Set<string>();
    for (const [field, { was, is }] of Object.entries(changes)) {
      const numbers = [before.sizes[field] ?? null, after.sizes[field] ?? null] as const;
      this.write({ id, key: before.key, name: after.record.name }, field, [was, is], numbers);
      fields.add(changedField(field));
    }
    for (const field of fields) this.noteField.run(id, field, this.day);
  }

  gone(id: number): void {
    const { key, record } = this.read(id);
    this.write({ id, key, name: record.name }, GONE, [record.status, null]);
  }

  private kept(changes: Changes): Changes {
    if (this.told === 'all') return changes;
    return Object.fromEntries(Object.entries(changes).filter(([, { was }]) => was !== null));
  }
}

const quantityParts = (stem: string) => ['low', 'high', 'point', 'basis'].map((part) => `${stem}_${part}`);
const moneyParts = (stem: string) => [...quantityParts(stem), `${stem}_currency`, `${stem}_year`];

const READ = [
  ...['key', 'name', 'status', 'legal_form', 'registration', 'town', 'street', 'postcode', 'country'],
  ...['phone', 'mail', 'web', 'description', 'ownership', 'group_name', ...quantityParts('headcount')],
  ...['revenue', 'profit', 'assets'].flatMap(moneyParts),
  // The size that a class is told by: the figure, or the middle of what is known of it.
  'COALESCE(headcount_point, headcount_low) AS head_point',
  'COALESCE(revenue_eur_point, revenue_eur_low) AS turn_point',
].join(', ');

function quantityIn(row: Record<string, string | number | null>, stem: string): Quantity | null {
  if (row[`${stem}_basis`] === null) return null;
  return {
    basis: row[`${stem}_basis`] as Quantity['basis'],
    low: row[`${stem}_low`] as number,
    high: row[`${stem}_high`] as number,
    point: row[`${stem}_point`] as number | null,
  };
}

function moneyIn(row: Record<string, string | number | null>, stem: string): Money | null {
  const value = quantityIn(row, stem);
  return (
    value && { ...value, currency: row[`${stem}_currency`] as string, year: row[`${stem}_year`] as number }
  );
}

/** What happened to some records in changes of the universe after one, up to another, the oldest first. */
export function historyOf(
  db: Db,
  subject: string,
  records: Uint32Array | readonly number[],
  after: number,
  upTo: number,
): HistoryRow[] {
  return db
    .prepare<[string, string, number, number], HistoryRow>(
      `SELECT h.revision, h.record, h.key, h.name, h.field, h.was, h.now, h.was_number, h.now_number
       FROM json_each(?) j CROSS JOIN history h
         ON h.subject = ? AND h.record = j.value AND h.revision > ? AND h.revision <= ?
       ORDER BY h.id`,
    )
    .all(JSON.stringify([...records]), subject, after, upTo);
}
