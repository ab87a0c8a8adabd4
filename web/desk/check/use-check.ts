import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { CheckAnswer, CheckedMember, CheckView } from '../../../contract/checks.ts';
import { call } from '../../api.ts';
import { record } from '../../app/history.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

/** The spot checks of the tape at hand, and the acts on the one that is shown. */
export function useCheck() {
  const client = useQueryClient();
  const tape = useDesk((state) => state.tape);
  const [shown, setShown] = useState<string | null>(null);
  const asked = countedPart(tape);
  const all = useQuery({
    queryKey: ['checks', asked],
    queryFn: ({ signal }) =>
      call<{ checks: CheckView[] }>('POST', '/checks/of', { tape: asked }, signal).then(
        ({ checks }) => checks,
      ),
    retry: false,
  });
  const id = all.data?.find((one) => one.id === shown)?.id ?? all.data?.[0]?.id ?? null;
  const one = useQuery({
    queryKey: ['check', id],
    queryFn: ({ signal }) => call<CheckAnswer>('GET', `/checks/${id!}`, undefined, signal),
    enabled: id !== null,
    retry: false,
  });
  const attempt = async <T>(work: () => Promise<T>): Promise<T | null> => {
    try {
      return await work();
    } catch (failure) {
      toast.error((failure as Error).message);
      return null;
    }
  };
  const put = (answer: CheckAnswer) => client.setQueryData(['check', answer.check.id], answer);
  const draw = (wish: { size: number; by?: string; atLeast: number; seed?: number }) =>
    attempt(async () => {
      const answer = await call<CheckAnswer>('POST', '/checks', {
        tape: { ...asked, name: tape.name },
        ...wish,
      });
      put(answer);
      setShown(answer.check.id);
      record({
        name: 'drawing a sample',
        undo: () => remove(answer.check.id),
        redo: async () => {
          await call('POST', '/checks', { tape: asked, ...wish, seed: answer.check.seed });
          await client.invalidateQueries({ queryKey: ['checks'] });
        },
      });
      await client.invalidateQueries({ queryKey: ['checks'] });
    });
  const remove = async (which: string) => {
    await call('DELETE', `/checks/${which}`);
    await client.invalidateQueries({ queryKey: ['checks'] });
  };
  const more = (size: number) =>
    attempt(async () => put(await call<CheckAnswer>('POST', `/checks/${id!}/more`, { size })));
  const ask = (atLeast: number) =>
    attempt(async () => put(await call<CheckAnswer>('PUT', `/checks/${id!}`, { atLeast })));
  const judge = (member: CheckedMember, verdict: CheckedMember['verdict'], note?: string) =>
    attempt(async () => {
      const check = id!;
      const say = async (to: CheckedMember['verdict'], text: string | null | undefined) =>
        put(
          await call<CheckAnswer>('POST', `/checks/${check}/verdicts`, {
            key: member.key,
            verdict: to,
            ...(text === undefined ? {} : { note: text }),
          }),
        );
      await say(verdict, note);
      record({
        name: 'a judgement of the sample',
        undo: () => say(member.verdict, member.note),
        redo: () => say(verdict, note),
      });
      return true;
    });
  return {
    checks: all.data,
    error: all.error ?? one.error,
    answer: one.data,
    setShown,
    draw,
    more,
    ask,
    judge,
    attempt,
  };
}
