import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { PlanView, ScheduleBody, WhenAnswer } from '../../contract/runs.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Segments, Trouble } from '../ui/controls.tsx';
import { dayHere, timeWords } from './words.ts';

const HOWS = [
  { key: 'hand', label: 'by hand' },
  { key: 'once', label: 'once' },
  { key: 'repeats', label: 'again and again' },
  { key: 'after', label: 'after another' },
] as const;

/** Pause after the last letter before the next times are asked for. */
const PAUSE_MS = 250;

/** When something runs: words first, with the next five times below; the pattern of cron is behind "more". */
export function WhenField({
  value,
  onChange,
  others,
}: {
  value: ScheduleBody;
  onChange(value: ScheduleBody): void;
  /** Plans that it can run after. */
  others: readonly PlanView[];
}) {
  const [more, setMore] = useState(value.cron !== undefined);
  const zone = value.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const change = (part: Partial<ScheduleBody>) => onChange({ ...value, zone, ...part });
  return (
    <div className="flex flex-col gap-2">
      <Segments
        label="When"
        value={value.how}
        options={HOWS.filter(({ key }) => key !== 'after' || others.length > 0)}
        onChange={(how) =>
          change({ how, ...(how === 'after' && !value.plan ? { plan: others[0]!.key } : {}) })
        }
      />
      {(value.how === 'repeats' || value.how === 'hand') && (
        <input
          aria-label="When, in words"
          className="field"
          placeholder={
            value.how === 'hand' ? 'by hand; or say when, such as every Monday at 7' : 'every Monday at 7'
          }
          value={value.words ?? ''}
          disabled={more && value.how === 'repeats'}
          // Words say that it repeats, none that it is by hand.
          onChange={({ target: { value: words } }) =>
            change({ words, cron: undefined, how: words.trim() === '' ? 'hand' : 'repeats' })
          }
        />
      )}
      {value.how === 'once' && (
        <input
          aria-label="Day and time"
          type="datetime-local"
          className="field w-56"
          value={value.at ?? ''}
          onChange={(event) => change({ at: event.target.value })}
        />
      )}
      {value.how === 'after' && (
        <div className="flex gap-2">
          <select
            aria-label="After which"
            className="field min-w-0 flex-1"
            value={value.plan}
            onChange={(event) => change({ plan: event.target.value })}
          >
            {others.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
          <select
            aria-label="After what came of it"
            className="field"
            value={value.outcome ?? 'done'}
            onChange={(event) => change({ outcome: event.target.value as 'done' })}
          >
            <option value="done">where it was done</option>
            <option value="changed">where it changed something</option>
            <option value="any">whatever came of it</option>
          </select>
        </div>
      )}
      {(value.how === 'repeats' || value.how === 'once') && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
          <label className="flex items-center gap-1.5">
            if the program was off
            <select
              className="field py-0.5"
              value={value.missed ?? 'run'}
              onChange={(event) => change({ missed: event.target.value as 'run' })}
            >
              <option value="run">run once at its start</option>
              <option value="skip">leave it out</option>
            </select>
          </label>
          <label className="flex items-center gap-1.5">
            clock of
            <input
              className="field w-40 py-0.5"
              aria-label="Time zone"
              value={zone}
              onChange={(event) => onChange({ ...value, zone: event.target.value })}
            />
          </label>
          {value.how === 'repeats' && (
            <button
              type="button"
              className="text-soft underline underline-offset-4 hover:text-ink"
              aria-expanded={more}
              onClick={() => {
                if (more) change({ cron: undefined });
                setMore(!more);
              }}
            >
              {more ? 'words again' : 'more'}
            </button>
          )}
        </div>
      )}
      {value.how === 'repeats' && more && (
        <label className="flex items-center gap-2 text-[13px]">
          cron
          <input
            className="field figure w-48 py-0.5"
            placeholder="0 7 * * 1"
            value={value.cron ?? ''}
            onChange={(event) => change({ cron: event.target.value, words: undefined })}
          />
          <span className="text-soft">minute, hour, day, month, day of the week</span>
        </label>
      )}
      <NextTimes value={{ ...value, zone }} />
    </div>
  );
}

function NextTimes({ value }: { value: ScheduleBody }) {
  const format = useFormat();
  const settled = useSettled(value);
  const asked =
    settled.how === 'repeats'
      ? Boolean(settled.words ?? settled.cron)
      : settled.how === 'once' && Boolean(settled.at);
  const { data, error } = useQuery({
    queryKey: ['when', settled],
    queryFn: ({ signal }) => call<WhenAnswer>('POST', '/runs/when', settled, signal),
    enabled: asked,
    retry: false,
  });
  if (!asked) return null;
  if (error) return <Trouble error={error} />;
  return (
    <p className="text-[13px] text-soft" aria-live="polite">
      {data && (
        <>
          <span className="text-ink">{data.words}</span>
          {data.next.length > 0 ? ': next ' : ': never again'}
          {data.next.map((at, i) => (
            <span key={at}>
              {i > 0 && ', '}
              <span className="figure text-ink">
                {format.date(dayHere(at))} {timeWords(at)}
              </span>
            </span>
          ))}
        </>
      )}
    </p>
  );
}

/** A value once it has stayed the same for a moment. */
function useSettled<T>(value: T): T {
  const text = JSON.stringify(value);
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return JSON.parse(settled) as T;
}
