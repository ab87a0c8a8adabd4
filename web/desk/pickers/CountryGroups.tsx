import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { PlaceCounts } from '../../../contract/responses.ts';
import { foldedWords } from '../../../core/text/fold.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';

/** Ready and own groups of countries, and keeping those picked as a group of one's own. */
export function CountryGroups({
  groups,
  picked,
  onToggle,
}: {
  groups: PlaceCounts['groups'];
  picked: readonly string[];
  onToggle(key: string): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const countries = picked.filter((key) => /^[A-Z]{2}$/.test(key));
  const keep = async () => {
    try {
      const key = foldedWords(name).join('-');
      await call('PUT', `/country-groups/${encodeURIComponent(key)}`, { label: name.trim(), countries });
      await client.invalidateQueries({ queryKey: ['counts'] });
      setName('');
      setError(null);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <div className="pb-2">
      <p className="flex flex-wrap items-center gap-1.5 text-[13px]">
        <span className="text-soft">groups:</span>
        {groups.map((group) => (
          <Button
            key={group.key}
            look={picked.includes(group.key) ? 'ink' : 'plain'}
            className="px-2 py-0.5"
            aria-pressed={picked.includes(group.key)}
            title={group.countries.join(' ')}
            onClick={() => onToggle(group.key)}
          >
            {group.label} <span className="figure">{format.number(group.count)}</span>
          </Button>
        ))}
      </p>
      {countries.length > 1 && (
        <form
          className="mt-2 flex items-center gap-2 text-[13px]"
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <label className="flex items-center gap-2">
            keep these {countries.length} as a group named
            <input
              value={name}
              onChange={(event) => setName(event.target.value)}
              maxLength={80}
              className="field py-1"
            />
          </label>
          <Button type="submit" disabled={foldedWords(name).join('-').length < 3}>
            Keep
          </Button>
        </form>
      )}
      <Trouble error={error} />
    </div>
  );
}
