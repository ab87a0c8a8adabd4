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
  const leave = async (out: boolean) => {
    await call('POST', `/campaigns/${campaign}/left-out`, { people, leftOut: out });
    await outreachChanged(client);
  };
  await leave(leftOut);
  did(words, { name: words, undo: () => leave(!leftOut), redo: () => leave(leftOut) });
}

/** Changes what a campaign asks. */
export async function changeCampaign(
  client: QueryClient,
  campaign: CampaignView,
  wish: CampaignChangeBody,
): Promise<void> {
  const change = async (to: CampaignChangeBody) => {
    await call<CampaignAnswer>('PATCH', `/campaigns/${campaign.id}`, to);
    await outreachChanged(client);
  };
  const before = Object.fromEntries(
    Object.keys(wish).map((key) => [key, campaign[key as keyof CampaignChangeBody]]),
  );
  await change(wish);
  record({ name: `changing ${campaign.name}`, undo: () => change(before), redo: () => change(wish) });
}

/** Changes a draft; taken back, its text is as it was. */
export async function changeMessage(
  client: QueryClient,
  message: MessageView,
  wish: MessageBody,
): Promise<MessageView> {
  const path = `/campaigns/${message.campaign}/messages/${message.person}`;
  const write = async (body: MessageBody, seen?: number) => {
    const answer = await call<{ message: MessageView }>(
      'PUT',
      path,
      body,
      undefined,
      seen === undefined ? undefined : String(seen),
    );
    await outreachChanged(client);
    return answer.message;
  };
  const written = await write(wish, message.version);
  const { subject, body, proof, trigger, template } = message;
  const before: MessageBody = message.edited
    ? { subject, body, proof, trigger }
    : { template: template ?? undefined, trigger, proof };
  record({
    name: `changing the message to ${message.name}`,
    tag: `message ${message.id} ${Object.keys(wish).sort().join()}`,
    undo: () => write(before),
    redo: () => write(wish),
  });
  return written;
}
