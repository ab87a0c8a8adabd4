import { useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type { MessageView, OutboxAnswer } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did } from '../app/history.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { cancel } from './acts.ts';
import { outreachChanged, useOutbox, useWhere } from './use-outreach.ts';

/** Until a heading is clicked they stand in the order in which they are due. */
type SortBy = 'due' | 'name' | 'mail' | 'subject' | 'campaignName' | 'putBy';

const HEADS: readonly { by: SortBy; label: string }[] = [
  { by: 'name', label: 'To' },
  { by: 'mail', label: 'Address' },
  { by: 'subject', label: 'Subject' },
  { by: 'campaignName', label: 'Campaign' },
  { by: 'putBy', label: 'Put by' },
];

/** What waits to go out: when, through what, and the way back until it has gone. */
export function Outbox() {
  const format = useFormat();
  const client = useQueryClient();
  const { go } = useWhere();
  const { data, error } = useOutbox();
  const { sorted, order, setOrder } = useOrder<SortBy, MessageView & { due: number }>(
    (data?.messages ?? []).map((message, due) => ({ ...message, due })),
    { by: 'due', descending: false },
  );
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="py-4 text-soft">Opening …</p>;
  const { state, messages } = data;
  const pause = async (paused: boolean) => {
    const put = async (to: boolean) => {
      await call<OutboxAnswer>('POST', '/outreach/outbox/pause', { paused: to });
      await outreachChanged(client);
    };
    await put(paused);
    did(paused ? 'The outbox stands still' : 'The outbox goes on', {
      name: paused ? 'stopping the outbox' : 'letting the outbox go on',
      undo: () => put(!paused),
      redo: () => put(paused),
    });
  };
  const attempt = (work: Promise<unknown>) => {
    work.catch((failure: Error) => toast.error(failure.message));
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2 text-[13px]">
        <span>
          <span className="figure text-xl font-semibold">{format.number(state.waiting)}</span> wait
        </span>
        <span>
          today <span className="figure font-semibold">{format.number(state.today)}</span> of{' '}
          <span className="figure">{format.number(state.daily)}</span> went
        </span>
        <span className="text-soft">
          {state.paused
            ? 'stands still'
            : state.next === null
              ? 'nothing is due'
              : `next ${whenOf(state.next, format.date)}`}
        </span>
        <span className="text-soft">
          through {state.through.own ? state.through.host : 'the stand-in on this machine, to .example alone'}
        </span>
        <span className="ml-auto flex gap-2">
          <Button onClick={() => attempt(pause(!state.paused))}>{state.paused ? 'Go on' : 'Stop'}</Button>
          <Button
            disabled={messages.length === 0}
            onClick={() =>
              attempt(
                cancel(
                  client,
                  messages.map(({ id }) => id),
                ).then(({ taken }) => toast(`${taken.length} taken back; they are drafts again`)),
              )
            }
          >
            Take all back
          </Button>
        </span>
      </div>
      {state.trouble && (
        <p role="alert" className="my-2 rounded-md border border-cut bg-wash px-3 py-2 text-[13px]">
          {state.trouble}
        </p>
      )}
      <div className="min-h-0 flex-1 overflow-y-auto">
        {messages.length === 0 ? (
          <p className="py-6 text-soft">
            Nothing waits. What is put in the outbox stands here until it has gone.
          </p>
        ) : (
          <table className="w-full text-[13px]" aria-label="Waiting messages">
            <thead className="border-b border-edge text-[12px]">
              <tr>
                {HEADS.map(({ by, label }) => (
                  <SortHead key={by} by={by} label={label} text order={order} onOrder={setOrder} />
                ))}
                <th>
                  <span className="sr-only">Take back</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sorted.map((message) => (
                <tr key={message.id} className="border-b border-rule">
                  <td className="py-1 pr-4">
                    <button
                      type="button"
                      className="font-semibold hover:underline"
                      onClick={() =>
                        go({ tab: 'messages', campaign: message.campaign, person: message.person })
                      }
                    >
                      {message.name}
                    </button>{' '}
                    <span className="text-soft">{message.companyName}</span>
                  </td>
                  <td className="pr-4">{message.mail}</td>
                  <td className="max-w-56 truncate pr-4">{message.subject}</td>
                  <td className="pr-4 text-soft">{message.campaignName}</td>
                  <td className="pr-4 text-soft">
                    {message.putBy}
                    {message.trouble && <span className="block text-cut">{message.trouble}</span>}
                  </td>
                  <td className="text-right">
                    <Button
                      look="quiet"
                      disabled={message.state === 'sending'}
                      aria-label={`Take back the message to ${message.name}`}
                      onClick={() => attempt(cancel(client, [message.id]))}
                    >
                      take back
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {state.waiting > messages.length && messages.length > 0 && (
          <p className="py-2 text-[13px] text-soft">
            the first {format.number(messages.length)} of {format.number(state.waiting)}
          </p>
        )}
      </div>
    </div>
  );
}

/** "today at 14:05", "30 Nov 2026 at 08:00". */
function whenOf(iso: string, date: (day: string) => string): string {
  const at = new Date(iso);
  const clock = `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
  if (at.getTime() - Date.now() < 60_000) return 'at once';
  const today = at.toDateString() === new Date().toDateString();
  return today ? `today at ${clock}` : `${date(iso.slice(0, 10))} at ${clock}`;
}
