import clsx from 'clsx';
import { useState } from 'react';
import { useKey } from '../../app/keys.ts';
import { Button, Kbd } from '../../ui/controls.tsx';
import { useJudging, useListAtHand, useReasons, useReview, type LastVerdict } from './reviewing.ts';

/** On the sheet: the one judged out last, whose reason can be changed. */
export function LastVerdictRow() {
  const last = useReview((state) => state.last);
  const list = useListAtHand();
  return last && last.verdict === 'out' && last.list === list?.key ? <ReasonRow last={last} /> : null;
}

/** Why the one judged out last is out: the reason taken from the one before can be changed by a digit. */
export function ReasonRow({ last }: { last: LastVerdict }) {
  const reasons = useReasons();
  const judge = useJudging();
  const open = useReview((state) => state.reasonsOpen);
  const [own, setOwn] = useState<string | null>(null);
  const choose = (reason: string | undefined) => {
    if (reason) void judge({ subject: last.subject, key: last.key, name: last.name }, 'out', reason);
  };
  const off = !open;
  useKey('1', () => choose(reasons[0]), { off });
  useKey('2', () => choose(reasons[1]), { off });
  useKey('3', () => choose(reasons[2]), { off });
  useKey('4', () => choose(reasons[3]), { off });
  useKey('5', () => choose(reasons[4]), { off });
  useKey('6', () => choose(reasons[5]), { off });
  useKey('7', () => choose(reasons[6]), { off });
  useKey('8', () => choose(reasons[7]), { off });
  useKey('9', () => setOwn(''), { off });
  if (!open)
    return (
      <p className="border-t border-rule px-3 py-1 text-[12px] text-soft">
        last: {last.name}, out{last.reason ? `, ${last.reason}` : ''}{' '}
        <Button look="quiet" onClick={() => useReview.setState({ reasonsOpen: true })}>
          another reason
        </Button>
      </p>
    );
  return (
    <div className="flex flex-wrap items-center gap-1.5 border-t border-rule px-3 py-1.5 text-[13px]">
      <span className="max-w-64 truncate">
        <strong className="text-cut">out because</strong> <span className="text-soft">({last.name})</span>
      </span>
      {reasons.map((reason, i) => (
        <button
          key={reason}
          type="button"
          aria-pressed={last.reason === reason}
          className={clsx(
            'rounded border border-edge px-2 py-0.5 hover:border-ink',
            last.reason === reason && 'bg-wash font-semibold',
          )}
          onClick={() => choose(reason)}
        >
          <span className="figure text-[11px] text-soft">{i + 1}</span> {reason}
        </button>
      ))}
      {own === null ? (
        <Button look="quiet" onClick={() => setOwn('')}>
          <span className="figure text-[11px]">9</span> other …
        </Button>
      ) : (
        <form
          className="flex gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            choose(own.trim().replaceAll('"', ''));
            setOwn(null);
          }}
        >
          <input
            autoFocus
            aria-label="Another reason"
            value={own}
            maxLength={80}
            className="field w-40 py-0.5"
            onChange={(event) => setOwn(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && setOwn(null)}
          />
          <Button type="submit">Keep</Button>
        </form>
      )}
      <span className="ml-auto text-soft max-[1500px]:hidden">
        take back the last <Kbd>Ctrl Z</Kbd>
      </span>
    </div>
  );
}
