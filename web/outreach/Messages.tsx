import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { CampaignAnswer, OutreachAnswer, ProofView } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { changeMessage, leaveOut } from './acts.ts';
import { DraftEditor, textId } from './DraftEditor.tsx';
import { PersonFacts } from './PersonFacts.tsx';
import { ProofDialog } from './ProofDialog.tsx';
import { ProofTable } from './ProofTable.tsx';
import { outreachChanged, useWhere, useWriting } from './use-outreach.ts';

const PROOF_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;

/** One person at a time: what we know on the left, the message on the right, proofs below. */
export function Messages({ data, outreach }: { data: CampaignAnswer; outreach: OutreachAnswer }) {
  const format = useFormat();
  const client = useQueryClient();
  const { person: wished, go } = useWhere();
  const [editing, setEditing] = useState<ProofView | 'new' | null>(null);
  const { campaign } = data;
  // Those who go out today; somebody else who was asked for stands alone.
  const order = wished !== null && !data.today.includes(wished) ? [wished, ...data.today] : data.today;
  const person = wished ?? order[0] ?? null;
  const at = person === null ? -1 : order.indexOf(person);
  const { data: writing, error } = useWriting(campaign.id, person);
  const here = writing?.message.person === person ? writing : undefined;
  const message = here?.message;

  const unseen = message?.state === 'draft' && !message.seen ? message.person : null;
  useEffect(() => {
    if (unseen === null) return;
    call('POST', `/campaigns/${campaign.id}/seen`, { people: [unseen] })
      .then(() => outreachChanged(client))
      .catch((failure: Error) => toast.error(failure.message));
  }, [unseen, campaign.id, client]);

  // Whoever is being written to stays, also where the message does not go out today any more.
  useEffect(() => {
    if (wished === null && person !== null) go({ person }, true);
  });

  const move = (step: number) => {
    const next = order[Math.max(0, Math.min(order.length - 1, at + step))];
    if (next !== undefined) go({ person: next }, true);
  };
  const attempt = (work: Promise<unknown>) => {
    work.catch((failure: Error) => toast.error(failure.message));
  };
  const choose = (id: string | null) => {
    if (message?.state === 'draft') attempt(changeMessage(client, message, { proof: id }));
  };
  const out = () => {
    if (message?.state !== 'draft') return;
    const next = order[at + 1] ?? order[at - 1] ?? null;
    go({ person: next }, true);
    attempt(leaveOut(client, campaign.id, [message.person], true, `Left out ${message.name}`));
  };
  const write = () => {
    if (message) document.getElementById(textId(message))?.focus();
  };
  const byKey = (nth: number) => {
    const proof = here?.proofs[nth];
    if (proof) choose(proof.id === message?.proof ? null : proof.id);
  };
  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('e', () => write());
  useKey('0', out);
  for (const [nth, key] of PROOF_KEYS.entries())
    // eslint-disable-next-line react-hooks/rules-of-hooks -- the keys are always the same nine
    useKey(key, () => byKey(nth));

  if (person === null)
    return (
      <p className="py-6 text-soft">
        Nobody of this campaign goes out today. The roll says why; a figure there opens those it took off.
      </p>
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-center justify-end gap-1 py-1 text-[13px]">
        <span className="mr-2">
          <span className="figure">{format.number(at + 1)}</span> of{' '}
          <span className="figure">{format.number(order.length)}</span>
        </span>
        <Button look="quiet" disabled={at <= 0} onClick={() => move(-1)}>
          previous <Kbd>k</Kbd>
        </Button>
        <Button look="quiet" disabled={at >= order.length - 1} onClick={() => move(1)}>
          next <Kbd>j</Kbd>
        </Button>
      </div>
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-3">
        {here && message ? (
          <>
            <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,8fr)] items-start gap-6 pl-2.5 max-[1120px]:grid-cols-1">
              <PersonFacts data={here} />
              <DraftEditor key={message.id} message={message} campaign={campaign} outreach={outreach} />
            </div>
            <ProofTable
              proofs={here.proofs}
              chosen={message.proof}
              fixed={message.state !== 'draft'}
              onChoose={choose}
              onEdit={setEditing}
            />
          </>
        ) : (
          !error && <p className="py-4 text-soft">Opening …</p>
        )}
      </div>
      <footer className="flex items-center gap-4 border-t border-edge py-2 text-[13px]">
        <span>
          <span className="figure font-semibold">{format.number(data.seen)}</span> looked at
        </span>
        <Button look="quiet" disabled={message?.state !== 'draft'} onClick={() => write()}>
          Write <Kbd>e</Kbd>
        </Button>
        <Button look="quiet" disabled={message?.state !== 'draft'} onClick={out}>
          Leave out <Kbd>0</Kbd>
        </Button>
        <span className="ml-auto text-soft">
          goes out through{' '}
          <strong className="text-ink">
            {outreach.outbox.through.own ? outreach.outbox.through.host : 'the stand-in on this machine'}
          </strong>
        </span>
      </footer>
      {editing && <ProofDialog proof={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </div>
  );
}
