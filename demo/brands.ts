import { CHANNELS } from '../core/fields/companies/market.ts';
import type { BrandRecord } from '../core/records/related.ts';
import type { Truth } from './company.ts';
import { checkedDay } from './days.ts';
import { properName } from './names.ts';
import type { Chance } from './random.ts';

/** Categories of goods by sector; other sectors have no brands. */
const CATEGORY: Record<string, string> = {
  joinery: 'panels-and-doors',
  doors: 'panels-and-doors',
  coating: 'coatings',
  furniture: 'furniture',
  boats: 'boats',
  air: 'air-cleaning',
  tools: 'hand-tools',
  machining: 'machines',
  printing: 'print-materials',
  plastics: 'fittings',
  'machine-dealers': 'machines',
  'hardware-shops': 'workshop-supplies',
};

/** Who sells the brands of others. */
const RESELLERS = new Set(['machine-dealers', 'hardware-shops', 'furniture', 'fitting']);

const NEIGHBOURS: Record<string, readonly string[]> = {
  CZ: ['SK', 'DE', 'AT', 'PL'],
  DE: ['AT', 'CH', 'NL', 'FR', 'PL'],
  AT: ['DE', 'CH', 'IT', 'HU'],
  PL: ['CZ', 'DE', 'LT'],
  SK: ['CZ', 'HU'],
  FR: ['BE', 'DE', 'ES', 'IT'],
  IT: ['AT', 'CH', 'FR'],
  SE: ['NO', 'FI', 'DK'],
  DK: ['SE', 'DE', 'NO'],
  GB: ['IE', 'NL'],
};

export interface MadeBrand {
  record: BrandRecord;
  /** Roles of companies by index beside the owner. */
  resellers: readonly { index: number; role: 'consented' | 'unconsented' }[];
}

/** Whether anything is recorded of the brands of a company: only of those that make or sell goods. */
export function isBranded({ sector }: Pick<Truth, 'sector'>): boolean {
  return CATEGORY[sector.id] !== undefined;
}

/** Whether a company sells the brands of others. */
export function resells(truth: Pick<Truth, 'sector'>): boolean {
  return RESELLERS.has(truth.sector.id);
}

/** The brands that a company owns. `sellers` are indexes of companies made before that sell the brands of others. */
export function brandsOf(truth: Truth, chance: Chance, sellers: readonly number[]): MadeBrand[] {
  if (!isBranded(truth) || truth.headcount < 3 || !chance.in(0.3)) return [];
  const count = chance.in(0.25) ? chance.whole(2, 4) : 1;
  return Array.from({ length: count }, (): MadeBrand => {
    const products = Math.max(2, Math.round(Math.exp(3.2 + 0.9 * chance.normal())));
    const pace = 0.04 + 0.12 * chance.normal();
    const history = [products];
    while (history.length < 5)
      history.unshift(Math.max(1, Math.round(history[0]! / Math.max(0.6, 1 + pace))));
    const abroad = (NEIGHBOURS[truth.country] ?? ['DE', 'FR']).filter(() => chance.in(0.4));
    return {
      record: {
        name: properName(chance, truth.country),
        category: chance.in(0.92) ? CATEGORY[truth.sector.id]! : 'workshop-supplies',
        products,
        productsChange: products - history[3]!,
        productsHistory: history.map((value, i) => `${2022 + i}:${value}`).join('; '),
        share: Math.round(Math.min(30, Math.exp(-2.6 + 1.1 * chance.normal())) * 1000) / 1000,
        countries: chance.in(0.8) ? [truth.country, ...abroad] : null,
        channels: chance.in(0.75) ? channels(chance) : [],
        checkedOn: checkedDay(chance, 200),
      },
      resellers: sellers.length
        ? [...new Set(Array.from({ length: chance.whole(0, 4) }, () => chance.pick(sellers)))].map(
            (index) => ({
              index,
              role: chance.in(0.78) ? 'consented' : 'unconsented',
            }),
          )
        : [],
    };
  });
}

/** Shares that sum to 100, one or two channels leading, and their change over the past month in points, which sums to 0. */
function channels(chance: Chance): BrandRecord['channels'] {
  const pulls = CHANNELS.map(() => Math.exp(1.4 * chance.normal()));
  const kept = pulls.map((pull) => (pull > 0.35 ? pull : 0));
  const sum = kept.reduce((all, one) => all + one, 0) || 1;
  const rows: [measure: 'channel' | 'channel-change', key: string, value: number][] = [];
  let rest = 0;
  CHANNELS.forEach((key, i) => {
    if (kept[i] === 0) return;
    rows.push(['channel', key, Math.round((1000 * kept[i]!) / sum) / 10]);
    const change = i === CHANNELS.length - 1 ? -rest : Math.round(12 * chance.normal()) / 10;
    rest += change;
    rows.push(['channel-change', key, Math.round(change * 10) / 10]);
  });
  return rows;
}
