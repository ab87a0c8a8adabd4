import { SCHEMES } from '../../../core/codes/tree.ts';
import { stylesOf, UNITS, type ColumnStyle } from '../../../core/records/column-styles.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { CURRENCIES } from '../../../core/money/rates.ts';
import { Choice } from './fields.tsx';

const ASKED = {
  currency: 'Which currency is this?',
  unit: 'What is it counted in: as revenue, or in units?',
  decimal: 'Point or comma: which is the decimal mark here?',
  dates: 'Does the day or the month come first?',
  scheme: 'Which classification are these codes of?',
} as const;

const UNIT_NAMES: Readonly<Record<number, string>> = {
  1: 'units',
  1e3: 'thousands',
  1e4: 'ten thousands',
  1e5: 'lakhs',
  1e6: 'millions',
  1e7: 'crores',
  1e8: 'hundred millions',
  1e9: 'billions',
};

/** How the cells of one column are written, and what nobody can tell from them. */
export function HowWritten({
  at,
  name,
  id,
  mapping,
  samples,
  onMapping,
}: {
  at: number;
  name: string;
  id: string;
  mapping: Mapping;
  samples: readonly { came: string }[];
  onMapping(part: Partial<Mapping>): void;
}) {
  const style = mapping.styles?.[at] ?? {};
  const open = (mapping.undecided ?? []).filter(({ column }) => column === at).map(({ what }) => what);
  /** Changes how the column is written; `without` is then as in the rest of the file. */
  const change = (part: ColumnStyle, without?: keyof ColumnStyle) => {
    const next = { ...style, ...part };
    if (without) delete next[without];
    const styles = mapping.columns.map((_, i) => (i === at ? next : (mapping.styles?.[i] ?? {})));
    const undecided = (mapping.undecided ?? []).filter(
      ({ column, what }) => column !== at || !(what in part),
    );
    onMapping({ styles, undecided });
  };
  const parts = stylesOf(id);
  const choice = (
    what: 'decimal' | 'dates' | 'scheme',
    value: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <Choice
      aria={`${name}: ${{ decimal: 'decimals', dates: 'dates', scheme: 'codes' }[what]}`}
      value={open.includes(what) ? '' : value}
      options={open.includes(what) ? [['', 'choose'], ...options] : options}
      onChange={(chosen) => chosen !== '' && change({ [what]: chosen })}
    />
  );
  if (parts.length === 0) return null;
  return (
    <div className="mt-1 space-y-1">
      {open.map((what) => (
        <p key={what} role="alert" className="max-w-44 text-[13px] font-semibold text-unsure">
          {ASKED[what]}
        </p>
      ))}
      <div className="flex max-w-60 flex-wrap gap-1">
        {parts.includes('decimal') &&
          (open.includes('decimal') || samples.some(({ came }) => /[.,]/.test(came))) &&
          choice('decimal', style.decimal ?? mapping.decimal, [
            ['.', '1,234.5'],
            [',', '1.234,5'],
          ])}
        {parts.includes('unit') && (
          <Choice
            aria={`${name} is in`}
            value={open.includes('unit') ? '' : String(style.unit ?? mapping.revenueUnit)}
            options={[
              ...(open.includes('unit') ? ([['', 'choose']] as const) : []),
              ...UNITS.map((unit) => [String(unit), UNIT_NAMES[unit]!] as const),
            ]}
            onChange={(unit) => change({ unit: Number(unit) })}
          />
        )}
        {parts.includes('currency') && (
          <Choice
            aria={`${name}: currency`}
            value={style.currency ?? ''}
            options={[
              ['', open.includes('currency') ? 'choose' : `${mapping.currency}, as the file`],
              ...CURRENCIES.map((code) => [code, code] as const),
            ]}
            onChange={(currency) => (currency === '' ? change({}, 'currency') : change({ currency }))}
          />
        )}
        {style.year !== undefined && (
          <input
            type="number"
            aria-label={`${name}: year`}
            title="The year that its heading names"
            className="field figure w-20 py-0.5 text-[13px]"
            min={1900}
            max={2200}
            defaultValue={style.year}
            onChange={(event) => {
              const year = Number(event.target.value);
              if (event.target.validity.valid && Number.isInteger(year) && year > 0) change({ year });
            }}
          />
        )}
        {parts.includes('dates') &&
          (open.includes('dates') || samples.some(({ came }) => /^\d{1,2}[/-]\d/.test(came))) &&
          choice('dates', style.dates ?? mapping.dates, [
            ['dmy', 'day/month/year'],
            ['mdy', 'month/day/year'],
          ])}
        {parts.includes('scheme') &&
          choice('scheme', style.scheme ?? mapping.scheme, Object.entries(SCHEMES))}
      </div>
    </div>
  );
}
