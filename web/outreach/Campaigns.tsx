import { useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { Link } from 'react-router';
import type { CampaignView } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { useState } from 'react';
import { outreachChanged, useWhere } from './use-outreach.ts';

type By = 'name' | 'people' | 'sent' | 'replies' | 'madeAt';
type Row = Pick<CampaignView, By | 'id' | 'what' | 'outbox'>;

/** All campaigns, each with how far it is. */
export function Campaigns({ campaigns }: { campaigns: readonly CampaignView[] }) {
  const format = useFormat();
  const client = useQueryClient();
  const { go } = useWhere();
  const [current, setCurrent] = useState<string | null>(null);
  const { sorted, order, setOrder } = useOrder<By, Row>(
    campaigns.map(({ id, name, what, people, outbox, sent, replies, madeAt }) => ({
      ...{ id, name, what, people, outbox, sent, replies, madeAt },
    })),
    { by: 'madeAt', descending: true },
  );
  const at = Math.max(
    0,
    sorted.findIndex(({ id }) => id === current),
  );
  const here = sorted[at];
  const open = (id: string) => go({ campaign: id, tab: 'people', step: 'chosen' });
  const move = (by: number) => {
    const next = sorted[Math.max(0, Math.min(sorted.length - 1, at + by))];
    if (next) setCurrent(next.id);
  };
  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('arrowdown', () => move(1));
  useKey('arrowup', () => move(-1));
  useKey('enter', () => here && open(here.id));
  const remove = async ({ id, name }: { id: string; name: string }) => {
    try {
      await call('DELETE', `/campaigns/${id}`);
      await outreachChanged(client);
      toast(`Removed ${name} with its drafts`);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  if (campaigns.length === 0)
    return (
      <p className="mt-8 max-w-xl rounded-lg border border-dashed border-edge p-8 text-soft">
        Nobody is written to yet. On the{' '}
        <Link to="/desk" className="text-ink underline">
          Desk
        </Link>
        , a tape or list of people, or of companies, becomes a campaign with <Kbd>L</Kbd>: each person gets a
        draft, and nothing goes out before it was looked at.
      </p>
    );
  return (
    <table className="mt-2 w-full" aria-label="Campaigns">
      <thead className="border-b border-edge text-[12px]">
        <tr>
          <SortHead by="name" label="Campaign" order={order} onOrder={setOrder} />
          <SortHead by="people" label="People" order={order} onOrder={setOrder} right />
          <SortHead by="sent" label="Sent" order={order} onOrder={setOrder} right />
          <SortHead by="replies" label="Replies" order={order} onOrder={setOrder} right />
          <SortHead by="madeAt" label="Made" order={order} onOrder={setOrder} />
          <th>
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map((one) => (
          <tr
            key={one.id}
            aria-selected={one === here}
            className={`border-b border-rule ${one === here ? 'bg-picked' : 'hover:bg-paper'}`}
            onClick={() => setCurrent(one.id)}
          >
            <td className="max-w-0 py-1.5 pr-4 pl-2" style={{ width: '50%' }}>
              <button
                type="button"
                className="block max-w-full truncate text-left font-semibold hover:underline"
                onClick={() => open(one.id)}
              >
                {one.name}
              </button>
              <span className="block truncate text-[12px] text-soft">{one.what}</span>
            </td>
            <td className="figure pr-5 text-right">{format.number(one.people)}</td>
            <td className="figure pr-5 text-right">
              {format.number(one.sent)}
              {one.outbox > 0 && <span className="text-soft"> +{format.number(one.outbox)}</span>}
            </td>
            <td className="figure pr-5 text-right">{format.number(one.replies)}</td>
            <td className="text-[13px] whitespace-nowrap">{format.date(one.madeAt.slice(0, 10))}</td>
            <td className="text-right">
              {one.sent + one.outbox === 0 && (
                <Button look="quiet" aria-label={`Remove ${one.name}`} onClick={() => void remove(one)}>
                  Remove
                </Button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
