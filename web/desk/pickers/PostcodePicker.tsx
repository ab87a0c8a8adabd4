import { useState } from 'react';
import type { TownCounts, ValueCount } from '../../../contract/responses.ts';
import type { Field } from '../../../core/fields/field.ts';
import { parsePostcode, splitPostcodes } from '../../../core/geo/postcodes.ts';
import { Button } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import { ValueRow } from './ValueRow.tsx';

/** Postcodes typed, pasted as a column, or picked by how they begin. */
export function PostcodePicker({
  field,
  at,
  countries,
  site,
  picked,
  onPostcodes,
}: {
  field: Field;
  at: string | undefined;
  countries: readonly ValueCount[];
  /** Of which site, as the line has it. */
  site: 'head' | 'any' | undefined;
  picked: readonly string[];
  onPostcodes(postcodes: string[]): void;
}) {
  const [country, setCountry] = useState(
    () => /^([A-Z]{2}) /.exec(picked.at(-1) ?? '')?.[1] ?? countries[0]?.key ?? '',
  );
  const [begin, setBegin] = useState('');
  const [text, setText] = useState('');
  const { data } = useCounts<TownCounts>({
    field: field.id,
    at,
    level: 'postcodes',
    within: country,
    search: begin.trim(),
    ...(site === 'any' ? { site } : {}),
  });
  const values = data?.values ?? [];
  const most = Math.max(1, ...values.map((value) => value.count));
  const written = splitPostcodes(text).map((one) =>
    country && !/^[A-Z]{2}\s/.test(one) ? `${country} ${one}` : one,
  );
  const wrong = written.filter((one) => !parsePostcode(one));
  const add = () => {
    onPostcodes([...new Set([...picked, ...written])]);
    setText('');
  };
  const toggle = (key: string) =>
    onPostcodes(picked.includes(key) ? picked.filter((one) => one !== key) : [...picked, key]);
  return (
    <div className="flex min-h-0 flex-1 gap-6">
      <div className="flex min-h-0 flex-1 flex-col">
        <div className="flex items-center gap-2 pb-2">
          <select
            aria-label="Country"
            className="field"
            value={country}
            onChange={(event) => setCountry(event.target.value)}
          >
            {countries.map(({ key, label }) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
          <input
            value={begin}
            onChange={(event) => setBegin(event.target.value)}
            placeholder="begins with"
            aria-label="Postcode begins with"
            className="field figure w-36"
          />
        </div>
        <ul aria-label="Postcodes" className="min-h-0 flex-1 overflow-y-auto">
          {values.map((value) => (
            <ValueRow
              key={value.key}
              label={value.label}
              count={value.count}
              most={most}
              picked={picked.includes(value.key)}
              onToggle={() => toggle(value.key)}
            />
          ))}
          {data && values.length === 0 && (
            <li className="p-4 text-soft">No company has a postcode that begins so.</li>
          )}
        </ul>
      </div>
      <form
        className="flex w-64 flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (written.length && wrong.length === 0) add();
        }}
      >
        <label className="flex flex-col gap-1">
          Type or paste postcodes
          <textarea
            value={text}
            rows={8}
            onChange={(event) => setText(event.target.value)}
            placeholder={'602 00\n61*\n63000..63999'}
            className="field figure border-ink"
          />
        </label>
        {wrong.length > 0 && (
          <p role="alert" className="text-[13px] text-cut">
            “{wrong[0]}” is no postcode, prefix (61*) or range (63000..63999)
            {wrong.length > 1 ? `, nor are ${wrong.length - 1} more` : ''}.
          </p>
        )}
        <Button type="submit" disabled={written.length === 0 || wrong.length > 0}>
          Add {written.length || ''} postcodes
        </Button>
        <p className="text-[12px] text-soft">
          Without a country before it, a code counts in the country chosen on the left. Spaces and hyphens do
          not matter.
        </p>
      </form>
    </div>
  );
}
