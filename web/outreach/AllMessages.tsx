import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import type { CampaignAnswer, OutreachAnswer } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { Button } from '../ui/controls.tsx';
import { DraftEditor } from './DraftEditor.tsx';
import { outreachChanged, useWhere, useWriting } from './use-outreach.ts';

/** All messages that go out today, below each other; one that has been on the screen was looked at. */
export function AllMessages({ data, outreach }: { data: CampaignAnswer; outreach: OutreachAnswer }) {
  const { go } = useWhere();
  return (
    <div className="min-h-0 flex-1 overflow-y-auto py-3">
      <p className="pb-2 text-[13px] text-soft">
        All that goes out today. What has been on the screen counts as looked at.{' '}
        <Button look="quiet" className="underline" onClick={() => go({ step: 'chosen' })}>
          One at a time
        </Button>
      </p>
      <ol className="space-y-3" aria-label="Messages that go out today">
        {data.today.map((person) => (
          <li key={person} className="mx-auto min-h-40 max-w-2xl">
            <OneMessage person={person} data={data} outreach={outreach} />
          </li>
        ))}
      </ol>
    </div>
  );
}

function OneMessage({
  person,
  data,
  outreach,
}: {
  person: string;
  data: CampaignAnswer;
  outreach: OutreachAnswer;
}) {
  const client = useQueryClient();
  const box = useRef<HTMLDivElement>(null);
  const { id } = data.campaign;
  const { data: writing } = useWriting(id, person);
  const message = writing?.message;
  const unseen = message !== undefined && !message.seen && message.state === 'draft';
  useEffect(() => {
    if (!unseen || !box.current) return;
    const watcher = new IntersectionObserver(
      ([entry]) => {
        if (!entry!.isIntersecting) return;
        watcher.disconnect();
        call('POST', `/campaigns/${id}/seen`, { people: [person] })
          .then(() => outreachChanged(client))
          .catch((error: Error) => toast.error(error.message));
      },
      { threshold: 0.6 },
    );
    watcher.observe(box.current);
    return () => watcher.disconnect();
  }, [unseen, id, person, client]);
  return (
    <div ref={box}>
      {message ? (
        <DraftEditor key={message.id} message={message} campaign={data.campaign} outreach={outreach} />
      ) : (
        <p className="py-4 text-soft">Opening …</p>
      )}
    </div>
  );
}
