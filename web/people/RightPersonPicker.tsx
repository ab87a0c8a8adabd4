import { useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { PersonFunction } from '../../core/people/functions.ts';
import { foldedWords } from '../../core/text/fold.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { askedFunctions, FunctionsEditor } from './FunctionsEditor.tsx';
import { choiceOf, keepRightPerson, removeRightPerson, useRightPeople } from './right-people.ts';

/** Who is meant at each company: a choice kept under a name, or functions of one's own, which can be kept so. */
export function RightPersonPicker({
  functions,
  onFunctions,
}: {
  functions: readonly PersonFunction[];
  onFunctions(functions: readonly PersonFunction[]): void;
}) {
  const client = useQueryClient();
  const { ready, own } = useRightPeople();
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const choices = [...ready, ...own];
  const asked = askedFunctions(functions);
  const here = choiceOf(choices, asked);
  const isOwn = here !== undefined && own.includes(here);
  const act = async (work: () => Promise<void>) => {
    try {
      await work();
      setName('');
      setError(null);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <div className="min-w-0 space-y-2">
      <div className="flex items-center gap-2">
        <select
          aria-label="The right person"
          className="field min-w-0 flex-1 py-1"
          value={here?.key ?? ''}
          onChange={(event) => {
            const chosen = choices.find(({ key }) => key === event.target.value);
            if (chosen) onFunctions(chosen.functions);
          }}
        >
          <option value="" disabled>
            by the functions below
          </option>
          {choices.map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
        {isOwn && (
          <Button
            look="quiet"
            aria-label={`Remove ${here.label}`}
            title="Remove this choice"
            onClick={() => void act(() => removeRightPerson(client, here))}
          >
            <Trash2 size={14} />
          </Button>
        )}
      </div>
      <FunctionsEditor functions={functions} onChange={onFunctions} />
      {!here && (
        <span className="flex items-center gap-2 text-[13px]">
          <input
            aria-label="Keep these functions under the name"
            placeholder="keep under a name"
            maxLength={80}
            className="field min-w-0 flex-1 py-1"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button
            disabled={foldedWords(name).join('-').length < 2}
            onClick={() => void act(() => keepRightPerson(client, name.trim(), asked, own))}
          >
            Keep
          </Button>
        </span>
      )}
      <Trouble error={error} />
    </div>
  );
}
