import { useMutation } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState, type ReactNode } from 'react';
import type { Job, UploadAnswer } from '../../contract/responses.ts';
import { SCHEMES, type Scheme } from '../../core/codes/tree.ts';
import { CURRENCIES } from '../../core/money/rates.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { READ_SUBJECTS } from '../../core/records/read-related.ts';
import { oneOf, subjectOf } from '../../core/fields/registry.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';

const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1250', 'windows-1252'];
const DELIMITERS: [string, string][] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'pipe'],
];

/** Columns whose figures are in the unit and currency of the file. */
const MONEY = ['revenue', 'amount', 'profit', 'assets'];

/** How a file is read, shown with its first rows and corrected by hand. */
export function MapColumns({
  first,
  today,
  onStarted,
  onAnother,
}: {
  first: UploadAnswer;
  today: string;
  onStarted(job: Job): void;
  onAnother(): void;
}) {
  const format = useFormat();
  const [file, setFile] = useState(first);
  const [mapping, setMapping] = useState<Mapping>(first.mapping);
  const [name, setName] = useState(first.fileName.replace(/\.[a-z]+$/i, ''));
  const [licence, setLicence] = useState('');
  const [asOf, setAsOf] = useState(today);
  const [allOrNothing, setAllOrNothing] = useState(false);
  const [covers, setCovers] = useState('');
  const { subject } = file;
  const reading = {
    encoding: file.encoding,
    delimiter: file.delimiter,
    hasHeader: file.hasHeader,
    subject,
  };
  const again = useMutation({
    mutationFn: (wish: Partial<typeof reading>) =>
      call<UploadAnswer>('POST', `/uploads/${file.upload}/preview`, { ...reading, ...wish }),
    onSuccess: (answer) => {
      setFile(answer);
      setMapping(answer.mapping);
    },
  });
  const load = useMutation({
    mutationFn: () =>
      call<{ job: Job }>('POST', '/sources', {
        upload: file.upload,
        name: name.trim(),
        licence: licence.trim() || null,
        asOf,
        read: reading,
        mapping,
        allOrNothing,
        covers: covers
          .toUpperCase()
          .split(/[\s,;]+/)
          .filter(Boolean),
      }),
    onSuccess: ({ job }) => onStarted(job),
  });
  const change = (part: Partial<Mapping>) => setMapping({ ...mapping, ...part });
  const readAs = (column: number, id: string | null) =>
    change({ columns: mapping.columns.map((one, i) => (i === column ? id : one === id ? null : one)) });
  const has = (id: string) => mapping.columns.includes(id);
  const money = MONEY.some(has);
  const missing = subject === 'companies' && !has('name');
  const unplaced =
    subject !== 'companies' &&
    subject !== 'deals' &&
    !['company-number', 'company-domain', 'company-name'].some(has);
  const unread = mapping.columns.filter((id) => id === null).length;

  return (
    <div className="space-y-5">
      <p>
        <strong>{file.fileName}</strong>{' '}
        <span className="text-soft">
          {format.bytes(file.bytes)}, {file.kind.toUpperCase()}, {file.header.length} columns
        </span>{' '}
        <Button look="quiet" className="underline" onClick={onAnother}>
          another file
        </Button>
      </p>
      <div className="flex items-center gap-3">
        <span className="text-soft">Each row is</span>
        <Segments
          label="What each row is"
          value={subject}
          options={['companies', ...READ_SUBJECTS].map((id) => ({
            key: id,
            label: oneOf(id),
          }))}
          onChange={(next) => again.mutate({ subject: next })}
        />
      </div>
      {file.kind === 'csv' && (
        <div className="flex flex-wrap gap-4">
          <Choice
            label="Encoding"
            value={file.encoding}
            options={ENCODINGS.map((one) => [one, one])}
            onChange={(encoding) => again.mutate({ encoding })}
          />
          <Choice
            label="Delimiter"
            value={file.delimiter}
            options={DELIMITERS}
            onChange={(delimiter) => again.mutate({ delimiter })}
          />
          <Choice
            label="First row"
            value={file.hasHeader ? 'header' : 'data'}
            options={[
              ['header', 'headings'],
              ['data', oneOf(subject)],
            ]}
            onChange={(value) => again.mutate({ hasHeader: value === 'header' })}
          />
          <Choice
            label="Decimals"
            value={mapping.decimal}
            options={[
              ['.', '1,234.5'],
              [',', '1.234,5'],
            ]}
            onChange={(decimal) => change({ decimal: decimal as '.' | ',' })}
          />
          <Choice
            label="Dates"
            value={mapping.dates}
            options={[
              ['dmy', 'day/month/year'],
              ['mdy', 'month/day/year'],
            ]}
            onChange={(dates) => change({ dates: dates as 'dmy' | 'mdy' })}
          />
        </div>
      )}
      <Trouble error={again.error} />
      <section>
        <h2 className="title pb-1 text-[17px]">How each column is read</h2>
        <div className="max-h-[42vh] overflow-auto rounded-md border border-edge bg-paper">
          <table className="text-[13px]">
            <thead className="sticky top-0 bg-paper">
              <tr>
                {file.header.map((heading, i) => {
                  const id = mapping.columns[i] ?? null;
                  return (
                    <th
                      key={i}
                      className={clsx(
                        'min-w-40 border-r border-b border-rule p-2 text-left align-top font-normal',
                        id && 'bg-picked',
                      )}
                    >
                      <span className="block truncate font-semibold" title={heading}>
                        {heading || `column ${i + 1}`}
                      </span>
                      <select
                        aria-label={`Column ${heading || i + 1} is read as`}
                        value={id ?? ''}
                        onChange={(event) => readAs(i, event.target.value || null)}
                        className={clsx('field mt-1 w-full py-1', !id && 'text-soft')}
                      >
                        <option value="">left out</option>
                        {file.columns.map((column) => (
                          <option key={column.id} value={column.id}>
                            {column.label}
                          </option>
                        ))}
                      </select>
                    </th>
                  );
                })}
              </tr>
            </thead>
            <tbody>
              {file.rows.map((cells, r) => (
                <tr key={r}>
                  {file.header.map((_, i) => (
                    <td
                      key={i}
                      className={clsx(
                        'max-w-64 truncate border-r border-b border-rule px-2 py-1',
                        mapping.columns[i] === null && 'text-soft',
                      )}
                      title={cells[i]}
                    >
                      {cells[i]}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p className="mt-1 text-[13px] text-soft">
          {file.header.length - unread} of {file.header.length} columns are read
          {unread > 0 && '; the others are kept with the records as they came, but not counted'}.
        </p>
      </section>
      <div className="flex flex-wrap gap-4">
        {(has('main-code') || has('other-codes')) && (
          <Choice
            label="Codes are of"
            value={mapping.scheme}
            options={Object.entries(SCHEMES)}
            onChange={(scheme) => change({ scheme: scheme as Scheme })}
          />
        )}
        {money && (
          <>
            <Choice
              label="Money is in"
              value={String(mapping.revenueUnit)}
              options={[
                ['1', 'units'],
                ['1000', 'thousands'],
                ['1000000', 'millions'],
              ]}
              onChange={(unit) => change({ revenueUnit: Number(unit) })}
            />
            {!has('revenue-currency') && (
              <Choice
                label="Currency"
                value={mapping.currency}
                options={CURRENCIES.map((code) => [code, code])}
                onChange={(currency) => change({ currency })}
              />
            )}
            {!has('revenue-year') && (
              <Labelled label="Year of the figures">
                <input
                  type="number"
                  className="field figure w-24"
                  value={mapping.year}
                  onChange={(event) => change({ year: Number(event.target.value) })}
                />
              </Labelled>
            )}
          </>
        )}
        {!has('country') && !has('company-country') && (
          <Labelled label="Country of all rows">
            <input
              className="field figure w-24 uppercase"
              maxLength={2}
              placeholder="none"
              value={mapping.country ?? ''}
              onChange={(event) => change({ country: event.target.value.trim().toUpperCase() || null })}
            />
          </Labelled>
        )}
      </div>
      <section className="flex flex-wrap gap-4 border-t border-edge pt-4">
        <Labelled label="Name of the source">
          <input
            className="field w-64"
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
          />
        </Labelled>
        <Labelled label="As of">
          <input
            type="date"
            className="field"
            value={asOf}
            onChange={(event) => setAsOf(event.target.value)}
          />
        </Labelled>
        <Labelled label="Licence, if any">
          <input
            className="field w-64"
            value={licence}
            maxLength={300}
            onChange={(event) => setLicence(event.target.value)}
          />
        </Labelled>
        <label className="flex items-center gap-2 self-end pb-2">
          <input
            type="checkbox"
            checked={allOrNothing}
            onChange={(event) => setAllOrNothing(event.target.checked)}
          />{' '}
          all or nothing: one bad row and nothing is loaded
        </label>
      </section>
      {subject !== 'companies' && (
        <Labelled label={`Countries of which this file has all ${subjectOf(subject).many}, by ISO code`}>
          <input
            className="field figure w-96 uppercase"
            placeholder="none"
            value={covers}
            onChange={(event) => setCovers(event.target.value)}
          />
          <span className="block pt-1 text-[13px] text-soft">
            There a company without any is a no; elsewhere nothing is known of companies that the file does
            not name.
          </span>
        </Labelled>
      )}
      <Trouble error={load.error} />
      {missing && (
        <p role="alert" className="text-cut">
          No column is read as the company’s name. Choose “Company” over the column that has it.
        </p>
      )}
      {unplaced && (
        <p role="alert" className="text-cut">
          No column says which company a row belongs to. Choose its registration number, domain or name.
        </p>
      )}
      <Button
        look="ink"
        disabled={
          missing || unplaced || name.trim() === '' || asOf === '' || load.isPending || again.isPending
        }
        onClick={() => load.mutate()}
      >
        Load it
      </Button>
    </div>
  );
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block">
      <span className="block pb-1 text-[13px] text-soft">{label}</span>
      {children}
    </label>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange(value: string): void;
}) {
  return (
    <Labelled label={label}>
      <select className="field" value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
