/**
 * Exchange rates: units of a currency for one euro, by calendar year.
 *
 * The figures are rounded yearly averages written down for this project, good enough to compare
 * companies and not for accounting. Fixed parities (BGN; HRK before 2023) are exact.
 * A pair that is not here makes an amount unknown ("no exchange rate"); it is never guessed.
 */
const FIRST_YEAR = 2018;

const PER_EURO: Record<string, readonly number[]> = {
  //     2018   2019   2020   2021   2022   2023   2024   2025   2026
  EUR: [1, 1, 1, 1, 1, 1, 1, 1, 1],
  GBP: [0.885, 0.878, 0.89, 0.86, 0.853, 0.87, 0.847, 0.855, 0.865],
  CHF: [1.155, 1.112, 1.071, 1.081, 1.005, 0.972, 0.953, 0.938, 0.93],
  CZK: [25.65, 25.67, 26.46, 25.64, 24.57, 24, 25.12, 24.7, 24.4],
  PLN: [4.26, 4.3, 4.44, 4.57, 4.69, 4.54, 4.31, 4.24, 4.25],
  HUF: [319, 325, 351, 358, 391, 382, 395, 398, 385],
  RON: [4.65, 4.75, 4.84, 4.92, 4.93, 4.95, 4.97, 5.04, 5.09],
  BGN: [1.95583, 1.95583, 1.95583, 1.95583, 1.95583, 1.95583, 1.95583, 1.95583, 1.95583],
  HRK: [7.42, 7.42, 7.54, 7.53, 7.53, 7.5345, 7.5345, 7.5345, 7.5345],
  DKK: [7.453, 7.466, 7.454, 7.437, 7.44, 7.451, 7.459, 7.462, 7.465],
  SEK: [10.26, 10.59, 10.49, 10.15, 10.63, 11.48, 11.43, 11.07, 10.95],
  NOK: [9.6, 9.85, 10.72, 10.16, 10.1, 11.42, 11.63, 11.72, 11.5],
  ISK: [127.9, 137.3, 154.6, 150.2, 142.2, 149.1, 149.3, 145, 144],
  USD: [1.18, 1.12, 1.14, 1.18, 1.05, 1.08, 1.08, 1.13, 1.16],
  CAD: [1.53, 1.49, 1.53, 1.48, 1.37, 1.46, 1.48, 1.58, 1.61],
  MXN: [22.7, 21.6, 24.5, 24, 21.2, 19.2, 19.8, 21.7, 21.3],
  BRL: [4.31, 4.41, 5.89, 6.38, 5.44, 5.4, 5.83, 6.3, 6.3],
  INR: [80.7, 78.8, 84.6, 87.4, 82.7, 89.3, 90.6, 98, 102],
  CNY: [7.81, 7.74, 7.87, 7.63, 7.08, 7.66, 7.79, 8.1, 8.2],
  HKD: [9.26, 8.77, 8.86, 9.19, 8.25, 8.47, 8.44, 8.8, 9.05],
  SGD: [1.593, 1.527, 1.574, 1.589, 1.451, 1.453, 1.446, 1.47, 1.5],
  ILS: [4.24, 3.99, 3.93, 3.82, 3.53, 3.99, 4, 3.9, 3.85],
  JPY: [130.4, 122, 121.8, 129.9, 138, 151.9, 163.9, 169, 173],
  KRW: [1299, 1305, 1346, 1354, 1358, 1413, 1475, 1605, 1620],
  AUD: [1.58, 1.61, 1.66, 1.57, 1.52, 1.63, 1.64, 1.75, 1.76],
  NZD: [1.71, 1.7, 1.76, 1.67, 1.66, 1.76, 1.79, 1.94, 1.98],
  ZAR: [15.6, 16.2, 18.8, 17.5, 17.2, 20, 19.8, 20.2, 20.3],
  TRY: [5.7, 6.36, 8.05, 10.5, 17.4, 25.8, 35.6, 44.5, 50],
  RSD: [118.3, 117.9, 117.6, 117.6, 117.5, 117.3, 117.1, 117.2, 117.3],
  UAH: [32.1, 28.9, 30.8, 32.3, 34, 39.5, 43.5, 47, 48.5],
};

/** Currencies that have rates, EUR first. */
export const CURRENCIES: readonly string[] = Object.keys(PER_EURO);

/** Units of `currency` for one euro in `year`, or null where there is no rate. */
export function ratePerEuro(currency: string, year: number): number | null {
  return PER_EURO[currency]?.[year - FIRST_YEAR] ?? null;
}

/** How amounts become another currency: times the one, divided by the other. */
export interface Exchange {
  times: number;
  by: number;
}

const NONE_NEEDED: Exchange = { times: 1, by: 1 };

/** How an amount becomes another currency at the rate of a year; nothing is needed within one currency, and null says that there is no rate. */
export function exchange(from: string, to: string, year: number | null): Exchange | null {
  if (from === to) return NONE_NEEDED;
  if (year === null) return null;
  const by = ratePerEuro(from, year);
  const times = ratePerEuro(to, year);
  return by === null || times === null ? null : { times, by };
}

/** An amount in another currency at the rate of a year; null where there is no rate. */
export function converted(amount: number, from: string, to: string, year: number | null): number | null {
  const way = exchange(from, to, year);
  return way && (amount * way.times) / way.by;
}

/** An amount as euros at the rate of `year`; null where there is no rate. */
export function toEuro(amount: number, currency: string, year: number | null): number | null {
  return converted(amount, currency, 'EUR', year);
}

/** Calendar years that have rates, both ends included. */
export const RATE_YEARS = { from: FIRST_YEAR, to: FIRST_YEAR + PER_EURO.EUR!.length - 1 } as const;
