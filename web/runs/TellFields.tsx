import { useQuery } from '@tanstack/react-query';
import type { Rate } from '../../core/runs/kinds.ts';
import type { ProgramsAnswer } from '../../contract/program-views.ts';
import { call } from '../api.ts';

export const RATE_WORDS: Readonly<Record<Rate, string>> = {
  'at-once': 'at once',
  daily: 'once a day',
  weekly: 'once a week',
  never: 'never',
};

/** At which rate and in which ways one is told. */
export function TellFields({
  rate,
  ways,
  onRate,
  onWays,
}: {
  rate: Rate;
  ways: readonly string[];
  onRate(rate: Rate): void;
  onWays(ways: string[]): void;
}) {
  const { data } = useQuery({
    queryKey: ['programs'],
    queryFn: ({ signal }) => call<ProgramsAnswer>('GET', '/programs', undefined, signal),
  });
  const all = [
    { key: 'bell', label: 'the bell' },
    { key: 'mail', label: 'mail' },
    { key: 'feed', label: 'feed' },
    ...(data?.hooks ?? []).map(({ id, name }) => ({ key: id, label: `webhook ${name}` })),
  ];
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <select
        aria-label="How often"
        className="field py-1"
        value={rate}
        onChange={(event) => onRate(event.target.value as Rate)}
      >
        {Object.entries(RATE_WORDS).map(([key, label]) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
      {rate !== 'never' &&
        all.map(({ key, label }) => (
          <label key={key} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={ways.includes(key)}
              onChange={(event) =>
                onWays(event.target.checked ? [...ways, key] : ways.filter((way) => way !== key))
              }
            />
            {label}
          </label>
        ))}
    </div>
  );
}
