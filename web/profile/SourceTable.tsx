import clsx from 'clsx';
import type { ProfileAnswer } from '../../contract/responses.ts';
import { isoOf } from '../../core/dates.ts';
import type { CompanyRecord, Money, Quantity } from '../../core/records/record.ts';
import { useFormat } from '../app/format.ts';

const PARTS: readonly { part: keyof CompanyRecord; label: string }[] = [
  { part: 'name', label: 'Name' },
  { part: 'status', label: 'Status' },
  { part: 'town', label: 'Town' },
  { part: 'street', label: 'Street' },
  { part: 'postcode', label: 'Postcode' },
  { part: 'codes', label: 'Codes' },
  { part: 'headcount', label: 'Headcount' },
  { part: 'revenue', label: 'Revenue' },
  { part: 'founded', label: 'Founded' },
  { part: 'phone', label: 'Phone' },
  { part: 'web', label: 'Web' },
  { part: 'technologies', label: 'Technology' },
  { part: 'profit', label: 'Profit' },
  { part: 'assets', label: 'Total assets' },
  { part: 'departments', label: 'Departments' },
  { part: 'ownership', label: 'Ownership' },
  { part: 'group', label: 'Group' },
  { part: 'listing', label: 'Listing' },
  { part: 'ticker', label: 'Ticker' },
  { part: 'certificates', label: 'Certificates' },
  { part: 'offers', label: 'Site offers' },
  { part: 'siteAnswers', label: 'Website answers' },
  { part: 'dwelling', label: 'Works from a dwelling' },
  { part: 'followers', label: 'Followers' },
  { part: 'checkedOn', label: 'Checked' },
];

/** What each source says of each part; the one that is shown above is marked. */
export function SourceTable({ profile }: { profile: ProfileAnswer }) {
  const format = useFormat();
  const number = (value: number | null) => (value === null ? '' : format.number(value));
  const quantity = (value: Quantity | null): string => {
    if (!value) return '';
    // An open end travels as null, since JSON has no infinity.
    const band =
      value.high === null || value.high === Infinity
        ? `${number(value.low)}+`
        : `${number(value.low)}–${number(value.high)}`;
    return value.basis === 'band'
      ? band
      : value.basis === 'estimate'
        ? `about ${number(value.point)} (${band})`
        : number(value.point);
  };
  const money = (value: Money | null) => (value ? `${quantity(value)} ${value.currency}` : '');
  const text = (record: CompanyRecord, part: keyof CompanyRecord): string => {
    const value = record[part];
    switch (part) {
      case 'codes':
        return record.codes.map((code) => code.code).join(', ');
      case 'technologies':
        return record.surveyedOn === null
          ? ''
          : record.technologies.map(({ label }) => label).join(', ') || 'none seen';
      case 'headcount':
        return quantity(record.headcount) || (record.headcountWhy ?? '');
      case 'revenue':
        return money(record.revenue) || (record.revenueWhy ?? '');
      case 'profit':
        return money(record.profit) || (record.profitWhy ?? '');
      case 'assets':
        return money(record.assets) || (record.assetsWhy ?? '');
      case 'departments':
        return record.departments?.map(({ key, now }) => `${key} ${now}`).join(', ') ?? '';
      case 'certificates':
        return record.certificates ? record.certificates.join(', ') || 'none' : '';
      case 'offers':
        return record.surveyedOn === null
          ? ''
          : record.offers.map((offer) => offer.replaceAll('-', ' ')).join(', ') || 'none found';
      case 'dwelling':
      case 'siteAnswers':
        return value === null ? '' : value ? 'yes' : 'no';
      case 'checkedOn':
        return value === null ? '' : format.date(isoOf(value as number));
      default:
        return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
    }
  };
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
              {profile.records.map((record) => (
                <th key={record.id} scope="col" className="min-w-40 py-1.5 pr-3 font-semibold text-ink">
                  {record.source}{' '}
                  <span className="font-normal text-soft">as of {format.date(record.asOf)}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {PARTS.filter(({ part }) => profile.records.some(({ record }) => text(record, part) !== '')).map(
              ({ part, label }) => (
                <tr key={part} className="border-t border-rule align-top">
                  <th scope="row" className="py-1 pr-3 text-left font-normal text-soft">
                    {label}
                  </th>
                  {profile.records.map((record) => {
                    const shown = profile.from[part] === record.id;
                    return (
                      <td
                        key={record.id}
                        className={clsx('max-w-64 py-1 pr-3 break-words', shown && 'font-semibold')}
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
              ),
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}
