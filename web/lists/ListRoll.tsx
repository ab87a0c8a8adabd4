import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { ListView } from '../../contract/lists.ts';
import type { WordedTally } from '../../contract/responses.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import type { ListTest } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { countedPart } from '../desk/queries.ts';
import { WatchButton } from '../runs/WatchButton.tsx';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';
import { AgainstTape } from './AgainstTape.tsx';
import { useOpenList } from './open-list.ts';
import { WebsitesOfList } from './WebsitesOfList.tsx';
import { tapeOfList, useRoll } from './use-lists.ts';

/** The paper of the Lists place: how the selected list came to its members, and how they were judged. */
export function ListRoll({
  list,
  onCombine,
  onExport,
  onPut,
  onWrite,
  onVisit,
}: {
  list: ListView | null;
  onCombine(): void;
  onExport(list: ListView): void;
  onPut(list: ListView): void;
  onWrite(list: ListView): void;
  onVisit(list: ListView): void;
}) {
  const format = useFormat();
  const open = useOpenList();
  const navigate = useNavigate();
  const { data, error } = useRoll(list?.key ?? null);
  if (!list)
    return (
      <Roll title="No list selected" steps={[]} foot={{ label: 'members', total: 0 }}>
        <p className="text-[13px] text-soft">Select a list to see how it came to its members.</p>
      </Roll>
    );
  const { many } = SUBJECTS.get(list.subject)!;
  const steps = (data?.list.key === list.key ? data.roll.steps : []).map(
    ({ step, label, note, delta, total }) => ({
      key: step,
      label,
      delta,
      total,
      note: note.replace(/\d{4}-\d{2}-\d{2}/, format.date),
      onOpen: () => open(list, { step }),
    }),
  );
  return (
    <Roll
      title={list.name}
      about={
        <>
          {many}, put together{list.owner ? ` by ${list.owner}` : ''} since{' '}
          {format.date(list.madeAt.slice(0, 10))}
          {list.purpose && <span className="block text-ink">{list.purpose}</span>}
          {list.stays && <span className="block">Its members follow other lists.</span>}
          {list.frozen && <span className="block">Frozen: members neither come nor go.</span>}
        </>
      }
      steps={steps}
      below={
        <>
          <Trouble error={error} />
          <Verdicts list={list} reasons={data?.reasons ?? []} onOpen={(more) => open(list, more)} />
          <AgainstTape key={list.key} list={list} />
          {list.subject === 'companies' && list.members > 0 && (
            <WebsitesOfList key={`${list.key} websites`} list={list} />
          )}
        </>
      }
      foot={{ label: 'members', total: list.members }}
      note={<OfMembers list={list} />}
    >
      <Button look="ink" className="px-2" onClick={() => open(list)}>
        Open on the Desk
      </Button>
      <Button className="px-2" onClick={onCombine}>
        Combine <Kbd>C</Kbd>
      </Button>
      <Button className="px-2" onClick={() => onExport(list)} disabled={list.members === 0}>
        Export <Kbd>X</Kbd>
      </Button>
      <Button className="px-2" onClick={() => onPut(list)} disabled={list.members === 0}>
        Put on a list <Kbd>S</Kbd>
      </Button>
      {(list.subject === 'people' || list.subject === 'companies') && (
        <Button className="px-2" onClick={() => onWrite(list)} disabled={list.members === 0}>
          Write to them <Kbd>L</Kbd>
        </Button>
      )}
      {(list.subject === 'people' || list.subject === 'companies') && (
        <WatchButton className="px-2" of={{ subject: 'lists', key: list.key, name: list.name }} />
      )}
      {(list.subject === 'people' || list.subject === 'companies') && (
        <Button
          className="px-2"
          onClick={() => void navigate(`/lists/${encodeURIComponent(list.key)}/calls`)}
          disabled={list.members === 0}
        >
          Call them
        </Button>
      )}
      {list.subject === 'companies' && (
        <Button className="px-2" onClick={() => onVisit(list)} disabled={list.members === 0}>
          Visit them
        </Button>
      )}
    </Roll>
  );
}

