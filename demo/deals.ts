import { dayOf } from '../core/dates.ts';
import type { Money } from '../core/records/record.ts';
import type { DealRecord } from '../core/records/related.ts';
import { advisoryCount, advisoryIndex, invests } from './advisory.ts';
import type { Truth } from './company.ts';
import { DEMO_AS_OF } from './days.ts';
import type { Chance } from './random.ts';

const AS_OF = dayOf(DEMO_AS_OF)!;
const YEARS = 10;
/** One deal for every so many companies. */
const COMPANIES_A_DEAL = 9;

const KINDS: readonly [kind: string, weight: number, verb: string][] = [
  ['growth-loan', 34, 'takes a growth loan'],
  ['equity-round', 20, 'raises equity'],
  ['acquisition', 28, 'bought'],
  ['merger', 6, 'merges'],
  ['buy-out', 12, 'bought out by its managers'],
];

export interface MadeDeal {
  record: DealRecord;
  /** Roles of companies by index, the target among them. */
  parties: readonly { index: number; role: string }[];
  /** Whether Ternhollow's owners looked at it. */
  lookedAt: boolean;
}

/** The deal of which a company is the target, if there is one. */
export function dealOf(truth: Truth, chance: Chance, companies: number): MadeDeal | null {
  const { index, headcount } = truth;
  const likely = (0.84 / COMPANIES_A_DEAL) * Math.min(2.2, 0.25 + 0.32 * Math.log2(1 + headcount));
  if (!chance.in(likely) || index < 30) return null;
  let at = chance.next() * 100;
  const [kind, , verb] = KINDS.find(([, weight]) => (at -= weight) < 0) ?? KINDS[0]!;
  const bought = kind === 'acquisition' || kind === 'merger' || kind === 'buy-out';
  const firms = advisoryCount(companies);
  const firm = (wanted: (nth: number) => boolean): number | null => {
    for (let tries = 0; tries < 12 && firms > 0; tries++) {
      // Some firms are in far more deals than others.
      const nth = Math.floor(chance.next() ** 2 * firms);
      if (wanted(nth) && advisoryIndex(nth) !== index) return advisoryIndex(nth);
    }
    return null;
  };
  const adviser = (share: number) => (bought && chance.in(share) ? firm((nth) => !invests(nth)) : null);
  const parties: { index: number; role: string }[] = [{ index, role: 'target' }];
  const add = (role: string, found: number | null) => {
    if (found !== null && !parties.some((one) => one.index === found && one.role === role))
      parties.push({ index: found, role });
  };
  if (kind === 'acquisition' || kind === 'merger') add('buyer', chance.whole(0, index - 1));
  if (kind !== 'merger' && kind !== 'acquisition') {
    add('investor', firm(invests));
    if (chance.in(0.25)) add('investor', firm(invests));
  }
  const seller = adviser(0.62);
  add('sell-adviser', seller);
  add('buy-adviser', adviser(0.45));
  const date = AS_OF - Math.floor(chance.next() ** 1.3 * YEARS * 365);
  return {
    record: {
      name: `${truth.name} ${verb}`,
      kind,
      date,
      amount: chance.in(kind === 'growth-loan' ? 0.75 : 0.42) ? amount(truth, chance, kind, date) : null,
      bidders:
        seller !== null && chance.in(0.7)
          ? Math.max(1, Math.round(Math.exp(2.1 + 0.7 * chance.normal())))
          : null,
    },
    parties,
    lookedAt: chance.in(bought ? 0.08 : 0.03),
  };
}

function amount(truth: Truth, chance: Chance, kind: string, date: number): Money {
  const share = { 'growth-loan': 0.12, 'equity-round': 0.2, acquisition: 0.7, merger: 0.8, 'buy-out': 0.6 }[
    kind
  ]!;
  const value = Number((truth.revenue * share * Math.exp(0.5 * chance.normal())).toPrecision(2));
  const year = new Date(date * 86_400_000).getUTCFullYear();
  return { basis: 'reported', low: value, high: value, point: value, currency: truth.currency, year };
}
