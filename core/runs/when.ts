import { Cron } from 'croner';
import { dayOf } from '../dates.ts';
import { Problem } from '../tape/problem.ts';

/** When something runs, said in words, and kept as a pattern of cron with a time zone. */

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const;
const NTHS = ['first', 'second', 'third', 'fourth'] as const;
const QUARTER_MONTHS = '1,4,7,10';

/** A time of day, 24 hours. */
export interface TimeOfDay {
  hour: number;
  minute: number;
}

/** A rhythm that words can say. Days of the week are 0 for Sunday to 6. */
export type Rhythm =
  | { every: 'minutes' | 'hours'; count: number }
  | { every: 'week'; days: readonly number[]; at: TimeOfDay }
  | { every: 'month' | 'quarter'; on: MonthDay; at: TimeOfDay };

/** A day of a month: by number, the last, a working day from either end, or such as its second Tuesday. */
export type MonthDay =
  { day: number | 'last' } | { working: 'first' | 'last' } | { weekday: number; nth: 1 | 2 | 3 | 4 | 'last' };

/** What is understood, for those who said something else. */
export const WHEN_RULE =
  'such as "every Monday at 7", "every weekday at 18:30", "first working day of the month", "last Sunday of the month at 23" or "every 2 hours"';

const MINUTES = new Set([5, 10, 15, 20, 30]);
const HOURS = new Set([1, 2, 3, 4, 6, 8, 12]);
/** Where no time is said. */
const USUAL: TimeOfDay = { hour: 7, minute: 0 };

/**
 * A rhythm from words. Where no time of day is said it is 7 in the morning.
 * @throws Problem where the words say none
 */
export function rhythmOf(words: string): Rhythm {
  const text = words.toLowerCase().replaceAll(/[,.]/g, ' ').replaceAll(/\s+/g, ' ').trim();
  const cut = text.search(/ (?:at|@) | at$/);
  const days = (cut < 0 ? text : text.slice(0, cut)).trim();
  const at = cut < 0 ? USUAL : timeOf(text.slice(cut + 1).replace(/^(?:at|@) ?/, ''), words);
  return shortRhythm(days, cut >= 0) ?? weekRhythm(days, at) ?? monthRhythm(days, at) ?? notUnderstood(words);
}

function notUnderstood(words: string): never {
  throw new Problem('wrong-when', `“${words}” says no time that repeats.`, {
    field: 'words',
    value: words,
    rule: WHEN_RULE,
  });
}

