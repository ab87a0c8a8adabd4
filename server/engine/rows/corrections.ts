import { CORRECTABLE, type Correctable } from '../../../core/records/own-values.ts';
import { readCorrections } from '../../../core/records/read-corrections.ts';
import type { Db } from '../../db/open.ts';
import { RecordReader } from '../../load/remake.ts';
import type { ReferenceData } from '../universe-lookup.ts';

/** A value to be corrected; null takes a correction back. */
export interface CorrectionWish {
  field: Correctable;
  value: string | null;
}

export interface CheckedCorrections {
  /** Of the company. */
  name: string;
  /** The first value that cannot be read. */
  problem: { message: string; field: string; value: string; rule: string } | null;
}

/**
 * Whether values can be read as corrections of a company, with those that it has already; null where there is none of this key.
 */
export function checkCorrections(
  db: Db,
  { trees, places }: ReferenceData,
  key: string,
  corrections: readonly CorrectionWish[],
): CheckedCorrections | null {
  const found = db
    .prepare<[string], { id: number; name: string }>('SELECT id, name FROM company WHERE key = ?')
    .get(key);
  if (found === undefined) return null;
  const { name } = found;
  const refused = (field: Correctable, value: string, rule: string): CheckedCorrections => ({
    name,
    problem: {
      message: `“${value}” is no ${CORRECTABLE[field].label.toLowerCase()} that can be understood: it must be ${rule}.`,
      field: `corrections.${field}`,
      value,
      rule,
    },
  });
  const reader = new RecordReader(db, trees, places);
  const now = new Map<Correctable, { value: string }>(
    reader.ownOf(key).corrections.map(({ field, value }) => [field, { value }]),
  );
  for (const { field, value } of corrections) {
    if (value === null) now.delete(field);
    else now.set(field, { value });
    if (field === 'name' && value === '')
      return refused(field, '', 'a name; a company without one cannot be shown');
  }
  const company = reader.merge(found.id)!.company;
  const read = readCorrections(company, now, { trees, places });
  const trouble = 'problems' in read ? read.problems[0] : read.left[0];
  if (!trouble) return { name, problem: null };
  return refused(trouble.column as Correctable, trouble.value, trouble.rule);
}
