import type { WatchedKind } from './happenings.ts';
import type { Happened } from './reasons.ts';

/** What happened to something that is watched, in words. */

export interface Told {
  kind: WatchedKind;
  text: string;
}

/** An event at a company, or a deal that it is a party of. */
export interface WatchedEvent {
  /** Kind of the event; "deal" for a deal. */
  kind: string;
  name: string;
  /** ISO day; null where it is not known. */
  date: string | null;
}

const OF_EVENTS: Readonly<Record<string, WatchedKind>> = {
  appointment: 'appointment',
  departure: 'departure',
  move: 'move',
  'job-opening': 'opening',
  deal: 'deal',
  court: 'court',
};

export function toldOfEvent({ kind, name, date }: WatchedEvent): Told {
  return { kind: OF_EVENTS[kind] ?? 'record', text: date === null ? name : `${name} (${date})` };
}

const PLACE: ReadonlySet<string> = new Set(['town', 'street', 'postcode', 'country', 'company']);

/** What a change of a value comes to; null where it is not worth telling. @param growth percent beyond which growing and shrinking are told */
export function toldOfChange(change: Happened, growth: number | null): Told | null {
  const { field, was, now, wasNumber, nowNumber } = change;
  const said = (label: string) => `${label}: ${was ?? 'unknown'} → ${now ?? 'unknown'}`;
  if (field === 'technologies') {
    const before = new Set((was ?? '').split(', '));
    const fresh = (now ?? '').split(', ').filter((one) => one !== '' && !before.has(one));
    return fresh.length ? { kind: 'technology', text: `uses ${fresh.join(', ')} now` } : null;
  }
  if (field === 'headcount' || field === 'revenue') {
    if (wasNumber === null || nowNumber === null || wasNumber <= 0) return null;
    const percent = (100 * (nowNumber - wasNumber)) / wasNumber;
    if (Math.abs(percent) <= (growth ?? Infinity)) return null;
    const rounded = `${percent > 0 ? '+' : '−'}${Math.round(Math.abs(percent))} %`;
    return { kind: 'growth', text: `${said(field)} (${rounded})` };
  }
  if (field === 'came') return null;
  if (field === 'gone') return { kind: 'departure', text: 'is not in its source any more' };
  if (field === 'title') return { kind: 'move', text: said('post') };
  if (PLACE.has(field)) return { kind: 'move', text: said(field === 'company' ? 'employer' : field) };
  return { kind: 'record', text: said(field) };
}

/** What a newer version of a source of people did to one of them. */
export interface PersonChange {
  name: string;
  /** Whether the person was at the company that is told of, and is there now. */
  wasHere: boolean;
  isHere: boolean;
  /** Of who came, the post; of who changed employer, the other company. */
  said: string | null;
}

/** What it is to the company. */
export function toldOfPerson({ name, wasHere, isHere, said }: PersonChange): Told | null {
  if (wasHere === isHere) return null;
  if (isHere)
    return { kind: 'appointment', text: said === null ? `${name} is new` : `${name} is new: ${said}` };
  return {
    kind: 'departure',
    text: said === null ? `${name} is not there any more` : `${name} goes to ${said}`,
  };
}

/** Of what happened, what a watch tells of, each once. */
export function toldBy(watch: { kinds: readonly WatchedKind[] }, told: readonly Told[]): Told[] {
  const seen = new Set<string>();
  return told.filter(({ kind, text }) => {
    if (!watch.kinds.includes(kind) || seen.has(text)) return false;
    seen.add(text);
    return true;
  });
}
