import { isoOf } from '../../core/dates.ts';
import type { CompanyRecord, Money, Quantity } from '../../core/records/record.ts';
import { useFormat } from '../app/format.ts';

/** Writes what a record says of a part of a company; the empty text where it does not know. */
export function useRecordText(): (record: CompanyRecord, part: keyof CompanyRecord) => string {
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
  return (record, part) => {
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
        return value === null ? '' : value ? 'yes' : 'no';
      case 'checkedOn':
        return value === null ? '' : format.date(isoOf(value as number));
      default:
        return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
    }
  };
}
