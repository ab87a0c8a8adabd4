import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { WordedTally } from '../../../contract/responses.ts';
import { COMPUTED, isFigure, type Computed, type ComputedWay } from '../../../core/exports/computed.ts';
import { HEADING_LANGUAGES, type HeadingLanguage } from '../../../core/exports/headings/languages.ts';
import { formatOf } from '../../../core/exports/formats.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { ColumnChoice } from '../../desk/sheet/ColumnChoice.tsx';
import { useCarried } from '../../lists/use-lists.ts';
import { allColumns, columnOf } from '../../desk/sheet/columns.ts';
import { Button, Segments } from '../../ui/controls.tsx';
import { nextComputed, type ChosenFile } from './wish.ts';

/** Which columns a file has: those of the sheet, or chosen here, with headings of one's own and columns computed of others. */
export function ColumnsChoice({
  tape,
  tally,
  shown,
  file,
  onFile,
}: {
  tape: Tape;
  tally: WordedTally | undefined;
  /** Those of the sheet. */
  shown: readonly string[];
  file: ChosenFile;
  onFile(file: ChosenFile): void;
}) {
  const [open, setOpen] = useState(false);
  const asSheet = !open && file.columns.join() === shown.join();
  // Machines call columns by names of their own, whatever people call them.
  const { headings: headed } = formatOf(file.format);
  const computed = file.computed ?? [];
  const stored = file.columns.filter((id) => !id.startsWith(COMPUTED));
  const headingOf = (id: string) =>
    computed.find((one) => one.id === id)?.heading ?? columnOf(tape, id, tally)?.heading ?? id;
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-center gap-3">
        <Segments
          label="Which columns"
          value={asSheet ? 'shown' : 'own'}
          onChange={(choice) => {
            setOpen(choice === 'own');
            if (choice === 'shown') onFile({ ...file, columns: [...shown], computed: [], headings: {} });
          }}
          options={[
            { key: 'shown', label: `those of the sheet (${shown.length})` },
            { key: 'own', label: 'chosen here' },
          ]}
        />
        {stored.some((id) => fieldOf(tape.subject, id)?.kind === 'money') && (
          <label className="flex items-center gap-2 text-[13px]">
            amounts in
            <select
              aria-label="Currency of amounts"
              className="field py-1"
              value={file.ownCurrency ? 'own' : 'one'}
              onChange={(event) => onFile({ ...file, ownCurrency: event.target.value === 'own' })}
            >
              <option value="one">{file.currency}</option>
              <option value="own">their own currency</option>
            </select>
          </label>
        )}
        {headed && (
          <label className="flex items-center gap-2 text-[13px]">
            headings in
            <select
              aria-label="Language of headings"
              className="field py-1"
              value={file.language}
              onChange={(event) => onFile({ ...file, language: event.target.value as HeadingLanguage })}
            >
              {Object.entries(HEADING_LANGUAGES).map(([key, label]) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {open ? (
        <>
          <div className="rounded-md border border-edge">
            <ColumnChoice
              tape={tape}
              columns={stored}
              tally={tally}
              onColumns={(columns) =>
                onFile({ ...file, columns: [...columns, ...computed.map(({ id }) => id)] })
              }
            />
          </div>
          <ComputedColumns tape={tape} tally={tally} file={file} onFile={onFile} />
          {headed && (
            <fieldset className="rounded-md border border-edge px-3 py-2">
              <legend className="px-1 text-[13px] text-soft">headings of one’s own</legend>
              <div className="grid grid-cols-3 gap-2">
                {stored.map((id) => (
                  <input
                    key={id}
                    className="field w-full py-1 text-[13px]"
                    aria-label={`Heading of ${headingOf(id)}`}
                    placeholder={headingOf(id)}
                    maxLength={80}
                    value={file.headings?.[id] ?? ''}
                    onChange={(event) =>
                      onFile({ ...file, headings: { ...file.headings, [id]: event.target.value } })
                    }
                  />
                ))}
              </div>
            </fieldset>
          )}
        </>
      ) : (
        <p className="text-[13px] text-soft">
          {file.columns.map((id) => file.headings?.[id] || headingOf(id)).join(', ')}
        </p>
      )}
    </div>
  );
}

const WAYS: Readonly<Record<ComputedWay, string>> = {
  ratio: 'ratio',
  percent: 'percentage',
  difference: 'difference',
  join: 'joined text',
};
const BETWEEN: Readonly<Record<ComputedWay, string>> = {
  ratio: 'to',
  percent: 'of',
  difference: 'less',
  join: 'and',
};

function ComputedColumns({
  tape,
  tally,
  file,
  onFile,
}: {
  tape: Tape;
  tally: WordedTally | undefined;
  file: ChosenFile;
  onFile(file: ChosenFile): void;
}) {
  const computed = file.computed ?? [];
  const all = allColumns(tape, tally, useCarried());
  const change = (id: string, more: Partial<Computed>) =>
    onFile({ ...file, computed: computed.map((one) => (one.id === id ? { ...one, ...more } : one)) });
  const add = () => {
    const id = nextComputed(computed);
    const figures = all.filter((column) => isFigure(tape.subject, column.id));
    const [one, other] = figures.length > 1 ? figures : all;
    const way: ComputedWay = figures.length > 1 ? 'ratio' : 'join';
    onFile({
      ...file,
      columns: [...file.columns, id],
      computed: [...computed, { id, heading: 'Computed', way, of: [one!.id, other!.id] }],
    });
  };
  const remove = (id: string) =>
    onFile({
      ...file,
      columns: file.columns.filter((one) => one !== id),
      computed: computed.filter((one) => one.id !== id),
    });
  return (
    <div className="space-y-1.5">
      {computed.map(({ id, heading, way, of }) => {
        const choices = all.filter((column) => way === 'join' || isFigure(tape.subject, column.id));
        return (
          <div key={id} className="flex flex-wrap items-center gap-1.5 text-[13px]">
            <input
              className="field w-36 py-1"
              aria-label="Heading of the computed column"
              maxLength={80}
              value={heading}
              onChange={(event) => change(id, { heading: event.target.value })}
            />
            is the
            <select
              className="field py-1"
              aria-label="How it is computed"
              value={way}
              onChange={(event) => change(id, { way: event.target.value as ComputedWay })}
            >
              {Object.entries(WAYS).map(([key, label]) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
            {[0, 1].map((at) => (
              <span key={at} className="flex items-center gap-1.5">
                {at === 1 && BETWEEN[way]}
                <select
                  className="field max-w-40 py-1"
                  aria-label={at === 0 ? 'First column' : 'Second column'}
                  value={of[at]}
                  onChange={(event) =>
                    change(id, { of: of.map((one, i) => (i === at ? event.target.value : one)) })
                  }
                >
                  {choices.map((column) => (
                    <option key={column.id} value={column.id}>
                      {column.heading}
                    </option>
                  ))}
                </select>
              </span>
            ))}
            <Button look="quiet" aria-label={`Remove ${heading}`} onClick={() => remove(id)}>
              <Trash2 size={14} />
            </Button>
          </div>
        );
      })}
      <Button look="quiet" onClick={add}>
        <Plus size={14} /> a column computed of others
      </Button>
    </div>
  );
}
