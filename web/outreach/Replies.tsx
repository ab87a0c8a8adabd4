import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ReplyChangeBody } from '../../contract/outreach.ts';
import type { ReplyView } from '../../contract/outreach-views.ts';
import { REPLY_KINDS, type ReplyKind } from '../../core/outreach/reply-kind.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd, Segments, Trouble } from '../ui/controls.tsx';
import { JobButton } from './JobButton.tsx';
import { asStep } from './acts.ts';
import { outreachChanged, useReplies, useWhere } from './use-outreach.ts';
import { REPLY_WORDS } from './words.ts';

/** What came back, in one place: sorted, with what it answers, and marked done. */
export function Replies({ outcomes }: { outcomes: number }) {
  const format = useFormat();
  const client = useQueryClient();
  const { campaign } = useWhere();
  const [kind, setKind] = useState<ReplyKind | ''>('');
  const [open, setOpen] = useState(false);
  const [current, setCurrent] = useState<number | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const { data, error } = useReplies(kind, campaign, open);
  const replies = data?.replies ?? [];
  const at = Math.max(
    0,
    replies.findIndex(({ id }) => id === current),
  );
  const here = replies[at];
  const attempt = (work: Promise<unknown>) => {
    work.catch((failure: Error) => toast.error(failure.message));
  };
  const change = async (reply: ReplyView, wish: ReplyChangeBody) => {
    const put = (to: ReplyChangeBody) => () => call('PATCH', `/outreach/replies/${reply.id}`, to);
    const before = Object.fromEntries(
      Object.keys(wish).map((key) => [key, reply[key as keyof ReplyChangeBody]]),
    );
    await asStep(client, { name: `marking the reply of ${reply.sender}` }, put(wish), put(before));
  };
  const move = (by: number) => {
    const next = replies[Math.max(0, Math.min(replies.length - 1, at + by))];
    if (next) setCurrent(next.id);
  };
  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('d', () => here && attempt(change(here, { done: !here.done })));
  useKey('v', () => here && attempt(change(here, { meeting: !here.meeting })));
  const take = async (chosen: File) => {
    const form = new FormData();
    form.append('file', chosen);
    const { reply } = await call<{ reply: ReplyView | null }>('POST', '/outreach/replies', form);
    await outreachChanged(client);
    if (reply) setCurrent(reply.id);
    else toast('That message is here already.');
  };
  const total = data ? REPLY_KINDS.reduce((sum, one) => sum + data.counts[one], 0) : 0;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 py-2 text-[13px]">
        <Segments
          label="Kind of reply"
          value={kind}
          onChange={(next) => {
            setKind(next);
            setCurrent(null);
          }}
          options={[
            { key: '', label: `all ${total}` },
            ...REPLY_KINDS.map((one) => ({
              key: one,
              label: `${REPLY_WORDS[one]} ${data?.counts[one] ?? 0}`,
            })),
          ]}
        />
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={open} onChange={(event) => setOpen(event.target.checked)} /> not
          done only
        </label>
        <input
          ref={file}
          type="file"
          accept=".eml,message/rfc822"
          className="sr-only"
          aria-label="A message that came, as a file"
          onChange={(event) => {
            const [chosen] = event.target.files ?? [];
            event.target.value = '';
            if (chosen) attempt(take(chosen));
          }}
        />
        <Button className="ml-auto" onClick={() => file.current?.click()}>
          Take in an .eml file
        </Button>
      </div>
      <Trouble error={error} />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-5">
        <ol aria-label="Replies" className="min-h-0 overflow-y-auto border-t border-edge">
          {data && replies.length === 0 && <li className="py-4 text-soft">Nothing came back yet.</li>}
          {replies.map((reply) => (
            <li key={reply.id} className="border-b border-rule">
              <button
                type="button"
                aria-current={reply === here || undefined}
                className={clsx(
                  'block w-full border-l-3 px-2 py-1.5 text-left',
                  reply === here ? 'border-ink bg-picked' : 'border-transparent hover:bg-paper',
                  reply.done && 'text-soft',
                )}
                onClick={() => setCurrent(reply.id)}
              >
                <span className="flex justify-between gap-2">
                  <strong className="truncate">{reply.message?.name ?? reply.sender}</strong>
                  <span className={clsx('text-[12px] whitespace-nowrap', toneOf(reply.kind))}>
                    {REPLY_WORDS[reply.kind]}
                    {reply.done && ', done'}
                  </span>
                </span>
                <span className="block truncate text-[12px] text-soft">
                  {reply.message?.companyName ?? reply.subject}
                </span>
              </button>
            </li>
          ))}
        </ol>
        {here && (
          <article
            aria-label={`Reply of ${here.message?.name ?? here.sender}`}
            className="min-h-0 overflow-y-auto pb-4"
          >
            <div className="rounded-md border border-edge bg-paper">
              <p className="flex justify-between gap-3 border-b border-rule px-4 py-1.5 text-[13px]">
                <span className="min-w-0 truncate">
                  <span className="text-soft">from</span> <strong>{here.sender}</strong>
                </span>
                <span className="figure whitespace-nowrap text-soft">
                  {format.date(here.at.slice(0, 10))}
                </span>
              </p>
              <p className="border-b border-rule px-4 py-1.5 font-semibold">{here.subject}</p>
              <p className="px-4 py-3 break-words whitespace-pre-wrap">{here.body}</p>
              {here.kind === 'out-of-office' && (
                <p className="border-t border-rule px-4 py-1.5 text-[13px]">
                  {here.backOn ? `back on ${format.date(here.backOn)}` : 'does not say when they are back'}
                </p>
              )}
            </div>
            <div className="flex flex-wrap items-center gap-2 py-2 text-[13px]">
              <Button onClick={() => attempt(change(here, { done: !here.done }))}>
                {here.done ? 'Not done' : 'Done'} <Kbd>D</Kbd>
              </Button>
              <Button
                aria-pressed={here.meeting}
                onClick={() => attempt(change(here, { meeting: !here.meeting }))}
              >
                {here.meeting ? 'No meeting' : 'Leads to a meeting'} <Kbd>V</Kbd>
              </Button>
              <label className="ml-auto flex items-center gap-2 text-soft">
                It is
                <select
                  className="field py-0.5 text-ink"
                  value={here.kind}
                  onChange={(event) => attempt(change(here, { kind: event.target.value as ReplyKind }))}
                >
                  {REPLY_KINDS.map((one) => (
                    <option key={one} value={one}>
                      {REPLY_WORDS[one]}
                    </option>
                  ))}
                </select>
              </label>
            </div>
            {here.message && (
              <section
                aria-label="What it answers"
                className="border-l-2 border-edge pl-3 text-[13px] text-soft"
              >
                <p>
                  {here.message.campaignName}
                  {here.message.sentAt && `, ${format.date(here.message.sentAt.slice(0, 10))}`}
                  {here.message.putBy && `, by ${here.message.putBy}`}
                </p>
                <p className="font-semibold">{here.message.subject}</p>
                <p className="whitespace-pre-wrap">{here.message.body}</p>
              </section>
            )}
          </article>
        )}
      </div>
      {outcomes > 0 && <Learn outcomes={outcomes} />}
    </div>
  );
}

/** Takes what came back into the universe: addresses that failed teach the patterns too. */
function Learn({ outcomes }: { outcomes: number }) {
  const format = useFormat();
  const client = useQueryClient();
  return (
    <footer className="flex items-center gap-3 border-t border-edge py-2 text-[13px]">
      <span>
        <span className="figure font-semibold">{format.number(outcomes)}</span>{' '}
        {outcomes === 1 ? 'address is' : 'addresses are'} better known by what came back.
      </span>
      <JobButton
        path="/outreach/addresses"
        label="Take it in: addresses and events"
        onDone={({ events }) => {
          void client.invalidateQueries();
          toast(
            `Addresses are made anew${typeof events === 'number' && events > 0 ? `; ${format.number(events)} ${events === 1 ? 'answer is an event' : 'answers are events'} now` : ''}`,
          );
        }}
      />
    </footer>
  );
}

function toneOf(kind: ReplyKind): string {
  return kind === 'answered' ? 'text-kept' : kind === 'out-of-office' ? 'text-unsure' : 'text-cut';
}
