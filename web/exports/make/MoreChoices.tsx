import { useState } from 'react';
import { Button } from '../../ui/controls.tsx';
import { needChoices, splitChoices, type ChosenFile } from './wish.ts';

/** How many are drawn by lot, and which draw it is: the same one draws the same. */
export interface Sample {
  size: number;
  seed: number;
}

/** What is seldom asked: values that every row must have, several files, a sample. */
export function MoreChoices({
  subject,
  file,
  sample,
  onFile,
  onSample,
}: {
  subject: string;
  file: ChosenFile;
  sample: Sample | null;
  onFile(file: ChosenFile): void;
  onSample(sample: Sample | null): void;
}) {
  const needs = file.needs ?? [];
  const { split } = file;
  const asked = needs.length > 0 || split !== undefined || sample !== null;
  const [open, setOpen] = useState(asked);
  if (!open && !asked)
    return (
      <Button look="quiet" className="-ml-1.5" onClick={() => setOpen(true)}>
        values each must have, several files, a sample …
      </Button>
    );
  return (
    <div className="space-y-2 text-[13px]">
      <div className="flex flex-wrap items-center gap-1.5">
        every row must have
        {needs.map((id) => (
          <Button
            key={id}
            className="px-1.5 py-0.5"
            title="Ask for it no longer"
            onClick={() => onFile({ ...file, needs: needs.filter((one) => one !== id) })}
          >
            {needChoices(subject).find((one) => one.id === id)?.label ?? id} ×
          </Button>
        ))}
        <select
          className="field py-1"
          aria-label="A value that every row must have"
          value=""
          onChange={(event) =>
            event.target.value && onFile({ ...file, needs: [...needs, event.target.value] })
          }
        >
          <option value="">{needs.length ? 'and …' : 'nothing more'}</option>
          {needChoices(subject)
            .filter(({ id }) => !needs.includes(id))
            .map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
        </select>
      </div>
      <div className="flex flex-wrap items-center gap-1.5">
        in
        <select
          className="field py-1"
          aria-label="In how many files"
          value={split === undefined ? 'one' : split.rows === undefined ? (split.by ?? '') : 'rows'}
          onChange={(event) => {
            const { value } = event.target;
            const by = splitChoices(subject).find((one) => one.by === value);
            onFile({ ...file, split: value === 'one' ? undefined : (by ?? { rows: 10_000 }) });
          }}
        >
          <option value="one">one file</option>
          <option value="rows">files of so many rows</option>
          {splitChoices(subject).map(({ by }) => (
            <option key={by} value={by}>
              one file for each: {by}
            </option>
          ))}
        </select>
        {split?.rows !== undefined && (
          <WholeNumber
            label="Rows of a file"
            value={split.rows}
            onChange={(rows) => onFile({ ...file, split: { rows } })}
          />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-1.5">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={sample !== null}
            onChange={(event) => onSample(event.target.checked ? { size: 100, seed: 1 } : null)}
          />
          only a sample of
        </label>
        <WholeNumber
          label="Size of the sample"
          value={sample?.size ?? null}
          off={sample === null}
          onChange={(size) => sample && onSample({ ...sample, size })}
        />
        {sample && (
          <>
            <span className="text-soft">
              draw <span className="figure">{sample.seed}</span>, the same each time
            </span>
            <Button className="px-1.5 py-0.5" onClick={() => onSample({ ...sample, seed: sample.seed + 1 })}>
              Draw others
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

function WholeNumber({
  label,
  value,
  off = false,
  onChange,
}: {
  label: string;
  value: number | null;
  off?: boolean;
  onChange(value: number): void;
}) {
  return (
    <input
      type="number"
      min={1}
      max={1_000_000}
      disabled={off}
      aria-label={label}
      className="field figure w-28 py-1"
      value={value ?? ''}
      onChange={(event) => onChange(Math.max(1, Math.floor(Number(event.target.value) || 1)))}
    />
  );
}
