import type { QueryClient } from '@tanstack/react-query';
import type { CampaignChangeBody, MessageBody } from '../../contract/outreach.ts';
import type {
  CampaignAnswer,
  CampaignView,
  MessageView,
  OutboxAnswer,
  PutOutAnswer,
} from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { did, record } from '../app/history.ts';
import { outreachChanged } from './use-outreach.ts';

/** What is done in Outreach, each as a step that can be taken back until a message has gone. */

/**
 * Does something, and notes it as a step before anything is read anew: Ctrl Z takes it back from the moment it is done. What is
 * refused is no step.
 */
export async function asStep<T>(
  client: QueryClient,
  step: { name: string; tag?: string; said?: string },
  to: () => Promise<T>,
  back: () => Promise<unknown>,
): Promise<T> {
  const answer = await to();
  const anew = (work: () => Promise<unknown>) => async () => {
    await work();
    await outreachChanged(client);
  };
  const { said, ...named } = step;
  const taken = { ...named, undo: anew(back), redo: anew(to) };
  if (said === undefined) record(taken);
  else did(said, taken);
  await outreachChanged(client);
  return answer;
}

/** Puts in the outbox who goes out today and was looked at; returns how many. */
export async function putInOutbox(
  client: QueryClient,
  { id, name }: Pick<CampaignView, 'id' | 'name'>,
  people?: readonly string[],
): Promise<number> {
  const put = () => call<PutOutAnswer>('POST', `/campaigns/${id}/outbox`, people ? { people } : {});
  let { put: numbers } = await put();
  if (numbers.length)
    did(`${numbers.length} ${numbers.length === 1 ? 'message' : 'messages'} in the outbox`, {
      name: `putting ${numbers.length} of ${name} in the outbox`,
      undo: async () => {
        const { taken } = await cancel(client, numbers);
        if (taken.length < numbers.length)
          throw new Error(
            taken.length === 0
              ? 'They have gone already.'
              : `${numbers.length - taken.length} of ${numbers.length} have gone already.`,
          );
      },
      redo: async () => {
        ({ put: numbers } = await put());
        await outreachChanged(client);
      },
    });
  await outreachChanged(client);
  return numbers.length;
}

export async function cancel(
  client: QueryClient,
  messages: readonly number[],
): Promise<OutboxAnswer & { taken: number[] }> {
  const answer = await call<OutboxAnswer & { taken: number[] }>('POST', '/outreach/outbox/cancel', {
    messages,
  });
  await outreachChanged(client);
  return answer;
}

/** Leaves people out of a campaign, or takes them in again. */
export async function leaveOut(
  client: QueryClient,
  campaign: string,
  people: readonly string[],
  leftOut: boolean,
  words: string,
): Promise<void> {
  const leave = (out: boolean) => () =>
    call('POST', `/campaigns/${campaign}/left-out`, { people, leftOut: out });
  await asStep(client, { name: words, said: words }, leave(leftOut), leave(!leftOut));
}

/** Changes what a campaign asks. */
export async function changeCampaign(
  client: QueryClient,
  campaign: CampaignView,
  wish: CampaignChangeBody,
): Promise<void> {
  const change = (to: CampaignChangeBody) => () =>
    call<CampaignAnswer>('PATCH', `/campaigns/${campaign.id}`, to);
  const before = Object.fromEntries(
    Object.keys(wish).map((key) => [key, campaign[key as keyof CampaignChangeBody]]),
  );
  await asStep(client, { name: `changing ${campaign.name}` }, change(wish), change(before));
}

/** Changes a draft; taken back, its text is as it was. */
export async function changeMessage(
  client: QueryClient,
  message: MessageView,
  wish: MessageBody,
): Promise<MessageView> {
  const path = `/campaigns/${message.campaign}/messages/${message.person}`;
  const write = (body: MessageBody, seen?: number) =>
    call<{ message: MessageView }>(
      'PUT',
      path,
      body,
      undefined,
      seen === undefined ? undefined : String(seen),
    );
  const { subject, body, proof, trigger, template } = message;
  const before: MessageBody = message.edited
    ? { subject, body, proof, trigger }
    : { template: template ?? undefined, trigger, proof };
  // Only the first time there may be another's change that was not seen.
  let seen: number | undefined = message.version;
  const { message: written } = await asStep(
    client,
    {
      name: `changing the message to ${message.name}`,
      tag: `message ${message.id} ${Object.keys(wish).sort().join()}`,
    },
    () => {
      const version = seen;
      seen = undefined;
      return write(wish, version);
    },
    () => write(before),
  );
  return written;
}
