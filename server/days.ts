import { dayOf } from '../core/dates.ts';
import type { Settings } from '../core/settings.ts';

const formats = new Map<string, Intl.DateTimeFormat>();
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The calendar day that it is in a time zone, that of the place where the program runs unless told, as days since 1970-01-01. */
export function todayOf(now = new Date(), zone = HERE): number {
  let format = formats.get(zone);
  // Canada writes dates as ISO 8601 does.
  if (!format) formats.set(zone, (format = new Intl.DateTimeFormat('en-CA', { timeZone: zone })));
  return dayOf(format.format(now))!;
}

/** The as-of date of the workspace: the day set, else the day that it is. */
export function asOfDay({ asOf }: Pick<Settings, 'asOf'>, now = new Date()): number {
  return asOf === null ? todayOf(now) : dayOf(asOf)!;
}
