import type { Rate } from '../../core/runs/kinds.ts';
import { dueAt } from '../../core/runs/telling.ts';
import type { Db } from '../db/open.ts';
import { addNotice, tellSettings, type Notice } from '../tables/runs/notices.ts';

/** The zone of this machine, by which digests and schedules without one go. */
export const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Puts what there is to tell under the bell and in the feed at once, and in line for mail and webhooks at the rate asked. */
export function tell(db: Db, notice: Omit<Notice, 'dueAt'>, rate: Rate, now: number): void {
  if (rate === 'never') return;
  addNotice(db, { ...notice, dueAt: dueAt(rate, now, tellSettings(db).hour, ZONE) }, now);
}
