import { BEYOND_EUROPE } from './beyond-europe.ts';
import { GERMANIC } from './germanic.ts';
import { OTHERS_OF_EUROPE } from './others-of-europe.ts';
import { ROMANCE } from './romance.ts';
import { SLAVIC } from './slavic.ts';
import type { HeadedColumn } from './headed-column.ts';

const LANGUAGES = { ...GERMANIC, ...ROMANCE, ...SLAVIC, ...OTHERS_OF_EUROPE, ...BEYOND_EUROPE };

/** What a column of a list of companies is called in these languages; nothing where they have no words for it. */
export function headingsInLanguages(column: string): string[] {
  const all = Object.values(LANGUAGES).flatMap((told) => told[column as HeadedColumn]?.split(', ') ?? []);
  return [...new Set(all)];
}
