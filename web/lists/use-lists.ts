import { useQuery } from '@tanstack/react-query';
import type { ListRollAnswer, ListsAnswer, ListView, MemberView, PaceAnswer } from '../../contract/lists.ts';
import type { CarriedColumn } from '../../core/lists/carried.ts';
import { carriedColumn, memberColumn, type MemberPart } from '../../core/tape/own-columns.ts';
import { emptyTape, type ListTest, type Tape } from '../../core/tape/nodes.ts';
import { READY_SETS } from '../../core/fields/column-sets.ts';
import { call } from '../api.ts';

/** All lists, those removed lately, and the reasons for being out. */
export function useLists() {
  return useQuery({
    queryKey: ['lists'],
    queryFn: ({ signal }) => call<ListsAnswer>('GET', '/lists', undefined, signal),
  });
}

/** The headings under which files say something of the members of a list, by its key. */
export function useCarried(): (list: string) => readonly CarriedColumn[] {
  const { data } = useLists();
  return (key) => data?.lists.find((list) => list.key === key)?.carried ?? [];
}

/** A list with its roll; nothing while no list is named. */
export function useRoll(key: string | null) {
  return useQuery({
    queryKey: ['lists', 'roll', key],
    queryFn: ({ signal }) =>
      call<ListRollAnswer>('GET', `/lists/${encodeURIComponent(key!)}`, undefined, signal),
    enabled: key !== null,
    retry: false,
  });
}

/** When the last verdicts on a list were given. */
export function usePace(key: string | null) {
  return useQuery({
    queryKey: ['lists', 'pace', key],
    queryFn: ({ signal }) =>
      call<PaceAnswer>('GET', `/lists/${encodeURIComponent(key!)}/pace`, undefined, signal),
    enabled: key !== null,
    retry: false,
  });
}

/** The lists that a record is on. */
export function useMemberships(subject: string, key: string) {
  return useQuery({
    queryKey: ['memberships', subject, key],
    queryFn: ({ signal }) =>
      call<{ memberships: MemberView[] }>(
        'GET',
        `/memberships/${subject}/${encodeURIComponent(key)}`,
        undefined,
        signal,
      ).then(({ memberships }) => memberships),
    retry: false,
  });
}

/** The tape that keeps the members of a list, or some of them. */
export function tapeOfList(
  { key, name, subject }: Pick<ListView, 'key' | 'name' | 'subject'>,
  more: Omit<ListTest, 'any'> = {},
): Tape {
  return { ...emptyTape(subject), name, lines: [{ id: 'l1', field: 'list', test: { any: [key], ...more } }] };
}

const FIRST_PARTS: readonly MemberPart[] = ['verdict', 'reason', 'tags'];

/** Headings of its file that are shown when a list is opened; the others are a click away. */
const FIRST_CARRIED = 3;

/** Columns for looking at a list: those of the desk, with what it and its files say of its members first, where they have none of it. */
export function columnsOfList(
  { subject, carried }: Pick<ListView, 'subject' | 'carried'>,
  usual: readonly string[] | undefined,
): string[] {
  const columns = usual ?? READY_SETS.find((set) => set.subject === subject)!.columns;
  const parts = FIRST_PARTS.map((part) => memberColumn(part));
  const said = carried.slice(0, FIRST_CARRIED).map(({ column }) => carriedColumn(column));
  if ([...parts, ...said].some((column) => columns.includes(column))) return [...columns];
  return [columns[0]!, ...parts, ...said, ...columns.slice(1)];
}
