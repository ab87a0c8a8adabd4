import { useState } from 'react';
import type { CheckAnswer } from '../../../contract/checks.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useDesk } from '../store.ts';
import { CheckCard } from './CheckCard.tsx';
import { CheckFigures } from './CheckFigures.tsx';
import { DrawForm, wordBy } from './DrawForm.tsx';
import { DrawStrip } from './DrawStrip.tsx';
import { ToList } from './ToList.tsx';
import { useCheck } from './use-check.ts';

/** How many more are drawn at a time. */
const MORE = 20;

/** A random sample of the tape, judged by hand: how many fit, how sure that is, and which lines let misses through. */
export function SpotCheck() {
  const tape = useDesk((state) => state.tape);
  const { data: tally } = useTally();
  const check = useCheck();
  const [drawing, setDrawing] = useState(false);
  const { checks, answer, error } = check;
  if (error)
    return (
      <div className="py-4">
        <Trouble error={error} />
      </div>
    );
  if (!checks || (checks.length > 0 && !answer)) return <p className="py-6 text-soft">One moment …</p>;
  if (!answer || drawing)
    return (
      <DrawForm
        total={tally?.tally ?? 0}
        subject={tape.subject}
        onDraw={async (wish) => {
          await check.draw(wish);
          setDrawing(false);
        }}
        onCancel={answer ? () => setDrawing(false) : undefined}
      />
    );
  return <Judging key={answer.check.id} check={check} answer={answer} onAnew={() => setDrawing(true)} />;
}

function Judging({
  check,
  answer,
  onAnew,
}: {
  check: ReturnType<typeof useCheck>;
  answer: CheckAnswer;
  onAnew(): void;
}) {
  const format = useFormat();
  const { members, check: drawn } = answer;
  const firstLeft = members.findIndex(({ verdict }) => verdict === null);
  const [at, setAt] = useState(Math.max(0, firstLeft));
  const [noting, setNoting] = useState(false);
  const place = Math.min(at, members.length - 1);
  const member = members[place];
  /** The next that is not judged yet, from a place on and round. */
  const next = (from: number) => {
    for (let step = 1; step <= members.length; step++) {
      const other = (from + step) % members.length;
      if (members[other]!.verdict === null) return other;
    }
    return Math.min(from + 1, members.length - 1);
  };
  const give = async (verdict: 'in' | 'out' | 'unsure') => {
    if (!member) return;
    const to = next(place);
    if (await check.judge(member, member.verdict === verdict ? null : verdict)) setAt(to);
  };
  const open = () =>
    member &&
    useDesk
      .getState()
      .set({ company: drawn.subject === 'companies' ? member.key : `${drawn.subject}/${member.key}` });
  useKey('+', () => void give('in'));
  useKey('-', () => void give('out'));
  useKey('0', () => void give('unsure'));
  useKey('space', () => setAt(next(place)));
  useKey('j', () => setAt(Math.min(place + 1, members.length - 1)));
  useKey('k', () => setAt(Math.max(0, place - 1)));
  useKey('e', () => setNoting(true));
  useKey('enter', open);
  const judged = drawn.fit + drawn.misses;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2 text-[13px]">
        <span>
          A sample of <span className="figure font-semibold">{format.number(drawn.size)}</span>
          {drawn.by && <> shared out by {wordBy(drawn.subject, drawn.by)}</>} of{' '}
          <span className="figure font-semibold">{format.number(drawn.population)}</span>;{' '}
          <span className="figure font-semibold">{format.number(judged)}</span> judged
          {drawn.unsure > 0 && (
            <>
              , <span className="figure font-semibold">{format.number(drawn.unsure)}</span> that nobody can
              tell
            </>
          )}
        </span>
        <span className="ml-auto flex gap-2">
          <ToList check={drawn} attempt={check.attempt} />
          <Button
            disabled={drawn.size >= drawn.population}
            onClick={() => void check.more(Math.min(drawn.size + MORE, drawn.population))}
          >
            Draw {MORE} more
          </Button>
          <Button onClick={onAnew}>Draw anew</Button>
        </span>
      </div>
      <div className="grid min-h-0 flex-1 grid-rows-[minmax(0,1fr)] grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-6 max-[820px]:grid-cols-1 max-[820px]:overflow-y-auto">
        {member && (
          <CheckCard
            answer={answer}
            member={member}
            place={place}
            noting={noting}
            onNoting={setNoting}
            onNote={(note) => void check.judge(member, member.verdict, note)}
            onGive={(verdict) => void give(verdict)}
            onOpen={open}
          />
        )}
        <CheckFigures answer={answer} onAsk={(atLeast) => void check.ask(atLeast)} />
      </div>
      <DrawStrip answer={answer} at={place} onAt={setAt} />
      <footer className="flex flex-wrap items-center gap-4 border-t border-edge py-2 text-[13px] text-soft">
        <span>
          later <Kbd>Space</Kbd>
        </span>
        <span>
          take back <Kbd>Ctrl Z</Kbd>
        </span>
        <span>
          note <Kbd>e</Kbd>
        </span>
        <span className="ml-auto">
          drawn {format.date(drawn.drawnAt.slice(0, 10))}
          {drawn.person && ` by ${drawn.person}`} with seed{' '}
          <span className="figure text-ink">{drawn.seed}</span>: the same draw for everybody
        </span>
        {(check.checks?.length ?? 0) > 1 && (
          <select
            aria-label="Earlier checks"
            className="field py-0.5"
            value={drawn.id}
            onChange={(event) => check.setShown(event.target.value)}
          >
            {check.checks!.map((one) => (
              <option key={one.id} value={one.id}>
                {format.date(one.drawnAt.slice(0, 10))}, seed {one.seed}, {one.fit + one.misses} judged
              </option>
            ))}
          </select>
        )}
      </footer>
    </div>
  );
}
