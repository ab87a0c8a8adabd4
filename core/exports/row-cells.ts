import type { Cell, PlaceCell, Row } from '../cells.ts';
import type { Field } from '../fields/field.ts';
import { fieldOf, SUBJECTS } from '../fields/registry.ts';
import { fieldColumns } from './field-columns.ts';

/** Records that were written as the API gives them, as cells of a table again: what JSON Lines are loaded from. */

/** What a record has beside its cells. */
const BESIDE: ReadonlySet<string> = new Set(['key', 'company', 'why']);
/** Of the keys of a record, how many are cells here; the others may be columns made for the file. */
const OWN_SHARE = 0.8;

type Written = Readonly<Record<string, unknown>>;

/** The subject whose records are written so, or null where they are somebody else's. */
export function subjectOfWritten(record: Written): string | null {
  if (typeof record.key !== 'string') return null;
  const keys = Object.keys(record).filter((key) => !BESIDE.has(key));
  const known = (subject: string) => keys.filter((key) => fieldOf(subject, key)).length;
  const [best] = [...SUBJECTS.keys()].sort((a, b) => known(b) - known(a));
  return keys.length > 0 && known(best!) >= keys.length * OWN_SHARE ? best! : null;
}

/** The cells of such a record by heading: those of an export, each amount in its own currency, with all that places it. */
export function cellsOfWritten(record: Written, subject: string): Record<string, string | number | null> {
  const { key, company, why, ...own } = record;
  const row = { key, cells: own, ...(why ? { why } : {}) } as Row;
  const cells: Record<string, string | number | null> = {};
  const keyOfCompany = subject === 'companies' ? key : company;
  if (typeof keyOfCompany === 'string') cells['Company key'] = keyOfCompany;
  for (const [id, value] of Object.entries(own)) {
    const field = fieldOf(subject, id);
    // Somebody else's file may call its columns as ours and hold other things in them.
    if (!field?.column || !isCellOf(field, value)) {
      cells[field?.column?.heading ?? id] = plain(value);
      continue;
    }
    for (const made of fieldColumns(field, 'EUR', true)) cells[made.heading] = made.value(row);
    if (field.kind === 'place' && value !== null) {
      const { lat, lon } = value as PlaceCell;
      cells.Latitude = lat;
      cells.Longitude = lon;
    }
  }
  return cells;
}

/** Whether a value is what the API gives for a field. */
function isCellOf({ kind, store }: Field, value: unknown): boolean {
  if (value === null) return true;
  const has = (one: unknown, key: string) => typeof one === 'object' && one !== null && key in one;
  if (kind === 'place') return has(value, 'townKey');
  if (kind === 'codes') return Array.isArray(value) && value.every((one) => has(one, 'scheme'));
  if (store.at === 'range') return has(value, 'basis');
  return typeof value !== 'object' || Array.isArray(value);
}

function plain(value: unknown): string | number | null {
  const cell = value as Cell;
  return cell === null || typeof cell === 'number' || typeof cell === 'string' ? cell : JSON.stringify(cell);
}
