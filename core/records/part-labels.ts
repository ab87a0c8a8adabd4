import type { CompanyRecord } from './record.ts';

/** Parts of a company's records as they are told to people, in the order of a page. */
export const PART_LABELS: readonly { part: keyof CompanyRecord; label: string }[] = [
  { part: 'name', label: 'Name' },
  { part: 'legalForm', label: 'Legal form' },
  { part: 'registration', label: 'Number' },
  { part: 'status', label: 'Status' },
  { part: 'country', label: 'Country' },
  { part: 'region', label: 'Region' },
  { part: 'town', label: 'Town' },
  { part: 'street', label: 'Street' },
  { part: 'postcode', label: 'Postcode' },
  { part: 'codes', label: 'Codes' },
  { part: 'headcount', label: 'Headcount' },
  { part: 'revenue', label: 'Revenue' },
  { part: 'founded', label: 'Founded' },
  { part: 'phone', label: 'Phone' },
  { part: 'mail', label: 'Mail' },
  { part: 'web', label: 'Web' },
  { part: 'description', label: 'Description' },
  { part: 'technologies', label: 'Technology' },
  { part: 'profit', label: 'Profit' },
  { part: 'assets', label: 'Total assets' },
  { part: 'departments', label: 'Departments' },
  { part: 'revenueMonths', label: 'Revenue by month' },
  { part: 'ownership', label: 'Ownership' },
  { part: 'group', label: 'Group' },
  { part: 'listing', label: 'Listing' },
  { part: 'ticker', label: 'Ticker' },
  { part: 'certificates', label: 'Certificates' },
  { part: 'offers', label: 'Site offers' },
  { part: 'siteState', label: 'Website' },
  { part: 'dwelling', label: 'Works from a dwelling' },
  { part: 'followers', label: 'Followers' },
  { part: 'checkedOn', label: 'Checked' },
];

export const LABEL_OF_PART: Readonly<Record<string, string>> = Object.fromEntries(
  PART_LABELS.map(({ part, label }) => [part, label]),
);
