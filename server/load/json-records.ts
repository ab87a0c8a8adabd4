/** Where the records of a JSON file are, and what each has as cells. */

export type Cells = Record<string, unknown>;

/** The records of a file: those in its list, or the one that it is; null where it has none. */
export const recordsIn = (parsed: unknown): unknown[] | null =>
  listIn(parsed) ?? (isObject(parsed) && Object.keys(parsed).length > 1 ? [parsed] : null);

/** Objects within objects in which the list of records is looked for. */
const DEEPEST_LIST = 3;

/** The records of a file: a list of them, lists below a list of headings, or objects by their keys; null where there are none. */
export function listIn(value: unknown, depth = 0): unknown[] | null {
  if (Array.isArray(value)) {
    const rows = below(value[0], value.slice(1));
    // Within an object a list of words is one of a record's values.
    return rows ?? (value.some(isObject) || (depth === 0 && value.length > 0) ? value : null);
  }
  if (!isObject(value) || depth > DEEPEST_LIST) return null;
  const parts = Object.values(value) as unknown[];
  const [headings, rows] = parts.filter((part) => Array.isArray(part) && part.length > 0) as unknown[][];
  const table = rows && below(headings, rows);
  if (table) return table;
  for (const part of parts) {
    const found = listIn(part, depth + 1);
    if (found) return found;
  }
  return parts.every(isObject) && areAlike(parts)
    ? Object.entries(value).map(([id, one]) => ({ id, ...(one as object) }))
    : null;
}

/** Whether several objects have most of their keys in common, so that they are records of one kind. */
function areAlike(objects: readonly object[]): boolean {
  const [first = {}, second] = objects;
  const keys = Object.keys(first);
  return second !== undefined && keys.filter((key) => key in second).length >= Math.max(1, keys.length / 2);
}

/** Rows that are lists, as records under their headings; null where they are none. */
function below(headings: unknown, rows: readonly unknown[]): Cells[] | null {
  if (!Array.isArray(headings) || !headings.every((one) => typeof one === 'string')) return null;
  if (rows.length === 0 || !rows.every(Array.isArray)) return null;
  return rows.map((row) => Object.fromEntries(headings.map((heading, i) => [heading, row[i]])));
}

/** A record with the objects in it taken apart: {address: {town}} has the key "address town". */
export function flat(record: unknown): Cells {
  return apart(record, '');
}

function apart(record: unknown, before: string): Cells {
  if (typeof record !== 'object' || record === null || Array.isArray(record))
    return { [before || 'value']: record };
  return Object.entries(record).reduce<Cells>((cells, [key, value]: [string, unknown]) => {
    const name = before ? `${before} ${key}` : key;
    if (isObject(value)) return Object.assign(cells, apart(value, name));
    return Array.isArray(value) && value.length > 0 && value.every(isObject)
      ? Object.assign(cells, sideBySide(value, name))
      : Object.assign(cells, { [name]: value });
  }, {});
}

const isObject = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What each key holds in several objects: {industries: [{code: 1}, {code: 2}]} has "industries code" with both. */
function sideBySide(objects: readonly object[], name: string): Cells {
  const cells: Record<string, unknown[]> = {};
  for (const one of objects)
    for (const [key, value] of Object.entries(apart(one, name)))
      if (value !== null && value !== '') (cells[key] ??= []).push(value);
  return cells;
}
