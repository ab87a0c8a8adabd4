import { toEuro } from '../money/rates.ts';
import { domainOf } from '../text/domain.ts';
import { fold } from '../text/fold.ts';
import type { CompanyRecord, Money, Quantity } from './record.ts';

/** What two sources may say differently of one company, in the order in which it is told. */
export const DISPUTED = ['headcount', 'revenue', 'industry', 'place', 'status', 'founded', 'web'] as const;
export type Disputed = (typeof DISPUTED)[number];

/** Figures that lie apart by more than half of the smaller are said to differ; ranges by their nearest ends. */
const APART = 1.5;

const differ: Readonly<Record<Disputed, (a: CompanyRecord, b: CompanyRecord) => boolean>> = {
  headcount: (a, b) => apart(a.headcount, b.headcount),
  revenue: (a, b) => apart(inEuro(a.revenue), inEuro(b.revenue)),
  industry: (a, b) =>
    a.codes.some(
      (code) =>
        code.main &&
        b.codes.some((other) => other.main && other.scheme === code.scheme && other.code !== code.code),
    ),
  place: (a, b) => unlike(a.country, b.country) || unlike(a.town && fold(a.town), b.town && fold(b.town)),
  status: (a, b) => unlike(a.status, b.status),
  founded: (a, b) => unlike(a.founded, b.founded),
  web: (a, b) => unlike(domainOf(a.web), domainOf(b.web)),
};

/** What the sources of a company say differently of it; what only one of them knows is no dispute. */
export function disputesOf(records: readonly { source: string; record: CompanyRecord }[]): Disputed[] {
  return DISPUTED.filter((part) =>
    records.some((one, i) =>
      records
        .slice(i + 1)
        .some((other) => other.source !== one.source && differ[part](one.record, other.record)),
    ),
  );
}

function unlike(a: string | number | null, b: string | number | null): boolean {
  return a !== null && b !== null && a !== b;
}

function apart(a: Quantity | null, b: Quantity | null): boolean {
  if (a === null || b === null) return false;
  return Math.max(a.low, b.low) > APART * Math.max(1, Math.min(a.high, b.high));
}

function inEuro(value: Money | null): Quantity | null {
  if (value === null) return null;
  const rate = toEuro(1, value.currency, value.year);
  return rate === null ? null : { ...value, low: value.low * rate, high: value.high * rate };
}