/** Of the members, those that exports leave out, and those that the universe does not have any more. */
function OfMembers({ list }: { list: ListView }) {
  const format = useFormat();
  const tape = countedPart(tapeOfList(list));
  const { data } = useQuery({
    queryKey: ['tally', tape],
    queryFn: ({ signal }) => call<WordedTally>('POST', '/tally', { tape }, signal),
    retry: false,
  });
  if (list.suppression)
    return (
      <span className="text-cut">
        kept off every export
        {list.addresses > 0 && (
          <>
            , and whoever has one of <span className="figure">{format.number(list.addresses)}</span>{' '}
            {list.addresses === 1 ? 'address' : 'addresses'}
          </>
        )}
      </span>
    );
  const gone = data ? list.members - data.tally : 0;
  return (
    <>
      {data !== undefined && data.suppressed > 0 && (
        <p className="text-cut">
          <span className="figure">{format.number(data.suppressed)}</span>{' '}
          {data.suppressed === 1 ? 'is' : 'are'} kept off exports
        </p>
      )}
      {gone > 0 && (
        <p>
          <span className="figure">{format.number(gone)}</span> {gone === 1 ? 'is' : 'are'} not in the
          universe now
        </p>
      )}
    </>
  );
}

/** How the members were judged; every figure opens those members. */
export function Verdicts({
  list,
  reasons,
  onOpen,
}: {
  list: ListView;
  reasons: readonly { reason: string; count: number }[];
  onOpen(more: Omit<ListTest, 'any'>): void;
}) {
  const format = useFormat();
  const { members, judgedIn, judgedOut, unsure, notJudged } = list;
  const rows = [
    { verdict: 'in', label: 'In', count: judgedIn, look: 'bg-kept', text: 'text-kept', from: 0 },
    { verdict: 'out', label: 'Out', count: judgedOut, look: 'hatched', text: 'text-cut', from: judgedIn },
    {
      verdict: 'unsure',
      label: 'Unsure',
      count: unsure,
      look: 'unsure-bar',
      text: 'text-unsure',
      from: judgedIn + judgedOut,
    },
    {
      verdict: 'not-judged',
      label: 'Not judged',
      count: notJudged,
      look: 'border border-edge',
      text: '',
      from: members - notJudged,
    },
  ] as const;
  const percent = (count: number) => `${(100 * count) / Math.max(1, members)}%`;
  return (
    <ul aria-label="Verdicts" className="border-t border-edge">
      {rows.map(({ verdict, label, count, look, text, from }) => (
        <li key={verdict} className="border-b border-dashed border-edge/70 py-1.5 pr-4 pl-10">
          <div className="flex items-baseline justify-between gap-3">
            <span className={`font-semibold ${text}`}>{label}</span>
            <button
              type="button"
              className="figure text-[15px] font-semibold enabled:hover:underline"
              disabled={count === 0}
              title="See these on the Desk"
              onClick={() => onOpen({ verdict: [verdict] })}
            >
              {format.number(count)}
            </button>
          </div>
          {verdict === 'out' && reasons.length > 0 && (
            <ul aria-label="Out by reason" className="ml-1 border-l-2 border-rule pl-3 text-[13px]">
              {reasons.map(({ reason, count: own }) => (
                <li key={reason} className="flex justify-between">
                  {reason}
                  <button
                    type="button"
                    className="figure text-cut underline underline-offset-4"
                    title="See these on the Desk"
                    onClick={() => onOpen({ verdict: ['out'], reason: [reason] })}
                  >
                    {format.number(own)}
                  </button>
                </li>
              ))}
            </ul>
          )}
          <div className="relative mt-1 h-2" aria-hidden="true">
            <div className="absolute top-1 w-full border-t border-rule" />
            <div className={`absolute h-2 ${look}`} style={{ left: percent(from), width: percent(count) }} />
          </div>
        </li>
      ))}
    </ul>
  );
}
