import type { QueryClient } from '@tanstack/react-query';
import type {
  AddedAnswer,
  DescribedAnswer,
  JudgedAnswer,
  ListView,
  TakenAnswer,
} from '../../contract/lists.ts';
import type { Combination } from '../../core/lists/combine.ts';
import type { ListVerdict } from '../../core/tape/nodes.ts';
import { toast } from 'sonner';
import { call } from '../api.ts';
import { record, said } from '../app/history.ts';
import { wishOf, type Acted } from '../desk/acted.ts';
import { notePut } from '../desk/putting.ts';

/** What is done to lists, each as a step that can be taken back. */

const path = (list: string) => `/lists/${encodeURIComponent(list)}`;

/** What does not depend on lists: the rest is asked anew once one changed. */
const APART = new Set([
  'settings',
  'company',
  'record',
  'standing',
  'note',
  'health',
  'sources',
  'fields',
  'cities',
]);

/** Asks anew for all that lists have a part in. */
export function listsChanged(client: QueryClient): Promise<void> {
  return client.invalidateQueries({ predicate: ({ queryKey }) => !APART.has(String(queryKey[0])) });
}

/** Puts records on a list; those that were there before stay when it is taken back, and a list made for it goes again. */
export async function putOnList(
  client: QueryClient,
  list: Pick<ListView, 'key' | 'name'>,
  wish: object,
  made: boolean,
): Promise<AddedAnswer> {
  const put = () => call<AddedAnswer>('POST', `${path(list.key)}/members`, wish);
  let answer = await put();
  record({
    name: `putting ${answer.added} on ${list.name}`,
    undo: async () => {
      await call('DELETE', `${path(list.key)}/origins/${answer.origins.join()}`);
      if (made) await call('DELETE', path(list.key));
      await listsChanged(client);
    },
    redo: async () => {
      if (made) await call('POST', `${path(list.key)}/restore`);
      answer = await put();
      await listsChanged(client);
    },
  });
  await listsChanged(client);
  return answer;
}

/** Puts what is acted on on a list without asking, and says how many that were; what is refused is said. */
export async function putAtOnce(
  client: QueryClient,
  list: Pick<ListView, 'key' | 'name'>,
  acted: Pick<Acted, 'tape' | 'sort' | 'picks'>,
  figure: (n: number) => string,
): Promise<void> {
  try {
    const { added, of } = await putOnList(client, list, wishOf(acted), false);
    notePut(acted.tape.subject, list);
    said(wordPut(list, added, of, figure));
  } catch (failure) {
    toast.error((failure as Error).message);
  }
}

/** "12 put on Rivals, 3 were on it already". */
export function wordPut(
  { name }: Pick<ListView, 'name'>,
  added: number,
  of: number,
  figure: (n: number) => string,
  how = 'put on',
): string {
  const known = of - added;
  return `${figure(added)} ${how} ${name}${known ? `, ${figure(known)} ${known === 1 ? 'was' : 'were'} on it already` : ''}`;
}

/** Notes that a list was made, with what is on it: taken back, it goes again. */
export function noteMade(client: QueryClient, { key, name }: Pick<ListView, 'key' | 'name'>): void {
  record({
    name: `making the list ${name}`,
    undo: async () => {
      await call('DELETE', path(key));
      await listsChanged(client);
    },
    redo: async () => {
      await call('POST', `${path(key)}/restore`);
      await listsChanged(client);
    },
  });
}

/** Takes the records of some tapes off a list, in one step that brings all of them back. */
export async function takeOffList(
  client: QueryClient,
  list: ListView,
  ...wishes: readonly object[]
): Promise<Pick<TakenAnswer, 'removed'>> {
  let taken: number[] = [];
  const take = async () => {
    taken = [];
    let removed = 0;
    for (const wish of wishes) {
      const answer = await call<TakenAnswer>('DELETE', `${path(list.key)}/members`, wish);
      removed += answer.removed;
      if (answer.taken !== null) taken.push(answer.taken);
    }
    return removed;
  };
  const removed = await take();
  record({
    name: `taking ${removed} off ${list.name}`,
    undo: async () => {
      for (const one of taken.toReversed()) await call('DELETE', `${path(list.key)}/taken/${one}`);
      await listsChanged(client);
    },
    redo: async () => {
      await take();
      await listsChanged(client);
    },
  });
  await listsChanged(client);
  return { removed };
}

/** Puts members on another list with their origins; moving, takes them off the first. */
export async function copyToList(
  client: QueryClient,
  from: string,
  to: ListView,
  wish: object,
  move: boolean,
): Promise<AddedAnswer> {
  const copy = () => call<AddedAnswer>('POST', `${path(from)}/copies`, { ...wish, to: to.key, move });
  let answer = await copy();
  record({
    name: `${move ? 'moving' : 'copying'} ${answer.of} to ${to.name}`,
    undo: async () => {
      if (answer.origins.length) await call('DELETE', `${path(to.key)}/origins/${answer.origins.join()}`);
      if (answer.taken !== null) await call('DELETE', `${path(from)}/taken/${answer.taken}`);
      await listsChanged(client);
    },
    redo: async () => {
      answer = await copy();
      await listsChanged(client);
    },
  });
  await listsChanged(client);
  return answer;
}

