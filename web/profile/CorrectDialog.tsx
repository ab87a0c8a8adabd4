import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ProfileAnswer } from '../../contract/responses.ts';
import { CORRECTABLE, CORRECTABLE_KEYS, partOf, type Correctable } from '../../core/records/own-values.ts';
import { ApiError } from '../api.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { correct } from './corrections.ts';
import { useRecordText } from './record-text.ts';

/** How a value is typed, where that is not plain. */
const HINTS: Partial<Record<Correctable, string>> = {
  status: 'active, dormant or closed',
  country: 'such as CZ or Czechia',
  'main-code': 'such as 25.51',
  headcount: '45, or 20-49',
  revenue: '2400000, or 2.4 million EUR',
  profit: '-120000, or 1.2 million CZK',
  assets: '2400000, or 2.4 million EUR',
  ownership: 'independent, subsidiary or top',
};

/** Values of a company to be corrected by hand, over what its sources say. What is not typed in stays as it is. */
export function CorrectDialog({
  profile,
  name,
  onClose,
}: {
  profile: ProfileAnswer;
  name: string;
  onClose(): void;
}) {
  const client = useQueryClient();
  const text = useRecordText();
  const [typed, setTyped] = useState<Partial<Record<Correctable, string>>>({});
  const [unknown, setUnknown] = useState<readonly Correctable[]>([]);
  const [reason, setReason] = useState('');
  const [saving, setSaving] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const wrong = error instanceof ApiError ? error.field?.replace('corrections.', '') : undefined;
  const wishes = CORRECTABLE_KEYS.flatMap((field) => {
    const value = unknown.includes(field) ? '' : typed[field]?.trim();
    return value === undefined || (value === '' && !unknown.includes(field))
      ? []
      : [{ field, value, reason }];
  });
  const save = async () => {
    setSaving(true);
    setError(null);
    try {
      await correct(client, { key: profile.row.key, name, corrections: profile.corrections }, wishes);
      onClose();
    } catch (failure) {
      setError(failure as Error);
      if (failure instanceof ApiError && failure.field)
        document.getElementById(failure.field.replace('corrections.', 'correct-'))?.focus();
      setSaving(false);
    }
  };
  /** What is shown now: the correction, else what a source says. */
  const now = (field: Correctable) => {
    const part = partOf(field);
    const own = profile.corrections.find((one) => one.field === field);
    const record = profile.records.find(({ id }) => id === profile.from[part])?.record;
    return own?.value ?? (record ? text(record, part) : '');
  };
  return (
    <Dialog title={`Correct ${name}`} open onClose={onClose} width={680} fills>
      <form
        className="flex min-h-0 flex-1 flex-col"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="min-h-0 flex-1 overflow-y-auto px-5 pt-4 pb-3">
          <p className="pb-2 text-[13px] text-soft">
            What you type wins over every source, also over later files, until you take it back.
          </p>
          <div className="grid grid-cols-[112px_minmax(0,1fr)_minmax(0,1fr)_auto] items-center gap-x-3 gap-y-1.5 text-[14px]">
            <span className="text-[12px] text-soft">value</span>
            <span className="text-[12px] text-soft">as it is shown now</span>
            <span className="text-[12px] text-soft">as it should be</span>
            <span className="text-[12px] text-soft">not known</span>
            {CORRECTABLE_KEYS.map((field) => {
              const { label } = CORRECTABLE[field];
              const off = unknown.includes(field);
              return (
                <div key={field} className="contents">
                  <label htmlFor={`correct-${field}`}>{label}</label>
                  <span className="truncate text-soft" title={now(field)}>
                    {now(field) || '–'}
                  </span>
                  <input
                    id={`correct-${field}`}
                    className={`field min-w-0 ${wrong === field ? 'border-cut' : ''}`}
                    value={off ? '' : (typed[field] ?? '')}
                    placeholder={off ? 'shown as unknown' : HINTS[field]}
                    disabled={off}
                    aria-invalid={wrong === field}
                    autoFocus={field === 'name'}
                    onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
                  />
                  {field === 'name' ? (
                    <span />
                  ) : (
                    <input
                      type="checkbox"
                      className="justify-self-center"
                      aria-label={`${label} is not known`}
                      checked={off}
                      onChange={() =>
                        setUnknown(off ? unknown.filter((one) => one !== field) : [...unknown, field])
                      }
                    />
                  )}
                </div>
              );
            })}
          </div>
        </div>
        <div className="border-t border-rule px-5 py-3">
          <label className="block text-[14px]">
            Why, or who said so
            <input
              className="field mt-1 w-full"
              value={reason}
              maxLength={500}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <div className="pt-2 empty:hidden">
            <Trouble error={error} />
          </div>
          <div className="mt-3 flex items-center justify-end gap-2">
            <Button type="button" onClick={onClose}>
              Cancel
            </Button>
            <Button look="ink" type="submit" disabled={saving || wishes.length === 0}>
              {saving
                ? 'Correcting …'
                : wishes.length === 0
                  ? 'Correct'
                  : `Correct ${wishes.length} ${wishes.length === 1 ? 'value' : 'values'}`}
            </Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}
