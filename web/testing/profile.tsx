import type { ProfileAnswer } from '../../contract/responses.ts';
import { columnFields } from '../../core/fields/registry.ts';
import type { CompanyRecord } from '../../core/records/record.ts';
import { Profile } from '../profile/Profile.tsx';
import { show, type Answers } from './render.tsx';

/** Pages of companies over an API that a test answers for. For tests only. */

// Charts draw into boxes that have a size.
for (const side of ['clientWidth', 'clientHeight'])
  Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => 400 });

const NOTHING: CompanyRecord = {
  name: 'Lakovna Sever',
  codes: [],
  headcountHistory: [],
  revenueHistory: [],
  technologies: [],
  offers: [],
  ...(Object.fromEntries(
    [
      [
        'legalForm',
        'registration',
        'status',
        'country',
        'region',
        'town',
        'postcode',
        'street',
        'lat',
        'lon',
      ],
      ['phone', 'mail', 'web', 'description', 'founded', 'headcount', 'headcountYear', 'headcountWhy'],
      ['revenue', 'revenueWhy', 'profit', 'profitWhy', 'assets', 'assetsWhy', 'revenueMonths', 'departments'],
      ['ownership', 'group', 'listing', 'ticker', 'certificates', 'dwelling', 'followers', 'siteAnswers'],
      ['siteState', 'siteMovedTo', 'siteCheckedOn', 'surveyedOn', 'checkedOn', 'checkedHow'],
    ]
      .flat()
      .map((part) => [part, null]),
  ) as Omit<
    CompanyRecord,
    'name' | 'codes' | 'headcountHistory' | 'revenueHistory' | 'technologies' | 'offers'
  >),
};
/** Every column of a company, unknown but for what is given. */
const cells = (known: object) => ({
  ...Object.fromEntries(columnFields('companies').map(({ id }) => [id, null])),
  name: 'Lakovna Sever',
  ...known,
});
/** A page with these cells, and what each source says. */
export const profile = (
  known: object,
  records: Partial<CompanyRecord>[] = [{}],
  more: Partial<ProfileAnswer> = {},
): ProfileAnswer => ({
  row: { key: 'CZ:7', cells: cells(known) },
  from: {},
  kin: {},
  records: records.map((record, i) => ({
    id: i + 1,
    source: `Register ${i + 1}`,
    sourceKey: `r${i + 1}`,
    asOf: '2026-06-30',
    record: { ...NOTHING, ...record },
  })),
  corrections: [],
  ...more,
});
export const place = { town: 'Brno', region: 'South Moravia', countryName: 'Czechia', lat: 49.2, lon: 16.6 };
const answers = (page: ProfileAnswer | Error, more: Answers = {}): Answers => ({
  'GET /companies/CZ%3A7': page,
  'GET /companies/CZ%3A7/standing': { among: null, strips: [] },
  'GET /notes/companies/CZ%3A7': { text: '', changedAt: null },
  'POST /position': { position: null },
  'GET /cities': { cities: [] },
  'POST /rows': ({ columns }: { columns: string[] }) =>
    columns.some((id) => id.startsWith('count:'))
      ? { total: 1, rows: [{ key: 'CZ:7', cells: Object.fromEntries(columns.map((id) => [id, 0])) }] }
      : { total: 0, rows: [] },
  ...more,
});
/** Shows the page of company CZ:7. */
export const openProfile = (page: ProfileAnswer | Error, more: Answers = {}) =>
  show(<Profile companyKey="CZ:7" />, answers(page, more));
