/** When somebody in a country may be written to. */

/** A time zone of each country; where there are several, that of most of its trade (IANA names). */
const ZONES: Readonly<Record<string, string>> = {
  ...{ AT: 'Europe/Vienna', BE: 'Europe/Brussels', BG: 'Europe/Sofia', CH: 'Europe/Zurich' },
  ...{ CY: 'Asia/Nicosia', CZ: 'Europe/Prague', DE: 'Europe/Berlin', DK: 'Europe/Copenhagen' },
  ...{ EE: 'Europe/Tallinn', ES: 'Europe/Madrid', FI: 'Europe/Helsinki', FR: 'Europe/Paris' },
  ...{ GB: 'Europe/London', GR: 'Europe/Athens', HR: 'Europe/Zagreb', HU: 'Europe/Budapest' },
  ...{ IE: 'Europe/Dublin', IS: 'Atlantic/Reykjavik', IT: 'Europe/Rome', LI: 'Europe/Vaduz' },
  ...{ LT: 'Europe/Vilnius', LU: 'Europe/Luxembourg', LV: 'Europe/Riga', MT: 'Europe/Malta' },
  ...{ NL: 'Europe/Amsterdam', NO: 'Europe/Oslo', PL: 'Europe/Warsaw', PT: 'Europe/Lisbon' },
  ...{ RO: 'Europe/Bucharest', RS: 'Europe/Belgrade', SE: 'Europe/Stockholm', SI: 'Europe/Ljubljana' },
  ...{ SK: 'Europe/Bratislava', TR: 'Europe/Istanbul', UA: 'Europe/Kyiv' },
  ...{ US: 'America/New_York', CA: 'America/Toronto', MX: 'America/Mexico_City', BR: 'America/Sao_Paulo' },
  ...{ AU: 'Australia/Sydney', NZ: 'Pacific/Auckland', ZA: 'Africa/Johannesburg', JP: 'Asia/Tokyo' },
  ...{ KR: 'Asia/Seoul', IL: 'Asia/Jerusalem' },
};

/** Working days and hours, the same in every country by its own clock. */
export interface Hours {
  /** Whole hours from 0 to 24; from is in, to is out. */
  from: number;
  to: number;
  /** Days of the week that count, 1 Monday to 7 Sunday. */
  days: readonly number[];
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** Days looked ahead: the same hours come again after a week. */
const MOST_HOURS = 24 * 8;

/** Clocks by zone: making one takes longer than reading it a hundred times. */
const CLOCKS = new Map<string, Intl.DateTimeFormat>();

function clockOf(timeZone: string): Intl.DateTimeFormat {
  let clock = CLOCKS.get(timeZone);
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-GB', {
      timeZone,
      weekday: 'short',
      hour: '2-digit',
      hourCycle: 'h23',
    });
    CLOCKS.set(timeZone, clock);
  }
  return clock;
}

/** Weekday and hour by the clock of a country; where its zone is not known, by UTC. */
export function localTime(country: string | null, at: number): { weekday: number; hour: number } {
  const parts = clockOf(ZONES[country ?? ''] ?? 'UTC').formatToParts(at);
  const part = (type: string) => parts.find((one) => one.type === type)!.value;
  const weekday = 1 + ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].indexOf(part('weekday'));
  return { weekday, hour: Number(part('hour')) };
}

export function isWorkingTime(country: string | null, at: number, { from, to, days }: Hours): boolean {
  const { weekday, hour } = localTime(country, at);
  return days.includes(weekday) && hour >= from && hour < to;
}

/** The first time from `at` on that is a working time in a country, in ms since 1970; null where no hour of a week is one. */
export function nextWorkingTime(country: string | null, at: number, hours: Hours): number | null {
  if (isWorkingTime(country, at, hours)) return at;
  // Clocks of all zones go by quarters of an hour at least.
  const quarter = 15 * MINUTE;
  const start = Math.ceil(at / quarter) * quarter;
  for (let time = start; time < start + MOST_HOURS * HOUR; time += quarter)
    if (isWorkingTime(country, time, hours)) return time;
  return null;
}
