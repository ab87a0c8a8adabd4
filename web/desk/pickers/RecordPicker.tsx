import { useState } from 'react';
import type { RecordTest } from '../../../core/tape/nodes.ts';
import { Trouble } from '../../ui/controls.tsx';
import { useFound, useNames } from './found-companies.ts';
import type { PickerProps } from './picker-props.ts';

/** Certain companies: those taken, and others found by name. */
export function RecordPicker({ test, onTest }: PickerProps<RecordTest>) {
  const [text, setText] = useState('');
  const keys = test?.any ?? [];
  const { data: found, error } = useFound(text);
  const names = useNames(keys);
  const toggle = (key: string) => {
    const any = keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key];
    onTest(any.length ? { any } : null);
  };
  return (
    <div className="flex h-full min-h-0 flex-col gap-3 overflow-y-auto">
      <ul aria-label="Companies taken">
        {keys.map((key) => (
          <li key={key} className="border-b border-rule">
            <label className="flex items-baseline gap-2 py-1.5">
              <input type="checkbox" checked onChange={() => toggle(key)} />
              {names.get(key) ?? key} <span className="figure text-[12px] text-soft">{key}</span>
            </label>
          </li>
        ))}
      </ul>
      <input
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder="Find a company by name"
        aria-label="Find a company by name"
        className="field w-80 border-ink"
      />
      <Trouble error={error} />
      {text.trim() !== '' && found?.companies.length === 0 && (
        <p className="text-soft">No company of that name.</p>
      )}
      <ul aria-label="Companies found">
        {(text.trim() === '' ? [] : (found?.companies ?? []))
          .filter(({ key }) => !keys.includes(key))
          .map(({ key, name, town, country }) => (
            <li key={key} className="border-b border-rule">
              <label className="flex items-baseline gap-2 py-1.5">
                <input type="checkbox" checked={false} onChange={() => toggle(key)} />
                {name}{' '}
                <span className="text-[13px] text-soft">{[town, country].filter(Boolean).join(', ')}</span>
              </label>
            </li>
          ))}
      </ul>
    </div>
  );
}