function timeOf(text: string, words: string): TimeOfDay {
  if (text === 'noon') return { hour: 12, minute: 0 };
  if (text === 'midnight') return { hour: 0, minute: 0 };
  const found = /^(\d{1,2})(?:[: h](\d{2}))? ?(am|pm|h|o'clock)?$/.exec(text);
  if (!found) notUnderstood(words);
  let hour = Number(found[1]);
  const minute = Number(found[2] ?? 0);
  const half = found[3];
  if (half === 'am' || half === 'pm') {
    if (hour < 1 || hour > 12) notUnderstood(words);
    hour = (hour % 12) + (half === 'pm' ? 12 : 0);
  }
  if (hour > 23 || minute > 59) notUnderstood(words);
  return { hour, minute };
}

function shortRhythm(days: string, timed: boolean): Rhythm | null {
  if (timed) return null;
  if (days === 'every hour' || days === 'hourly') return { every: 'hours', count: 1 };
  const found = /^every (\d{1,2}) (minutes|hours)$/.exec(days);
  if (!found) return null;
  const every = found[2] as 'minutes' | 'hours';
  const count = Number(found[1]);
  const known = every === 'minutes' ? MINUTES : HOURS;
  if (!known.has(count))
    throw new Problem('wrong-when', `Every ${count} ${every} does not come out even over a day.`, {
      field: 'words',
      value: days,
      rule: `every ${[...known].join(', ')} ${every}`,
    });
  return { every, count };
}

/** Number of the weekday that a word names, such as "mon" or "mondays"; undefined for another word. */
function weekdayOf(word: string): number | undefined {
  const plain = word.replace(/s$/, '');
  if (plain.length < 2) return undefined;
  const found = WEEKDAYS.findIndex(
    (day) => day.toLowerCase() === plain || day.toLowerCase().slice(0, 3) === plain,
  );
  return found < 0 ? undefined : found;
}

function weekRhythm(text: string, at: TimeOfDay): Rhythm | null {
  const days = text.replace(/^(?:every|each|weekly on|on) /, '');
  if (days === 'day' || days === 'daily') return { every: 'week', days: [0, 1, 2, 3, 4, 5, 6], at };
  if (/^(?:weekday|working day|workday)s?$/.test(days)) return { every: 'week', days: [1, 2, 3, 4, 5], at };
  if (/^weekends?$/.test(days)) return { every: 'week', days: [0, 6], at };
  if (days === 'week' || days === 'weekly') return { every: 'week', days: [1], at };
  const found = days.split(/ and | /).map(weekdayOf);
  if (found.includes(undefined)) return null;
  return { every: 'week', days: [...new Set(found as number[])].sort((a, b) => a - b), at };
}

function monthRhythm(text: string, at: TimeOfDay): Rhythm | null {
  const plain = text.replace(/^(?:on )?(?:the |every |each )?/, '');
  if (plain === 'month' || plain === 'monthly') return { every: 'month', on: { day: 1 }, at };
  if (plain === 'quarter' || plain === 'quarterly') return { every: 'quarter', on: { day: 1 }, at };
  const found = /^(.{1,30}) (?:of|in) (?:a |the |each |every )?(month|quarter)$/.exec(plain);
  const on = found && monthDay(found[1]!);
  return on ? { every: found[2] as 'month' | 'quarter', on, at } : null;
}

function monthDay(text: string): MonthDay | null {
  const number = /^(\d{1,2})(?:st|nd|rd|th)?(?: day)?$/.exec(text);
  if (number) {
    const day = Number(number[1]);
    return day >= 1 && day <= 31 ? { day } : null;
  }
  const [first = '', ...rest] = text.split(' ');
  const what = rest.join(' ');
  const nth = first === 'last' ? 'last' : NTHS.indexOf(first as (typeof NTHS)[number]) + 1;
  if (nth === 0) return null;
  if (what === '' || what === 'day') return { day: nth };
  if (/^(?:working day|workday|weekday)$/.test(what))
    return nth === 'last' ? { working: 'last' } : nth === 1 ? { working: 'first' } : null;
  const weekday = weekdayOf(what);
  return weekday === undefined ? null : { weekday, nth: nth as 1 | 2 | 3 | 4 | 'last' };
}

/** The pattern of cron of a rhythm: minute, hour, day of the month, month, day of the week. */
export function cronOf(rhythm: Rhythm): string {
  if ('count' in rhythm) {
    if (rhythm.every === 'minutes') return `*/${rhythm.count} * * * *`;
    return rhythm.count === 1 ? '0 * * * *' : `0 */${rhythm.count} * * *`;
  }
  const time = `${rhythm.at.minute} ${rhythm.at.hour}`;
  if (rhythm.every === 'week') return `${time} * * ${rhythm.days.length === 7 ? '*' : rhythm.days.join(',')}`;
  const months = rhythm.every === 'quarter' ? QUARTER_MONTHS : '*';
  const { on } = rhythm;
  if ('working' in on) return `${time} ${on.working === 'first' ? '1W' : 'LW'} ${months} *`;
  if ('weekday' in on) return `${time} * ${months} ${on.weekday}#${on.nth === 'last' ? 'L' : on.nth}`;
  return `${time} ${on.day === 'last' ? 'L' : on.day} ${months} *`;
}

/** A rhythm in words, as `rhythmOf` reads them. */
export function wordsOf(rhythm: Rhythm): string {
  if ('count' in rhythm)
    return rhythm.count === 1
      ? `every ${rhythm.every.slice(0, -1)}`
      : `every ${rhythm.count} ${rhythm.every}`;
  const { hour, minute } = rhythm.at;
  const time = `at ${hour}${minute === 0 ? '' : `:${String(minute).padStart(2, '0')}`}`;
  if (rhythm.every === 'week') return `every ${weekWords(rhythm.days)} ${time}`;
  return `${monthWords(rhythm.on)} of the ${rhythm.every} ${time}`;
}

function weekWords(days: readonly number[]): string {
  const key = days.join('');
  if (key === '0123456') return 'day';
  if (key === '12345') return 'weekday';
  const names = days.map((day) => WEEKDAYS[day]!);
  return names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
}

function monthWords(on: MonthDay): string {
  if ('working' in on) return `${on.working} working day`;
  if ('weekday' in on) return `${on.nth === 'last' ? 'last' : NTHS[on.nth - 1]!} ${WEEKDAYS[on.weekday]!}`;
  if (on.day === 'last') return 'last day';
  return on.day === 1 ? 'first' : ordinal(on.day);
}

function ordinal(day: number): string {
  const ends: Record<number, string> = { 1: 'st', 2: 'nd', 3: 'rd' };
  const teens = day > 10 && day < 14;
  return `${day}${teens ? 'th' : (ends[day % 10] ?? 'th')}`;
}

/** When a plan runs. Times of `once` are as the clock of the zone shows them: "2026-12-01T07:00". */
export type Schedule =
  | { how: 'hand' }
  | { how: 'once'; at: string; zone: string; missed: 'run' | 'skip' }
  | { how: 'repeats'; words: string; cron: string; zone: string; missed: 'run' | 'skip' }
  | { how: 'after'; plan: string; outcome: 'done' | 'changed' | 'any' };

const ONCE = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/;

/** A pattern of cron that was typed, checked. Seconds are refused: nothing here runs more than once a minute. @throws Problem */
export function checkedCron(cron: string, zone: string): string {
  const pattern = cron.trim().replaceAll(/\s+/g, ' ');
  const wrong = (why: string): never => {
    throw new Problem('wrong-cron', `“${cron}” is no pattern of cron that can be kept: ${why}`, {
      field: 'cron',
      value: cron,
      rule: 'minute, hour, day of the month, month and day of the week, such as "0 7 * * 1"',
    });
  };
  if (pattern.split(' ').length !== 5) return wrong('it has not five parts.');
  try {
    if (new Cron(pattern, { timezone: zone }).nextRun() === null) return wrong('no day will ever fit it.');
  } catch (error) {
    if (error instanceof Problem) throw error;
    return wrong((error as Error).message.replace(/^Cron\w*: /, ''));
  }
  return pattern;
}

/** Whether this machine knows a time zone, such as Europe/Berlin. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/**
 * The next times of a schedule after a moment, at most so many, as ms since 1970; none where it runs by hand, after
 * another, or is over. Where clocks are put forward, a time that is left out runs when the clock goes on; where they are put
 * back, a time that comes twice runs once.
 */
export function nextTimes(schedule: Schedule, after: number, count: number): number[] {
  if (schedule.how === 'hand' || schedule.how === 'after') return [];
  const from = new Date(after);
  if (schedule.how === 'once') {
    const at = onceAt(schedule);
    return at !== null && at > after ? [at] : [];
  }
  return new Cron(schedule.cron, { timezone: schedule.zone })
    .nextRuns(count, from)
    .map((date) => date.getTime());
}

/** The moment of a schedule that runs once; null where its text is no date and time. */
export function onceAt({ at, zone }: { at: string; zone: string }): number | null {
  if (!ONCE.test(at)) return null;
  try {
    const found = new Cron(`${at}:00`, { timezone: zone }).nextRun(new Date(0));
    return found === null || dayOf(at.slice(0, 10)) === null ? null : found.getTime();
  } catch {
    return null;
  }
}

/** Whether a time that is due now was missed while nothing ran, and is left out as asked: it is late by more than a minute. */
export function isMissed(due: number, now: number): boolean {
  return now - due > 60_000;
}

/** When something runs, in words. `nameOf` says what a plan is called. */
export function scheduleWords(schedule: Schedule, nameOf: (plan: string) => string): string {
  if (schedule.how === 'hand') return 'by hand';
  if (schedule.how === 'once') return `once, on ${schedule.at.replace('T', ' at ')}`;
  if (schedule.how === 'repeats') return schedule.words;
  const after = {
    done: 'after',
    changed: 'where it changed something, after',
    any: 'after, whatever came of it,',
  };
  return `${after[schedule.outcome]} ${nameOf(schedule.plan)}`;
}

/**
 * The plans that run one after another from a plan to itself, were it to run after `after`; null where there is no such ring.
 * @param runsAfter which plan each plan runs after; none where it does not
 */
export function ringOf(plan: string, after: string, runsAfter: ReadonlyMap<string, string>): string[] | null {
  const ring = [plan];
  let at: string | undefined = after;
  while (at !== undefined && !ring.includes(at)) {
    ring.push(at);
    at = runsAfter.get(at);
  }
  return at === plan ? [...ring, plan] : null;
}
