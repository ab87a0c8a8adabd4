import { useQueryClient } from '@tanstack/react-query';
import type { RefObject } from 'react';
import { toast } from 'sonner';
import { listAtHand } from '../../../core/lists/at-hand.ts';
import type { ListTest, ListVerdict } from '../../../core/tape/nodes.ts';
import { said } from '../../app/history.ts';
import { useKey } from '../../app/keys.ts';
import { picksBody } from '../../desk/picks.ts';
import { countedPart } from '../../desk/queries.ts';
import type { SheetActions } from '../../desk/sheet/Sheet.tsx';
import { useDesk } from '../../desk/store.ts';
import { judgeMembers } from '../acts.ts';
import { useJudging, useListAtHand, useReview, wordVerdict } from './reviewing.ts';

/** Verdicts by key on the sheet: on the row at hand, which then goes on to the next, or on all that are picked. */
export function useSheetVerdicts(sheet: RefObject<SheetActions | null>, onSheet: boolean): void {
  const list = useListAtHand();
  const judge = useJudging();
  const client = useQueryClient();
  const give = async (verdict: ListVerdict) => {
    const { tape, sort, picks } = useDesk.getState();
    const row = sheet.current?.current() ?? null;
    if (picks.mode === 'all' || picks.keys.size || picks.runs.length) {
      const reason = verdict === 'out' ? (useReview.getState().reason ?? undefined) : undefined;
      const chosen = { picks: { tape: countedPart(tape), sort, ...picksBody(picks) } };
      try {
        const { judged } = await judgeMembers(client, list!, chosen, {
          verdict,
          ...(reason ? { reason } : {}),
        });
        said(`${judged} judged ${wordVerdict(verdict)}${reason ? `, ${reason}` : ''}`);
      } catch (failure) {
        toast.error((failure as Error).message);
      }
    } else if (row && (await judge({ subject: tape.subject, ...row }, verdict))) {
      // Where the tape shows others alone, the row leaves it and the next takes its place.
      const { verdict: shown } = listAtHand(tape)!.line.test as ListTest;
      if (!shown || shown.includes(verdict)) sheet.current?.move(1);
    }
  };
  const off = !onSheet || list === null;
  useKey('+', () => void give('in'), { off });
  useKey('-', () => void give('out'), { off });
  useKey('0', () => void give('unsure'), { off });
}