/** Changes what is said of a list. */
export async function changeList(
  client: QueryClient,
  list: ListView,
  change: Partial<ListView>,
): Promise<void> {
  const put = (wish: Partial<ListView>) => call('PUT', path(list.key), wish);
  const putAnew = async (wish: Partial<ListView>) => {
    await put(wish);
    await listsChanged(client);
  };
  const before = Object.fromEntries(
    (Object.keys(change) as (keyof ListView)[]).map((key) => [key, list[key]]),
  ) as Partial<ListView>;
  await put(change);
  record({
    name: `a change of the list ${list.name}`,
    undo: () => putAnew(before),
    redo: () => putAnew(change),
  });
  await listsChanged(client);
}

/** Puts other addresses in the place of those that a suppression list keeps off. */
export async function changeAddresses(
  client: QueryClient,
  list: Pick<ListView, 'key' | 'name'>,
  before: readonly string[],
  addresses: readonly string[],
): Promise<void> {
  const put = (wish: readonly string[]) => call('PUT', `${path(list.key)}/addresses`, { addresses: wish });
  const putAnew = async (wish: readonly string[]) => {
    await put(wish);
    await listsChanged(client);
  };
  await put(addresses);
  record({
    name: `the addresses that ${list.name} keeps off`,
    undo: () => putAnew(before),
    redo: () => putAnew(addresses),
  });
  await listsChanged(client);
}

/** Makes a list that follows others one of its own, for good. */
export async function fixList(client: QueryClient, key: string): Promise<void> {
  await call('PUT', path(key), { stays: false });
  await listsChanged(client);
}

/** Removes a list, which can be had back. */
export async function removeList(client: QueryClient, list: ListView): Promise<void> {
  await call('DELETE', path(list.key));
  record({
    name: `removing the list ${list.name}`,
    undo: () => restoreList(client, list.key),
    redo: () => takeAway(client, list.key),
  });
  await listsChanged(client);
}

/** Removes a list without a word, as a part of taking something back. */
export async function takeAway(client: QueryClient, key: string): Promise<void> {
  await call('DELETE', path(key));
  await listsChanged(client);
}

export async function restoreList(client: QueryClient, key: string): Promise<void> {
  await call('POST', `${path(key)}/restore`);
  await listsChanged(client);
}

/** Makes a list of others. */
export async function combineLists(
  client: QueryClient,
  wish: Combination & { name: string; stays: boolean },
): Promise<ListView> {
  const { list } = await call<{ list: ListView }>('POST', '/lists/combine', wish);
  madeList(client, list);
  await listsChanged(client);
  return list;
}

/** Notes that a list was made. */
export function madeList(client: QueryClient, list: ListView): void {
  record({
    name: `making the list ${list.name}`,
    undo: () => takeAway(client, list.key),
    redo: () => restoreList(client, list.key),
  });
}

interface Verdict {
  verdict: ListVerdict;
  reason?: string;
  /** When the verdict that was seen had been given. */
  seen?: string | null;
}

/** Gives members a verdict. `chosen` names them by key, or as picked of a tape. */
export async function judgeMembers(
  client: QueryClient,
  list: { key: string; name: string },
  chosen: { members: string[] } | { picks: object },
  verdict: Verdict,
  /** Done after the verdict was taken back, such as showing again whom it was on. */
  onBack?: () => void,
): Promise<JudgedAnswer> {
  const give = (wish: Verdict) =>
    call<JudgedAnswer>('POST', `${path(list.key)}/verdicts`, { ...chosen, ...wish });
  let answer = await give(verdict);
  record({
    name: `a verdict on ${list.name}`,
    undo: async () => {
      await call('DELETE', `${path(list.key)}/verdicts/${answer.batch}`);
      onBack?.();
      await listsChanged(client);
    },
    redo: async () => {
      answer = await give({ verdict: verdict.verdict, reason: verdict.reason });
      await listsChanged(client);
    },
  });
  await listsChanged(client);
  return answer;
}

/** Changes notes, tags or to whom members are assigned. */
export async function describeMembers(
  client: QueryClient,
  list: { key: string; name: string },
  chosen: { members: string[] } | { picks: object },
  details: { note?: string; assigned?: string; tag?: string[]; untag?: string[] },
): Promise<void> {
  const write = () => call<DescribedAnswer>('POST', `${path(list.key)}/details`, { ...chosen, ...details });
  let { undo } = await write();
  record({
    name: `what is noted on ${list.name}`,
    undo: async () => {
      await call('DELETE', `${path(list.key)}/details/${undo}`);
      await listsChanged(client);
    },
    redo: async () => {
      ({ undo } = await write());
      await listsChanged(client);
    },
  });
  await listsChanged(client);
}
