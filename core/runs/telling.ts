import { Cron } from 'croner';

/** Whether something is told, and when. */

/** What one asked to be told of a plan. */
export interface TellWish {
  success: boolean;
  failure: boolean;
  /** Where more than so many joined, left or moved; null where changes alone are not told. */
  changes?: number | null;
  rate: 'at-once' | 'daily' | 'weekly' | 'never';
}

/** How a run ended, as far as telling rests on it. */
export interface EndedRun {
  state: 'done' | 'failed' | 'cancelled';
  joined: number | null;
  left: number | null;
  moved: number | null;
}

/** As what a run is told: a failure, its changes, or that it ran; null where it is not. */
export function toldAs(tell: TellWish, run: EndedRun): 'failure' | 'changes' | 'run' | null {
  if (tell.rate === 'never' || run.state === 'cancelled') return null;
  if (run.state === 'failed') return tell.failure ? 'failure' : null;
  const changes = (run.joined ?? 0) + (run.left ?? 0) + (run.moved ?? 0);
  if (tell.changes !== null && tell.changes !== undefined && changes > tell.changes) return 'changes';
  return tell.success ? 'run' : null;
}

/**
 * When something that happens now is told, as ms since 1970: at once, at the next such hour, or at that of the next Monday.
 * @param hour 0 to 23, in the zone
 */
export function dueAt(rate: 'at-once' | 'daily' | 'weekly', now: number, hour: number, zone: string): number {
  if (rate === 'at-once') return now;
  const days = rate === 'daily' ? '*' : '1';
  return new Cron(`0 ${hour} * * ${days}`, { timezone: zone }).nextRun(new Date(now))!.getTime();
}

/** What changed at a run, in a few words: "14 joined, 6 left, 9 moved". Null where nothing is compared. */
export function changeWords({ joined, left, moved }: Omit<EndedRun, 'state'>): string | null {
  if (joined === null || left === null || moved === null) return null;
  const parts = [
    [joined, 'joined'],
    [left, 'left'],
    [moved, 'moved'],
  ] as const;
  const said = parts.flatMap(([count, what]) =>
    count > 0 ? [`${count.toLocaleString('en-GB')} ${what}`] : [],
  );
  return said.length ? said.join(', ') : 'nothing changed';
}
