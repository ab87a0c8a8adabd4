import { useState } from 'react';
import { ENCODINGS } from '../../../contract/readings.ts';
import type { UploadAnswer } from '../../../contract/responses.ts';
import { Choice, Labelled } from './fields.tsx';
import type { ReadWish } from './useReading.ts';

const DELIMITERS: [string, string][] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'pipe'],
];

/** How the file itself is read: encoding and delimiter or sheet, and where its headings stand. */
export function HowFile({
  file,
  one,
  onChange,
}: {
  file: UploadAnswer;
  /** What a row is: "company". */
  one: string;
  onChange(wish: Partial<ReadWish>): void;
}) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      {file.kind === 'csv' ? (
        <>
          <Choice
            label="Encoding"
            value={file.encoding}
            options={Object.entries(ENCODINGS)}
            onChange={(encoding) => onChange({ encoding })}
          />
          <Choice
            label="Delimiter"
            value={file.delimiter}
            options={DELIMITERS}
            onChange={(delimiter) => onChange({ delimiter })}
          />
        </>
      ) : (
        <Choice
          label="Sheet"
          value={file.sheet ?? ''}
          options={file.sheets.map(({ name, hidden }) => [name, hidden ? `${name} (hidden)` : name])}
          onChange={(sheet) => onChange({ sheet })}
        />
      )}
      <Labelled label="Rows to skip above">
        <RowsToSkip key={file.skip} rows={file.skip ?? 0} onChange={(skip) => onChange({ skip })} />
      </Labelled>
      <Choice
        label="Headings"
        value={String(file.headerRows ?? (file.hasHeader ? 1 : 0))}
        options={[
          ['1', 'one row'],
          ['2', 'two rows, joined'],
          ['0', `none, the first row is a ${one}`],
        ]}
        onChange={(rows) => onChange({ headerRows: Number(rows) as 0 | 1 | 2 })}
      />
      {file.above.length > 0 && (
        <p className="w-full truncate text-[13px] text-soft">
          Above the headings:{' '}
          {file.above.slice(0, 3).map((cells, i) => (
            <q key={i} className="mr-1">
              {cells
                .filter((cell) => cell.trim() !== '')
                .join(' ')
                .slice(0, 80)}
            </q>
          ))}
        </p>
      )}
    </div>
  );
}

/** A number that is typed whole before the file is read anew by it: on Enter, or when it is left. */
function RowsToSkip({ rows, onChange }: { rows: number; onChange(rows: number): void }) {
  const [text, setText] = useState(String(rows));
  const done = () => {
    const wished = Math.max(0, Math.min(1000, Math.round(Number(text))));
    setText(String(wished));
    if (wished !== rows) onChange(wished);
  };
  return (
    <input
      type="number"
      min={0}
      max={1000}
      className="field figure w-20"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => event.key === 'Enter' && done()}
    />
  );
}
