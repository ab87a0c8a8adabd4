import { fold } from '../text/fold.ts';
import type { ExportColumn } from './field-columns.ts';

/** Names that machines know columns by: lower case, words by "_", no two alike. */
export function machineNames(columns: readonly Pick<ExportColumn, 'plain'>[]): string[] {
  const taken = new Set<string>();
  return columns.map(({ plain }) => {
    const stem =
      fold(plain.replaceAll('%', ' percent '))
        .replace(/[^a-z0-9]+/g, '_')
        .replace(/^_|_$/g, '') || 'column';
    let name = stem;
    for (let n = 2; taken.has(name); n++) name = `${stem}_${n}`;
    taken.add(name);
    return name;
  });
}

/** Headings no two of which are alike, so that a reader by heading loses none. */
export function apart(headings: readonly string[]): string[] {
  const taken = new Set<string>();
  return headings.map((heading) => {
    let name = heading;
    for (let n = 2; taken.has(name); n++) name = `${heading} (${n})`;
    taken.add(name);
    return name;
  });
}

const LONGEST_NAME = 100;

/**
 * The name of a file without its ending: what of a text every system takes, and "{date}" as the day. Never empty, never one
 * that a system keeps for itself.
 */
export function fileName(text: string, day: string): string {
  const name = text
    .replaceAll('{date}', day)
    .normalize('NFC')
    .replace(/[^\p{L}\p{N} ._,()&+-]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .slice(0, LONGEST_NAME);
  const trimmed = withoutDots(name);
  return /^(con|prn|aux|nul|com\d|lpt\d)?$/i.test(trimmed) ? `export ${trimmed}`.trim() : trimmed;
}

/** A name without the blanks and dots at its ends, which some systems drop and others hide a file for. */
function withoutDots(name: string): string {
  let [from, to] = [0, name.length];
  while (from < to && ' .'.includes(name[from]!)) from++;
  while (to > from && ' .'.includes(name[to - 1]!)) to--;
  return name.slice(from, to);
}
