import { useQuery } from '@tanstack/react-query';
import { subjectOf } from '../../core/fields/registry.ts';
import { emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { NO_PICKS, pickedCount, picksBody, withPicked, type Picks } from './picks.ts';
import { countedPart, useTally } from './queries.ts';
import { useDesk } from './store.ts';

/** What the acts of the Desk are on: all of the tape, those picked, or the one record that is open. */
export interface Acted {
  tape: Tape;
  sort: readonly SortKey[];
  picks: Picks;
  /** The open record alone. */
  one: boolean;
  /** How many; null while they are counted. */
  count: number | null;
  /** Of those picked by hand, how many no longer pass the tape and stay off. */
  gone: number;
  /** All of the tape, for a choice between them and those picked. */
  total: number;
}

/** What is acted on now; null where the open record is none of a subject. */
export function useActed(): Acted | null {
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const picks = useDesk((state) => state.picks);
  const open = useDesk((state) => state.company);
  const { data: tally, isPlaceholderData } = useTally();
  const total = tally?.tally ?? 0;
  const picked = pickedCount(picks, total);
  // Picks by key stay when the tape changes, so that only the server knows how many still pass.
  const byKey = open === null && picks.mode === 'some' && picks.keys.size > 0;
  const { data: passing } = usePassing(tape, sort, picks, byKey);
  if (open !== null) return actedOnOpen(open);
  const reached = picked === 0 ? total : byKey ? passing : picked;
  return {
    tape,
    sort,
    picks: picked === 0 ? NO_PICKS : picks,
    one: false,
    count: isPlaceholderData || !tally ? null : (reached ?? null),
    gone: byKey && passing !== undefined ? picked - passing : 0,
    total,
  };
}

/** The records that a server is asked to act on; `first` are only so many of them, in their order. */
export function wishOf({ tape, sort, picks }: Pick<Acted, 'tape' | 'sort' | 'picks'>, first?: number) {
  return {
    tape: {
      ...countedPart(tape),
      ...(tape.name ? { name: tape.name } : {}),
      ...(first ? { first } : {}),
    },
    sort,
    ...picksBody(picks),
  };
}

/** What is acted on now, without counts: the open record, those picked, or all of the tape. */
export function actedNow(): Pick<Acted, 'tape' | 'sort' | 'picks'> {
  const { tape, sort, picks, company } = useDesk.getState();
  return company === null ? { tape, sort, picks } : actedOnOpen(company);
}

/** What acts on the record under an open key are on. */
function actedOnOpen(open: string): Acted {
  const slash = open.indexOf('/');
  return actedOnOne(slash < 0 ? 'companies' : open.slice(0, slash), open.slice(slash + 1));
}

/** What acts on one record are on. */
export function actedOnOne(subject: string, key: string): Acted {
  const picks = withPicked(NO_PICKS, [{ key, at: 0 }], true);
  return { tape: emptyTape(subject), sort: [], picks, one: true, count: 1, gone: 0, total: 1 };
}

/** What was asked for, with its counts as they have come since: an act asked before they came does not wait for ever. */
export function counted(asked: Acted, now: Acted | null): Acted {
  return now && now.tape === asked.tape && now.picks === asked.picks ? now : asked;
}

function usePassing(tape: Tape, sort: readonly SortKey[], picks: Picks, enabled: boolean) {
  const asked = { tape: countedPart(tape), sort, ...picksBody(picks) };
  return useQuery({
    queryKey: ['picked', asked],
    queryFn: ({ signal }) =>
      call<{ count: number }>('POST', '/picked', asked, signal).then(({ count }) => count),
    enabled,
    retry: false,
  });
}

/** "this company", "3 people". */
export function wordActed({ tape, one, count }: Acted, figure: (n: number) => string): string {
  const subject = subjectOf(tape.subject);
  if (one) return `this ${subject.one}`;
  return count === null
    ? `${subject.many} …`
    : `${figure(count)} ${count === 1 ? subject.one : subject.many}`;
}
