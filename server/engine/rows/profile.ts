import type { ProfileAnswer } from '../../../contract/responses.ts';
import { columnFields } from '../../../core/fields/registry.ts';
import type { CodeCell } from '../../../core/cells.ts';
import { CORRECTABLE } from '../../../core/records/own-values.ts';
import { isoOf } from '../../../core/dates.ts';
import type { Db } from '../../db/open.ts';
import { RecordReader } from '../../load/remake.ts';
import type { ReferenceData } from '../universe-lookup.ts';
import type { SubjectEngine } from '../subject-engine.ts';

/** One company with everything known of it; null where there is none of this key. */
export function readProfile(
  db: Db,
  reference: ReferenceData,
  companies: SubjectEngine,
  key: string,
): ProfileAnswer | null {
  const id = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck().get(key);
  if (id === undefined) return null;
  const reader = new RecordReader(db, reference.trees, reference.places);
  const row = companies.rowsOf(
    [id],
    columnFields('companies').map((field) => field.id),
  )[0]!;
  const codes = (row.cells.industry as CodeCell[] | null) ?? [];
  return {
    row,
    kin: Object.fromEntries(
      codes.map(({ scheme, code }) => [`${scheme} ${code}`, reference.crosswalk().kinOf(scheme, code)]),
    ),
    from: reader.merge(id)!.from,
    corrections: reader.ownOf(key).corrections.map((one) => ({
      ...one,
      label: CORRECTABLE[one.field].label,
    })),
    records: reader.records(id).records.map(({ id: record, source, record: values }) => {
      const { name, key: sourceKey, as_of } = reader.sourceRow(source);
      return { id: record, source: name, sourceKey, asOf: isoOf(as_of), record: values };
    }),
  };
}
