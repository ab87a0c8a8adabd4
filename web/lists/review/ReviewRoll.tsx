import { useFormat } from '../../app/format.ts';
import { editLine } from '../../../core/tape/edit.ts';
import type { FieldLine, ListTest } from '../../../core/tape/nodes.ts';
import { reviewColumn, type ReviewPart } from '../../../core/tape/own-columns.ts';
import { useDesk } from '../../desk/store.ts';
import { Segments } from '../../ui/controls.tsx';
import { Verdicts } from '../ListRoll.tsx';
import { usePace, useRoll } from '../use-lists.ts';
import { PartingLines } from './PartingLines.tsx';
import { useListAtHand } from './reviewing.ts';

/** Pauses longer than this are no judging. */
const LONGEST_S = 300;
const BAR_PX = 34;
const LOOKS = {
  in: 'bg-kept',
  out: 'hatched border border-cut',
  unsure: 'unsure-bar border border-unsure',
  'not-judged': 'border border-edge',
} as const;

/** Below the lines of a tape that stands on a list: how it was judged so far, and at what pace. */
export function ReviewRoll() {
  const list = useListAtHand();
  const format = useFormat();
  const tape = useDesk((state) => state.tape);
  const { data } = useRoll(list?.key ?? null);
  const { data: pace } = usePace(list?.key ?? null);
  if (!list || data?.list.key !== list.key) return null;
  const narrow = (more: Omit<ListTest, 'any'>) => {
    const { change, set } = useDesk.getState();
    change(
      editLine(tape, list.line, (line) => ({ ...(line as FieldLine), test: { any: [list.key], ...more } })),
    );
    set({ company: null, openLine: null, view: 'sheet' });
  };
  const taken = paces(pace?.verdicts ?? []);
  const middle = median(taken.map(({ seconds }) => seconds));
  const left = data.list.notJudged;
  const longest = Math.max(1, ...taken.map(({ seconds }) => seconds));
  return (
    <section aria-label="Reviewing" className="pt-3">
      <div className="flex items-baseline justify-between pr-4 pb-1 pl-10">
        <h2 className="title text-[16px]">Reviewing</h2>
        <span className="text-[12px] text-soft">
          <span className="figure text-ink">{format.number(left)}</span> left to judge
          {middle !== null && left > 0 && <>, about {wordTime(middle * left)}</>}
        </span>
      </div>
      <NextBy judged={data.list.judgedIn > 0 && data.list.judgedOut > 0} />
      <Verdicts list={data.list} reasons={data.reasons} onOpen={narrow} />
      <PartingLines list={list.key} judged={data.list.judgedIn + data.list.judgedOut} />
      {middle !== null && (
        <div className="py-2 pr-4 pl-10">
          <p className="flex items-baseline justify-between text-[13px]">
            <span>
              <strong>Pace</strong>{' '}
              <span className="text-[12px] text-soft">
                seconds for each of the last {taken.length}, in their order
              </span>
            </span>
            <span className="figure font-semibold">{Math.round(middle)} s</span>
          </p>
          <div
            className="flex items-end gap-0.5 border-b border-edge"
            style={{ height: BAR_PX }}
            aria-hidden="true"
          >
            {taken.map(({ seconds, verdict }, i) => (
              <span
                key={i}
                className={`w-1.5 ${LOOKS[verdict]}`}
                style={{ height: Math.max(2, (BAR_PX * seconds) / longest) }}
              />
            ))}
          </div>
        </div>
      )}
    </section>
  );
}

type Order = 'tape' | 'doubt' | 'likeness';

const REVIEW_COLUMNS: Readonly<Record<Exclude<Order, 'tape'>, readonly ReviewPart[]>> = {
  doubt: ['doubt', 'doubts'],
  likeness: ['likeness'],
};

/** In which order one goes through the list: the usual one, those most in doubt first, or those most like the ones judged in. */
function NextBy({ judged }: { judged: boolean }) {
  const sort = useDesk((state) => state.sort);
  const by = sort[0]?.by;
  const order: Order =
    by === reviewColumn('doubt') ? 'doubt' : by === reviewColumn('likeness') ? 'likeness' : 'tape';
  const choose = (to: Order) => {
    const { tape, columns, change } = useDesk.getState();
    if (to === 'tape') {
      change(tape, undefined, { sort: [] });
      return;
    }
    const shown = columns[tape.subject]!;
    const more = REVIEW_COLUMNS[to].map((part) => reviewColumn(part));
    const lacking = more.filter((column) => !shown.includes(column));
    change(tape, undefined, {
      sort: [{ by: more[0]!, descending: true }],
      columns: [...shown.slice(0, 1), ...lacking, ...shown.slice(1)],
    });
  };
  return (
    <div className="flex items-center gap-2 py-2 pr-4 pl-10 text-[13px]">
      Next by
      <Segments
        label="Next by"
        value={order}
        onChange={choose}
        options={[
          { key: 'tape', label: 'name' },
          { key: 'doubt', label: 'doubt' },
          {
            key: 'likeness',
            label: 'likeness',
            off: judged ? undefined : 'Some must be judged in and some out',
          },
        ]}
      />
    </div>
  );
}

/** Seconds between verdicts, the earliest first; the first of a sitting has none. */
export function paces<V>(verdicts: readonly { verdict: V; at: string }[]): { verdict: V; seconds: number }[] {
  return verdicts
    .flatMap(({ verdict, at }, i) => {
      const before = verdicts[i + 1];
      if (!before) return [];
      const seconds = (Date.parse(at) - Date.parse(before.at)) / 1000;
      return seconds <= LONGEST_S ? [{ verdict, seconds }] : [];
    })
    .reverse();
}

function median(values: readonly number[]): number | null {
  if (values.length < 3) return null;
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
}

function wordTime(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  return minutes < 1
    ? 'less than a minute'
    : minutes < 120
      ? `${minutes} min`
      : `${Math.round(minutes / 60)} h`;
}
