/** What a watch may tell of. */
export const HAPPENINGS = [
  'appointment',
  'departure',
  'move',
  'opening',
  'deal',
  'court',
  'technology',
  'growth',
  'list',
  'record',
] as const;
export type WatchedKind = (typeof HAPPENINGS)[number];

/** Each in words, and whose it can be. */
export const HAPPENING_WORDS: Readonly<Record<WatchedKind, { label: string; of: readonly string[] }>> = {
  appointment: { label: 'appointments', of: ['companies', 'people', 'lists', 'tapes'] },
  departure: { label: 'departures', of: ['companies', 'people', 'lists', 'tapes'] },
  move: { label: 'moves', of: ['companies', 'people', 'lists', 'tapes'] },
  opening: { label: 'openings', of: ['companies', 'lists', 'tapes'] },
  deal: { label: 'new deals', of: ['companies', 'lists', 'tapes'] },
  court: { label: 'court proceedings', of: ['companies', 'lists', 'tapes'] },
  technology: { label: 'new technology', of: ['companies', 'lists', 'tapes'] },
  growth: { label: 'growth beyond a limit', of: ['companies', 'lists', 'tapes'] },
  list: { label: 'joining and leaving', of: ['lists', 'tapes'] },
  record: { label: 'other changes of the record', of: ['companies', 'people', 'lists', 'tapes'] },
};
