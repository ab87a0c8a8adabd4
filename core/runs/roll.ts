import { rolled, type Roll } from '../lists/roll.ts';
import type { Reason } from './reasons.ts';

/** How many records a reason stands for, with its words. */
export interface ReasonFigure {
  reason: string;
  label: string;
  count: number;
}

/** Reasons counted, the most frequent first. */
export function countedReasons(reasons: Iterable<Pick<Reason, 'reason' | 'why'>>): ReasonFigure[] {
  const figures = new Map<string, ReasonFigure>();
  for (const { reason, why } of reasons) {
    const figure = figures.get(reason);
    if (figure) figure.count++;
    else
      figures.set(reason, {
        reason,
        label: reason === 'time' ? 'the as-of date has moved on' : why,
        count: 1,
      });
  }
  return [...figures.values()].sort((a, b) => b.count - a.count || (a.reason < b.reason ? -1 : 1));
}

/**
 * The roll of a run: what there was before, what joined and left by reason, what there is now. The first run has no before.
 * @param when of the run before, in words
 */
export function runRoll(
  before: { count: number; when: string } | null,
  joined: readonly ReasonFigure[],
  left: readonly ReasonFigure[],
  now: number,
): Roll {
  if (!before)
    return rolled([{ step: 'first', label: 'First run', note: 'nothing to compare with yet', delta: now }]);
  return rolled([
    { step: 'before', label: 'Before', note: before.when, delta: before.count },
    ...joined.map(({ reason, label, count }) => ({
      step: `joined ${reason}`,
      label: 'Joined',
      note: label,
      delta: count,
    })),
    ...left.map(({ reason, label, count }) => ({
      step: `left ${reason}`,
      label: 'Left',
      note: label,
      delta: -count,
    })),
  ]);
}

/** The roll of a file matched: its rows, those that could not be matched or were not found, and those that were. */
export function matchRunRoll({
  rows,
  notData,
  unreadable,
  twice,
  doubtful,
  none,
}: Record<'rows' | 'notData' | 'unreadable' | 'twice' | 'doubtful' | 'none', number>): Roll {
  const less = (step: string, label: string, note: string, count: number) =>
    count > 0 ? [{ step, label, note, delta: -count }] : [];
  return rolled([
    { step: 'rows', label: 'Rows', note: 'of the file', delta: rows },
    ...less('not-data', 'Not data', 'totals, notes', notData),
    ...less('unreadable', 'Nothing to go by', 'no name, number, domain or phone in them', unreadable),
    ...less('twice', 'Twice in the file', 'they go with the first of their kind', twice),
    ...less('doubtful', 'Doubtful', 'left to settle', doubtful),
    ...less('none', 'None found', 'nothing in the universe is like them', none),
  ]);
}

/** The roll of a source refreshed: records before, new, gone, and those there are now. */
export function refreshRoll({
  before,
  added,
  gone,
  changed,
}: Record<'before' | 'added' | 'gone' | 'changed', number>): Roll {
  const step = (name: string, label: string, note: string, delta: number) => ({
    step: name,
    label,
    note,
    delta,
  });
  return rolled([
    step('before', 'Before', `${changed.toLocaleString('en-GB')} of them changed`, before),
    step('added', 'New', 'not in the version before', added),
    step('gone', 'Gone', 'not in the newer version', -gone),
  ]);
}
