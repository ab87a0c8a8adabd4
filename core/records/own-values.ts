import type { MergedCompany } from './merged.ts';
import type { CompanyRecord, SiteState } from './record.ts';

/** What we ourselves say of a company: values corrected by hand, and whether its website answers. Both win over every source. */

/** What may be corrected, by the column of a file that it is read as; which parts of a company it sets. */
export const CORRECTABLE = {
  name: { label: 'Name', parts: ['name'] },
  'legal-form': { label: 'Legal form', parts: ['legalForm'] },
  status: { label: 'Status', parts: ['status'] },
  street: { label: 'Street', parts: ['street'] },
  postcode: { label: 'Postcode', parts: ['postcode'] },
  town: { label: 'Town', parts: ['town', 'region', 'lat', 'lon'] },
  country: { label: 'Country', parts: ['country'] },
  phone: { label: 'Phone', parts: ['phone'] },
  mail: { label: 'Mail', parts: ['mail'] },
  web: { label: 'Web', parts: ['web'] },
  description: { label: 'Description', parts: ['description'] },
  'main-code': { label: 'Main code', parts: [] },
  founded: { label: 'Founded', parts: ['founded'] },
  headcount: { label: 'Headcount', parts: ['headcount', 'headcountYear', 'headcountWhy'] },
  revenue: { label: 'Revenue', parts: ['revenue', 'revenueWhy'] },
  profit: { label: 'Profit', parts: ['profit', 'profitWhy'] },
  assets: { label: 'Total assets', parts: ['assets', 'assetsWhy'] },
  ownership: { label: 'Ownership', parts: ['ownership'] },
  group: { label: 'Group', parts: ['group'] },
} as const satisfies Record<string, { label: string; parts: readonly (keyof CompanyRecord)[] }>;

export type Correctable = keyof typeof CORRECTABLE;
/** The part of a company at which a correction is shown. */
export function partOf(field: Correctable): keyof CompanyRecord {
  return field === 'main-code' ? 'codes' : CORRECTABLE[field].parts[0];
}

export const CORRECTABLE_KEYS = Object.keys(CORRECTABLE) as Correctable[];

/** The number under which a company's values corrected by hand, and its website's check, stand among its records. */
export const [BY_HAND, BY_CHECK] = [-1, -2] as const;

/** Cells of corrections as a row that a reader of files reads, with the name that a row must have. A value taken away is an empty cell. */
export function correctionRow(
  name: string,
  values: ReadonlyMap<Correctable, string>,
): { header: string[]; cells: string[] } {
  const columns = CORRECTABLE_KEYS.filter((key) => key !== 'name' && values.has(key));
  return {
    header: ['name', ...columns],
    cells: [values.get('name') ?? name, ...columns.map((key) => values.get(key)!)],
  };
}

/**
 * A company with what was corrected by hand.
 * @param own the corrections, read as a row
 */
export function withCorrections(
  merged: MergedCompany,
  own: CompanyRecord,
  corrected: readonly Correctable[],
): MergedCompany {
  const company = { ...merged.company };
  const from = { ...merged.from };
  const set = <K extends keyof CompanyRecord>(part: K) => {
    company[part] = own[part];
    from[part] = BY_HAND;
  };
  for (const field of corrected) for (const part of CORRECTABLE[field].parts) set(part);
  if (corrected.includes('main-code')) {
    const mains = own.codes.filter(({ main }) => main);
    company.codes = [
      ...mains,
      ...company.codes
        .filter(({ scheme, code }) => !mains.some((one) => one.scheme === scheme && one.code === code))
        .map((code) => ({ ...code, main: code.main && !mains.some(({ scheme }) => scheme === code.scheme) })),
    ];
    from.codes = BY_HAND;
  }
  return { ...merged, company, from };
}

/** What came of trying a company's website. */
export interface SiteCheck {
  /** The address that was tried, as the company had it. */
  web: string;
  state: SiteState;
  /** The host that it leads to. */
  movedTo: string | null;
  /** Days since 1970. */
  on: number;
}

/** A company with what came of trying its website, where that is the one it still has and no source has tried it since. */
export function withSiteCheck(merged: MergedCompany, check: SiteCheck | null): MergedCompany {
  const { company } = merged;
  if (check === null || check.web !== company.web || (company.siteCheckedOn ?? -Infinity) > check.on)
    return merged;
  return {
    ...merged,
    company: {
      ...company,
      siteAnswers: check.state !== 'dead',
      siteState: check.state,
      siteMovedTo: check.movedTo,
      siteCheckedOn: check.on,
    },
    from: { ...merged.from, siteAnswers: BY_CHECK, siteState: BY_CHECK, siteCheckedOn: BY_CHECK },
  };
}

/** Characters of a correction, and companies whose websites are tried in one job, at most. */
export const [LONGEST_CORRECTION, MOST_SITES] = [4000, 20_000] as const;
