import type { Mapping } from '../records/mapping.ts';

/** How a plain file is read: decimal points, day before month, NACE 2.1, euros of 2025 in full; no column yet. For tests only. */
export const PLAIN_MAPPING: Mapping = {
  columns: [],
  decimal: '.',
  dates: 'dmy',
  scheme: 'nace-2.1',
  country: null,
  currency: 'EUR',
  year: 2025,
  revenueUnit: 1,
};
