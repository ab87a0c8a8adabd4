import { disputesOf } from './disputes.ts';
import type { MergedCompany, SourcedRecord } from './merged.ts';
import {
  PRECEDENCE_GROUP_KEYS,
  PRECEDENCE_GROUPS,
  USUAL_PRECEDENCE,
  type Precedence,
  type PrecedenceGroup,
} from './precedence.ts';
import type { CompanyRecord, Money, Quantity, SeenTechnology } from './record.ts';

const BASIS_RANK = { reported: 0, estimate: 1, band: 2 } as const;
const MONEY = ['revenue', 'profit', 'assets'] as const;
const PLACE = ['country', 'region', 'town', 'postcode', 'street', 'lat', 'lon'] as const;

/** Parts that have ways of their own. */
const APART: ReadonlySet<string> = new Set(['headcount', 'codes', ...MONEY, ...PLACE]);

/**
 * One company from its records. Each group of fields is taken by its rule (core/records/precedence.ts): of the records in that order
 * the first that has a value. The newest is the one checked last; of those without a day of a check, the one whose source speaks of the
 * latest day. Codes and technologies of all records are joined, main codes from the first that names one. The address is
 * taken whole from one record, one with a street if there is any.
 */
export function mergeRecords(
  records: readonly SourcedRecord[],
  precedence: Precedence = USUAL_PRECEDENCE,
): MergedCompany {
  const fresh = [...records].sort(
    (a, b) => latest(b.record.checkedOn, a.record.checkedOn) || latest(b.asOf, a.asOf) || a.id - b.id,
  );
  const company = { ...fresh[0]!.record };
  const from: MergedCompany['from'] = {};
  const take = <K extends keyof CompanyRecord>(key: K, order: readonly SourcedRecord[] = fresh) => {
    const holder = order.find(({ record }) => record[key] !== null && record[key] !== '');
    company[key] = (holder ?? order[0] ?? fresh[0]!).record[key];
    if (holder) from[key] = holder.id;
  };
  const ordered = (group: PrecedenceGroup): readonly SourcedRecord[] => {
    const rule = precedence[group];
    if (rule.by !== 'order' || fresh.length === 1) return fresh;
    const rank = (source: string) =>
      rule.sources.includes(source) ? rule.sources.indexOf(source) : Infinity;
    return [...fresh].sort((a, b) => {
      const [first, second] = [rank(a.source), rank(b.source)];
      return first === second ? 0 : first - second;
    });
  };
  for (const group of PRECEDENCE_GROUP_KEYS) {
    const order = ordered(group);
    for (const part of PRECEDENCE_GROUPS[group].parts) if (!APART.has(part)) take(part, order);
  }
  for (const key of [
    'checkedOn',
    'checkedHow',
    'headcountWhy',
    'revenueWhy',
    'profitWhy',
    'assetsWhy',
  ] as const)
    take(key);

  const addresses = ordered('address');
  const whole =
    precedence.address.by === 'order'
      ? undefined
      : (addresses.find(({ record }) => record.town !== null && record.street !== null) ??
        addresses.find(({ record }) => record.town !== null && record.lat !== null));
  const placed =
    whole ??
    addresses.find(({ record }) => record.town !== null) ??
    addresses.find(({ record }) => record.country !== null) ??
    addresses[0]!;
  for (const key of PLACE) {
    company[key] = placed.record[key] as never;
    if (company[key] !== null) from[key] = placed.id;
  }

  const tried = fresh
    .filter(({ record }) => record.siteCheckedOn !== null)
    .sort((a, b) => b.record.siteCheckedOn! - a.record.siteCheckedOn!);
  for (const key of ['siteAnswers', 'siteState', 'siteCheckedOn'] as const)
    take(key, tried.length ? tried : fresh);
  // Where a site moved to is of the state that is told.
  company.siteMovedTo = records.find(({ id }) => id === from.siteState)?.record.siteMovedTo ?? null;
  for (const key of ['headcountHistory', 'revenueHistory'] as const) {
    const longest = [...fresh].sort((a, b) => b.record[key].length - a.record[key].length)[0]!;
    company[key] = longest.record[key];
    if (company[key].length) from[key] = longest.id;
  }

  const figures = (
    group: PrecedenceGroup,
    key: 'headcount' | (typeof MONEY)[number],
    yearOf: (record: CompanyRecord) => number,
  ) => {
    const known = ordered(group).filter(({ record }) => record[key] !== null);
    if (precedence[group].by !== 'exact') return known;
    return known.sort(
      (a, b) =>
        BASIS_RANK[(a.record[key] as Quantity).basis] - BASIS_RANK[(b.record[key] as Quantity).basis] ||
        yearOf(b.record) - yearOf(a.record),
    );
  };
  const headcounts = figures('size', 'headcount', (record) => record.headcountYear ?? 0);
  take('headcount', headcounts);
  company.headcountYear = headcounts[0]?.record.headcountYear ?? null;
  for (const key of MONEY)
    take(
      key,
      figures('money', key, (record) => (record[key] as Money).year),
    );

  const codes = new Map<string, CompanyRecord['codes'][number]>();
  const mains = new Set<string>();
  for (const { id, record } of ordered('activity'))
    for (const code of record.codes) {
      const main = code.main && !mains.has(code.scheme);
      if (main) mains.add(code.scheme);
      const key = `${code.scheme} ${code.code}`;
      if (!codes.has(key)) codes.set(key, { ...code, main });
      else if (main) codes.set(key, { ...codes.get(key)!, main });
      from.codes ??= id;
    }
  company.codes = [...codes.values()];

  const surveyed = fresh
    .filter(({ record }) => record.surveyedOn !== null)
    .sort((a, b) => b.record.surveyedOn! - a.record.surveyedOn!);
  company.surveyedOn = surveyed[0]?.record.surveyedOn ?? null;
  company.technologies = joinedTechnologies(surveyed.flatMap(({ record }) => record.technologies));
  company.offers = [...new Set(surveyed.flatMap(({ record }) => record.offers))];
  if (surveyed[0]) from.technologies = from.offers = from.surveyedOn = surveyed[0].id;
  return { company, from, disputes: disputesOf(records) };
}

/** Each product once, seen from the first day that any record has to the last. */
function joinedTechnologies(all: readonly SeenTechnology[]): SeenTechnology[] {
  const byLabel = new Map<string, SeenTechnology>();
  for (const one of all) {
    const known = byLabel.get(one.label);
    byLabel.set(
      one.label,
      known
        ? {
            label: one.label,
            first: outer(Math.min, known.first, one.first),
            last: outer(Math.max, known.last, one.last),
          }
        : one,
    );
  }
  return [...byLabel.values()];
}

function outer(pick: (a: number, b: number) => number, a: number | null, b: number | null): number | null {
  return a === null || b === null ? (a ?? b) : pick(a, b);
}

/** Below zero where the first day is the earlier one; no day is before all others. */
function latest(one: number | null | undefined, other: number | null | undefined): number {
  if (one == null || other == null) return Number(one != null) - Number(other != null);
  return one - other;
}
