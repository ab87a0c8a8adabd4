import { ADDRESS_LINES } from '../../../core/exports/postal-parts.ts';
import { Segments } from '../../ui/controls.tsx';
import { Chips } from './Chips.tsx';
import { formatOf, formatsFor } from '../../../core/exports/formats.ts';
import type { ChosenFile } from './wish.ts';

type Change = (more: Partial<ChosenFile>) => void;

/** Which kind of file, and how it is written. */
export function FormatChoice({
  subject,
  file,
  onFile,
}: {
  subject: string;
  file: ChosenFile;
  onFile(file: ChosenFile): void;
}) {
  const format = formatOf(file.format);
  const change: Change = (more) => onFile({ ...file, ...more });
  return (
    <div className="space-y-2">
      <Chips
        label="File"
        value={file.format}
        options={formatsFor(subject).map(({ id, label, says }) => ({ key: id, label, title: says }))}
        onChange={(id) => change({ format: id })}
      />
      <p className="text-[13px] text-soft">
        {format.says}
        {file.format === 'merge' && ` Up to ${ADDRESS_LINES} lines.`}
        {format.carries && ' “How this list was made” stands inside.'}
      </p>
      {(file.format === 'csv' || file.format === 'merge') && <CsvChoices file={file} change={change} />}
      {file.format === 'geojson' && (
        <Segments
          label="Drawn as"
          value={file.areas ? 'areas' : 'points'}
          onChange={(drawn) => change({ areas: drawn === 'areas' })}
          options={[
            { key: 'points', label: 'points' },
            { key: 'areas', label: 'regions with how many' },
          ]}
        />
      )}
      {file.format === 'xlsx' && (
        <label className="flex items-center gap-2 text-[13px]">
          <input
            type="checkbox"
            checked={file.breakdown}
            onChange={(event) => change({ breakdown: event.target.checked })}
          />
          a sheet with the Breakdown of all that pass
        </label>
      )}
      {format.ending === 'pdf' && (
        <Segments
          label="Paper"
          value={file.paper}
          onChange={(paper) => change({ paper })}
          options={[
            { key: 'A4', label: 'A4' },
            { key: 'Letter', label: 'Letter' },
          ]}
        />
      )}
      {file.format === 'letters' && <LetterChoices file={file} change={change} />}
      {!format.carries && (
        <label className="flex items-center gap-2 text-[13px]">
          <input
            type="checkbox"
            checked={file.beside}
            onChange={(event) => change({ beside: event.target.checked })}
          />
          “How this list was made” and the tape beside it, in a ZIP
        </label>
      )}
    </div>
  );
}

function CsvChoices({ file, change }: { file: ChosenFile; change: Change }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 text-[13px]">
      <select
        aria-label="Delimiter"
        value={file.delimiter}
        onChange={(event) => change({ delimiter: event.target.value })}
        className="field py-1"
      >
        <option value=",">comma</option>
        <option value=";">semicolon</option>
        <option value={'\t'}>tab</option>
        <option value="|">pipe</option>
      </select>
      <Tick
        on={file.bom}
        onChange={(bom) => change({ bom })}
        title="Some spreadsheets need it to see that the file is UTF-8"
      >
        byte order mark
      </Tick>
      <Tick on={file.quoteAll} onChange={(quoteAll) => change({ quoteAll })}>
        quotes round every cell
      </Tick>
      <Tick on={file.decimalComma} onChange={(decimalComma) => change({ decimalComma })}>
        decimal comma
      </Tick>
      <Tick on={file.lineEnd === 'lf'} onChange={(lf) => change({ lineEnd: lf ? 'lf' : 'crlf' })}>
        lines end in LF
      </Tick>
    </div>
  );
}

function Tick({
  on,
  onChange,
  title,
  children,
}: {
  on: boolean;
  onChange(on: boolean): void;
  title?: string;
  children: React.ReactNode;
}) {
  return (
    <label className="flex items-center gap-1.5" title={title}>
      <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} /> {children}
    </label>
  );
}

function LetterChoices({ file, change }: { file: ChosenFile; change: Change }) {
  const letter = file.letter ?? { sender: '', text: '' };
  return (
    <div className="space-y-2">
      <textarea
        aria-label="Sender"
        placeholder="Who writes: name and address, a line each"
        className="field w-full"
        rows={2}
        maxLength={300}
        value={letter.sender}
        onChange={(event) => change({ letter: { ...letter, sender: event.target.value } })}
      />
      <textarea
        aria-label="Text of the letter"
        placeholder="Dear {name}, …  {company} and {town} stand for those of each"
        className="field w-full"
        rows={5}
        maxLength={4000}
        value={letter.text}
        onChange={(event) => change({ letter: { ...letter, text: event.target.value } })}
      />
    </div>
  );
}
