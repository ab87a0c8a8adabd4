import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { create } from 'zustand';
import { listAtHand } from '../../../core/lists/at-hand.ts';
import type { ListVerdict } from '../../../core/tape/nodes.ts';
import { useDesk } from '../../desk/store.ts';
import { judgeMembers } from '../acts.ts';
import { useLists } from '../use-lists.ts';

/** The verdict given last, whose reason can still be chosen while its reasons are open. */
export interface LastVerdict {
  list: string;
  subject: string;
  key: string;
  name: string;
  verdict: ListVerdict;
  reason: string | null;
}

interface ReviewState {
  last: LastVerdict | null;
  /** While they are open, digits choose the reason of the last verdict and not a view. */
  reasonsOpen: boolean;
  /** The reason used last, which the next "out" takes. */
  reason: string | null;
}

/** What reviewing remembers from one company to the next. */
export const useReview = create<ReviewState>(() => ({ last: null, reasonsOpen: false, reason: null }));

/** Offered where nobody has used others yet. */
const USUAL_REASONS = ['too small', 'wrong trade', 'closed', 'a customer'];
/** One key each. */
const MOST_REASONS = 8;

/** Reasons for being out, the most used first. */
export function useReasons(): string[] {
  const { data } = useLists();
  const used = data?.reasons ?? [];
  return [...used, ...USUAL_REASONS.filter((one) => !used.includes(one))].slice(0, MOST_REASONS);
}

/** The list that the tape stands on; null where it stands on none, or on one of other records. */
export function useListAtHand(): { key: string; name: string; line: string } | null {
  const tape = useDesk((state) => state.tape);
  const { data } = useLists();
  return useMemo(() => {
    const found = listAtHand(tape);
    const list = found && data?.lists.find(({ key }) => key === found.list);
    return list && list.subject === tape.subject
      ? { key: list.key, name: list.name, line: found.line.id }
      : null;
  }, [tape, data]);
}

/** Who is judged: one record, by its key and name. */
export interface Judged {
  subject: string;
  key: string;
  name: string;
  /** When the verdict that is shown had been given; null for none, undefined where that is not known. */
  seen?: string | null;
}

/** Gives verdicts on the list at hand, and says what another window said since. */
export function useJudging() {
  const client = useQueryClient();
  const list = useListAtHand();
  return async (one: Judged, verdict: ListVerdict, reason?: string | null): Promise<boolean> => {
    if (!list) return false;
    const kept = verdict === 'out' ? (reason ?? useReview.getState().reason) : null;
    const { company } = useDesk.getState();
    try {
      const { earlier, judged } = await judgeMembers(
        client,
        list,
        { members: [one.key] },
        {
          verdict,
          ...(kept === null ? {} : { reason: kept }),
          ...(one.seen === undefined ? {} : { seen: one.seen }),
        },
        () => {
          useReview.setState({ last: null, reasonsOpen: false });
          if (company !== null) useDesk.getState().set({ company });
        },
      );
      if (judged === 0) {
        toast(`${one.name} is not on ${list.name} any more.`);
        return false;
      }
      if (earlier)
        toast(
          `${earlier.person || 'Another window'} had judged ${one.name} ${wordVerdict(earlier.verdict)} meanwhile. Both are in its history; yours stands.`,
          { duration: 10_000 },
        );
      useReview.setState({
        last: { list: list.key, subject: one.subject, key: one.key, name: one.name, verdict, reason: kept },
        reasonsOpen: verdict === 'out',
        ...(verdict === 'out' ? { reason: kept } : {}),
      });
      return true;
    } catch (failure) {
      toast.error((failure as Error).message);
      return false;
    }
  };
}

export function wordVerdict(verdict: ListVerdict): string {
  return verdict === 'not-judged' ? 'not judged' : verdict;
}
