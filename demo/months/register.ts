import type { Chance } from '../random.ts';

/** What a month makes of a company as a register has it: most are as they were. */

/** Of a hundred companies a month: those of which each happens. */
const SHARES = {
  gone: 0.004,
  closed: 0.006,
  woken: 0.02,
  heads: 0.13,
  revenue: 0.06,
  moved: 0.008,
  bought: 0.005,
  coded: 0.007,
  renamed: 0.002,
} as const;

/** The cells of an address, by their headings. */
const ADDRESS = ['region', 'town', 'postcode', 'street', 'latitude', 'longitude'] as const;

/** Where a company moves to, and by whom one is bought: what stands nearby in the register. */
export interface Nearby {
  /** An address of the same country; null where there is none yet. */
  address: Record<(typeof ADDRESS)[number], string> | null;
  /** A larger company's name. */
  owner: string | null;
  /** A code of another company of the same trade. */
  code: string | null;
}

/** A row by heading. */
export type Cells = Record<string, string>;

/** The row of the next month, or null where the register has the company no more. @param day ISO day of the new version */
export function nextMonth(cells: Readonly<Cells>, chance: Chance, nearby: Nearby, day: string): Cells | null {
  if (chance.in(SHARES.gone)) return null;
  const next: Cells = { ...cells };
  const year = day.slice(0, 4);
  if (cells.status === 'active' ? chance.in(SHARES.closed) : chance.in(SHARES.woken))
    next.status = cells.status === 'active' ? (chance.in(0.6) ? 'dormant' : 'closed') : 'active';
  if (chance.in(SHARES.heads) && cells.headcount) {
    // A few grow fast; small ones by heads, not by shares.
    const pace = chance.in(0.12) ? 0.45 : 0.13;
    const heads = Number(cells.headcount);
    const now = Math.max(
      0,
      Math.round(heads * Math.exp(pace * chance.normal() + 0.02) + (heads < 10 ? chance.whole(-1, 2) : 0)),
    );
    next.headcount = String(now);
    next['headcount-year'] = year;
  }
  if (chance.in(SHARES.revenue) && cells.revenue)
    next.revenue = String(Number((Number(cells.revenue) * Math.exp(0.16 * chance.normal())).toPrecision(3)));
  if (chance.in(SHARES.moved) && nearby.address)
    for (const part of ADDRESS) next[part] = nearby.address[part];
  if (chance.in(SHARES.bought) && nearby.owner && cells.ownership !== 'top') {
    next.ownership = 'subsidiary';
    next.group = nearby.owner;
  }
  if (
    chance.in(SHARES.coded) &&
    nearby.code &&
    !`${cells['main-code']} ${cells['other-codes']}`.includes(nearby.code)
  )
    next['other-codes'] = `${cells['other-codes']} ${nearby.code}`.trim();
  if (chance.in(SHARES.renamed))
    next.name = `${cells.name!.split(' ')[0]!} & Partners ${cells['legal-form'] ?? ''}`.trim();
  if (Object.keys(next).some((heading) => next[heading] !== cells[heading])) next.checked = day;
  return next;
}

/** The address of a row. */
export function addressOf(cells: Readonly<Cells>): Nearby['address'] {
  return Object.fromEntries(ADDRESS.map((part) => [part, cells[part] ?? ''])) as Nearby['address'];
}
