import { useState } from 'react';
import { spellFunctions } from '../../core/people/functions.ts';
import { RIGHT_PARTS, rightColumn, type RightPart } from '../../core/tape/own-columns.ts';
import { Button, Dialog } from '../ui/controls.tsx';
import { askedFunctions } from './FunctionsEditor.tsx';
import { choiceOf, useRememberedFunctions, useRightPeople } from './right-people.ts';
import { RightPersonPicker } from './RightPersonPicker.tsx';

const OWN = 'own';

/** Columns of who holds the first of some functions that anybody holds at each company. */
export function RightPersonColumns({
  columns,
  onColumns,
}: {
  columns: readonly string[];
  onColumns(columns: readonly string[]): void;
}) {
  const { ready, own } = useRightPeople();
  const [functions, setFunctions] = useRememberedFunctions();
  const [open, setOpen] = useState(false);
  const choices = [...ready, ...own];
  const asked = askedFunctions(functions);
  return (
    <div role="group" aria-label="The right person">
      <p className="px-3 pt-2 text-[12px] text-soft">The right person</p>
      <div className="flex items-center gap-2 px-3 py-1 text-[13px]">
        <select
          aria-label="Whose columns"
          className="field min-w-0 flex-1 py-0.5 pl-2"
          title={spellFunctions(asked)}
          value={choiceOf(choices, asked)?.key ?? OWN}
          onChange={(event) => {
            const chosen = choices.find(({ key }) => key === event.target.value);
            if (chosen) setFunctions(chosen.functions);
            else setOpen(true);
          }}
        >
          {choices.map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
          <option value={OWN}>
            {choiceOf(choices, asked) ? 'by other functions …' : spellFunctions(asked)}
          </option>
        </select>
        <Button look="quiet" className="underline" onClick={() => setOpen(true)}>
          Change
        </Button>
      </div>
      {(Object.keys(RIGHT_PARTS) as RightPart[]).map((part) => {
        const id = rightColumn(part, asked);
        const shown = columns.includes(id);
        return (
          <label key={part} className="flex items-center gap-2 px-3 py-1 hover:bg-ground">
            <input
              type="checkbox"
              checked={shown}
              disabled={shown && columns.length === 1}
              onChange={() => onColumns(shown ? columns.filter((one) => one !== id) : [...columns, id])}
            />
            {RIGHT_PARTS[part]}
          </label>
        );
      })}
      {open && (
        <Dialog open title="The right person" onClose={() => setOpen(false)} width={640}>
          <RightPersonPicker functions={functions} onFunctions={setFunctions} />
          <div className="flex justify-end pt-3">
            <Button look="ink" onClick={() => setOpen(false)}>
              Take these
            </Button>
          </div>
        </Dialog>
      )}
    </div>
  );
}
