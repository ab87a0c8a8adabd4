import clsx from 'clsx';
import type { ProfileAnswer } from '../../contract/responses.ts';
import { partOf } from '../../core/records/own-values.ts';
import type { CompanyRecord } from '../../core/records/record.ts';
import { PART_LABELS } from '../../core/records/part-labels.ts';
import { useFormat } from '../app/format.ts';
import { useRecordText } from './record-text.ts';

/** The word under which sources disagree on a part. */
const DISPUTE_OF: Partial<Record<keyof CompanyRecord, string>> = {
  headcount: 'headcount',
  revenue: 'revenue',
  codes: 'industry',
  town: 'place',
  status: 'status',
  founded: 'founded',
  web: 'web',
};

/** What each source says of each part; the one that is shown above is marked. */
export function SourceTable({ profile }: { profile: ProfileAnswer }) {
  const format = useFormat();
  const text = useRecordText();
  const disputes = (profile.row.cells.disputed as string[] | null) ?? [];
  /** What was corrected by hand of a part; nothing where it was not. */
  const byHand = (part: keyof CompanyRecord) =>
    profile.corrections.find(({ field }) => partOf(field) === part);
  return (
    <section className="mt-8">
      <h2 className="title border-b border-edge pb-1 text-[17px]">
        What each source says{' '}
        <span className="font-sans text-[12px] font-normal text-soft">
          a green bar marks the value that is shown
        </span>
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full text-[13px]">
          <thead>
            <tr className="text-left text-soft">
              <td />
              {profile.corrections.length > 0 && (
                <th scope="col" className="min-w-40 py-1.5 pr-3 font-semibold text-ink">
                  By hand
                </th>
              )}
              {profile.records.map((record) => (
                <th key={record.id} scope="col" className="min-w-40 py-1.5 pr-3 font-semibold text-ink">
                  {record.source}{' '}
                  <span className="font-normal text-soft">as of {format.date(record.asOf)}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {PART_LABELS.filter(
              ({ part }) => byHand(part) || profile.records.some(({ record }) => text(record, part) !== ''),
            ).map(({ part, label }) => (
              <tr key={part} className="border-t border-rule align-top">
                <th scope="row" className="py-1 pr-3 text-left font-normal text-soft">
                  {label}
                  {disputes.includes(DISPUTE_OF[part] ?? '') && (
                    <span className="block text-[12px] text-unsure">they disagree</span>
                  )}
                </th>
                {profile.corrections.length > 0 && (
                  <td className="max-w-64 py-1 pr-3 font-semibold break-words">
                    {byHand(part) && (
                      <span className="block border-l-3 border-kept pl-2">
                        {byHand(part)!.value || 'not known'}
                        <span className="sr-only"> (shown)</span>
                      </span>
                    )}
                  </td>
                )}
                {profile.records.map((record) => {
                  const shown = profile.from[part] === record.id;
                  return (
                    <td
                      key={record.id}
                      className={clsx('max-w-64 min-w-40 py-1 pr-3 break-words', shown && 'font-semibold')}
                    >
                      <span
                        className={clsx(
                          'block border-l-3 pl-2',
                          shown ? 'border-kept' : 'border-transparent',
                        )}
                      >
                        {text(record.record, part) || <span className="text-soft">–</span>}
                        {shown && <span className="sr-only"> (shown)</span>}
                      </span>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
