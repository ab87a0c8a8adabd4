import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { MatchAnswer } from '../../../contract/matches.ts';
import { said } from '../../app/history.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { FIELD_WORDS } from './marks.tsx';
import { settle } from './use-match.ts';

/** Doubtful rows of one candidate each that agree in the same fields, to be taken in one act. */
export function Together({ answer: { match, together } }: { answer: MatchAnswer }) {
  const format = useFormat();
  const client = useQueryClient();
  const [trouble, setTrouble] = useState<Error | null>(null);
  if (!together) return null;
  const { fields, rows } = together;
  const words = fields.map((field) => FIELD_WORDS[field].toLowerCase());
  const all = words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0];
  const take = () =>
    settle(
      client,
      match,
      rows.map(({ row, key }) => ({ row, key, as: 'taken' as const })),
      `settling ${rows.length} rows together`,
    ).then(
      () => said(`${format.number(rows.length)} rows are settled: each has its one candidate.`),
      setTrouble,
    );
  return (
    <div className="border-b border-rule py-2">
      <p className="flex items-center gap-3">
        <span>
          <span className="figure font-semibold">{format.number(rows.length)}</span> of the{' '}
          <span className="figure font-semibold">{format.number(match.doubtful)}</span> left have one
          candidate with the same {all}.
        </span>
        <Button className="ml-auto" onClick={() => void take()}>
          Take all {format.number(rows.length)}
        </Button>
      </p>
      <Trouble error={trouble} />
    </div>
  );
}
