import { useQuery, type QueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import {
  READY_RIGHT_PEOPLE,
  spellFunctions,
  type PersonFunction,
  type RightPersonChoice,
} from '../../core/people/functions.ts';
import { foldedWords } from '../../core/text/fold.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';

/** Ranked choices of functions: the ready ones, the workspace's own, and the one made last on this machine. */

interface RightPeopleAnswer {
  ready: RightPersonChoice[];
  own: RightPersonChoice[];
}

export function useRightPeople(): { ready: readonly RightPersonChoice[]; own: readonly RightPersonChoice[] } {
  const { data } = useQuery({
    queryKey: ['right-people'],
    queryFn: ({ signal }) => call<RightPeopleAnswer>('GET', '/right-people', undefined, signal),
    staleTime: 60_000,
  });
  return data ?? { ready: [...READY_RIGHT_PEOPLE.values()], own: [] };
}

/** The choice that is made of just these functions, or undefined. */
export function choiceOf(
  choices: readonly RightPersonChoice[],
  functions: readonly PersonFunction[],
): RightPersonChoice | undefined {
  const spelled = spellFunctions(functions);
  return choices.find((one) => spellFunctions(one.functions) === spelled);
}

/** The tape of companies where nobody holds any of some functions, by their keys. */
export function withoutTape(functions: readonly PersonFunction[], keys: readonly string[]): Tape {
  return {
    ...emptyTape(),
    name: `Nobody is ${spellFunctions(functions)}`.slice(0, 120),
    lines: [{ id: 'l1', field: 'company', test: { any: keys } }],
  };
}

const put = ({ key, label, functions }: RightPersonChoice) =>
  call('PUT', `/right-people/${encodeURIComponent(key)}`, { label, functions });
const remove = ({ key }: RightPersonChoice) => call('DELETE', `/right-people/${encodeURIComponent(key)}`);
const changed = (client: QueryClient) => client.invalidateQueries({ queryKey: ['right-people'] });

/** Keeps functions under a name, in place of those kept under it before. */
export async function keepRightPerson(
  client: QueryClient,
  label: string,
  functions: readonly PersonFunction[],
  own: readonly RightPersonChoice[],
): Promise<void> {
  const plain = foldedWords(label).join('-').slice(0, 55);
  const key = READY_RIGHT_PEOPLE.has(plain) ? `${plain}-own` : plain;
  const before = own.find((one) => one.key === key);
  const choice = { key, label, functions };
  const step = (work: () => Promise<unknown>) => () => work().then(() => changed(client));
  await put(choice);
  did(`Kept as ${label}`, {
    name: `keeping the functions of ${label}`,
    undo: step(() => (before ? put(before) : remove(choice))),
    redo: step(() => put(choice)),
  });
  await changed(client);
}

export async function removeRightPerson(client: QueryClient, choice: RightPersonChoice): Promise<void> {
  const step = (work: () => Promise<unknown>) => () => work().then(() => changed(client));
  await remove(choice);
  did(`${choice.label} removed`, {
    name: `removing the functions of ${choice.label}`,
    undo: step(() => put(choice)),
    redo: step(() => remove(choice)),
  });
  await changed(client);
}

const REMEMBERED = 'functions to write to';
const FIRST = READY_RIGHT_PEOPLE.values().next().value!.functions;

/** The functions chosen last on this machine, and how others are remembered. */
export function useRememberedFunctions(): [
  readonly PersonFunction[],
  (functions: readonly PersonFunction[]) => void,
] {
  const [functions, setFunctions] = useState(remembered);
  return [
    functions,
    (next) => {
      setFunctions(next);
      localStorage.setItem(REMEMBERED, JSON.stringify(next));
    },
  ];
}

function remembered(): readonly PersonFunction[] {
  try {
    return (JSON.parse(localStorage.getItem(REMEMBERED) ?? 'null') as PersonFunction[] | null) ?? FIRST;
  } catch {
    return FIRST;
  }
}
