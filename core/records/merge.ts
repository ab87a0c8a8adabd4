import type { CompanyRecord, Money, Quantity, SeenTechnology } from './record.ts';

/** A record with where it is from. */
export interface SourcedRecord {
  id: number;
  source: number;
  record: CompanyRecord;
}

/** A company as its records make it, and for each field the record it is from. */
export interface MergedCompany {
  company: CompanyRecord;
  from: Partial<Record<keyof CompanyRecord, number>>;
}

const BASIS_RANK = { reported: 0, estimate: 1, band: 2 } as const;

type MoneyKey = 'revenue' | 'profit' | 'assets';

/**
 * One company from its records. Each field is taken from the freshest record that has it (by the
 * day it was last checked, then the order of loading); numbers prefer reported over estimated over
 * banded, then the latest year. Codes and technologies of all records are joined, main codes from
 * the freshest that names one. The address is taken whole from one record, one with a street if there is any.
 */
export function mergeRecords(records: readonly SourcedRecord[]): MergedCompany {
  const fresh = [...records].sort(
    (a, b) => (b.record.checkedOn ?? -Infinity) - (a.record.checkedOn ?? -Infinity) || a.id - b.id,
  );
  const company = { ...fresh[0]!.record };
  const from: MergedCompany['from'] = {};
  const take = <K extends keyof CompanyRecord>(key: K, order: readonly SourcedRecord[] = fresh) => {
    const holder = order.find(({ record }) => record[key] !== null && record[key] !== '');
    company[key] = (holder ?? fresh[0]!).record[key];
    if (holder) from[key] = holder.id;
  };
  for (const key of [
    'name',
    'legalForm',
    'registration',
    'status',
    'phone',
    'mail',
    'web',
    'description',
    'founded',
    'checkedOn',
    'checkedHow',
    'headcountWhy',
    'revenueWhy',
    'profitWhy',
    'assetsWhy',
    'ownership',
    'group',
    'listing',
    'ticker',
    'certificates',
    'dwelling',
    'followers',
    'departments',
    'revenueMonths',
  ] as const)
    take(key);

  const placed =
    fresh.find(({ record }) => record.town !== null && record.street !== null) ??
    fresh.find(({ record }) => record.town !== null && record.lat !== null) ??
    fresh.find(({ record }) => record.town !== null) ??
    fresh.find(({ record }) => record.country !== null) ??
    fresh[0]!;
  for (const key of ['country', 'region', 'town', 'postcode', 'street', 'lat', 'lon'] as const) {
    company[key] = placed.record[key] as never;
    if (company[key] !== null) from[key] = placed.id;
  }

  const tried = fresh
    .filter(({ record }) => record.siteCheckedOn !== null)
    .sort((a, b) => b.record.siteCheckedOn! - a.record.siteCheckedOn!);
  for (const key of ['siteAnswers', 'siteCheckedOn'] as const) take(key, tried.length ? tried : fresh);
  for (const key of ['headcountHistory', 'revenueHistory'] as const) {
    const longest = [...fresh].sort((a, b) => b.record[key].length - a.record[key].length)[0]!;
    company[key] = longest.record[key];
    if (company[key].length) from[key] = longest.id;
  }

  const bySize = (key: 'headcount' | MoneyKey, yearOf: (record: CompanyRecord) => number) =>
    [...fresh]
      .filter(({ record }) => record[key] !== null)
      .sort(
        (a, b) =>
          BASIS_RANK[(a.record[key] as Quantity).basis] - BASIS_RANK[(b.record[key] as Quantity).basis] ||
          yearOf(b.record) - yearOf(a.record),
      );
  const headcounts = bySize('headcount', (record) => record.headcountYear ?? 0);
  take('headcount', headcounts.length ? headcounts : fresh);
  company.headcountYear = headcounts[0]?.record.headcountYear ?? null;
  for (const key of ['revenue', 'profit', 'assets'] as const) {
    const amounts = bySize(key, (record) => (record[key] as Money).year);
    take(key, amounts.length ? amounts : fresh);
  }

  const codes = new Map<string, CompanyRecord['codes'][number]>();
  const mains = new Set<string>();
  for (const { id, record } of fresh)
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
  return { company, from };
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
