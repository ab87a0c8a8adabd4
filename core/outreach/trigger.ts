import type { FactsOfCompany, Happening } from './facts.ts';

/** How a message speaks of what set it off: by name and month, by its kind alone, or not at all. */
export const TRIGGER_WAYS = ['named', 'hinted', 'out'] as const;
export type TriggerWay = (typeof TRIGGER_WAYS)[number];

/** What happened, as a hint that fits after "with" or "about". */
const HINTS: Readonly<Record<string, string>> = {
  'job-opening': 'your search for new people',
  appointment: 'the change in your management',
  departure: 'the change in your management',
  move: 'your move',
  'new-line': 'your new line',
  certificate: 'your new certificate',
  news: 'your news of late',
  'growth-loan': 'your growth loan',
  'equity-round': 'your new investors',
  acquisition: 'your new owners',
  merger: 'your merger',
  'buy-out': 'your new owners',
};
/** What a message never brings up. */
const NEVER = new Set(['court']);

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

/** "July 2026" of an ISO day. */
export function monthOf(date: string): string {
  return `${MONTHS[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)}`;
}

/** The later of the latest event and the latest deal that may be brought up and is of a day from `since` on (ISO), or null. */
export function happeningOf(
  { event, deal }: Pick<FactsOfCompany, 'event' | 'deal'>,
  since: string,
): Happening | null {
  const named = [event, deal].filter(
    (one): one is Happening =>
      one !== null &&
      one.kind !== null &&
      one.kind in HINTS &&
      !NEVER.has(one.kind) &&
      (one.date ?? '') >= since,
  );
  return named.sort((a, b) => (b.date ?? '').localeCompare(a.date ?? ''))[0] ?? null;
}

/** What set a message off, as it stands in a text; null where nothing did, or it is left out. */
export function triggerText(company: FactsOfCompany | null, way: TriggerWay): string | null {
  const what = company === null || way === 'out' ? null : company.trigger;
  if (what === null) return null;
  const hint = HINTS[what.kind!]!;
  if (way === 'hinted') return hint;
  return `${hint} (“${what.name}”${what.date === null ? '' : `, ${monthOf(what.date)}`})`;
}
