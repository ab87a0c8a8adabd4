import { inLanguage } from '../../../core/exports/headings/languages.ts';
import { apart } from '../../../core/exports/names.ts';
import { ADDRESS_LINES } from '../../../core/exports/postal-parts.ts';
import { postalLines } from '../../../core/exports/postal.ts';
import { csvText } from '../csv-text.ts';
import { textWriter } from './text-file.ts';
import type { OpenWriter } from './writer.ts';

/** The headings of a CSV, as its first line. */
export const openCsv: OpenWriter = ({ path, columns, options }) =>
  textWriter(path, {
    first: csvText([apart(columns.map(({ heading }) => heading))], options),
    rows: (rows) =>
      csvText(
        rows.map(({ cells }) => cells),
        { ...options, bom: false },
      ),
  });

/** The same with the address of each record line by line. */
export const openMerge: OpenWriter = ({ path, columns, options, language }) => {
  const lines = Array.from(
    { length: ADDRESS_LINES },
    (_, i) => `${inLanguage('Address line', language)} ${i + 1}`,
  );
  return textWriter(path, {
    first: csvText([apart([...columns.map(({ heading }) => heading), ...lines])], options),
    rows: (rows) =>
      csvText(
        rows.map(({ cells, place }) => {
          const written = postalLines(place!, options.letter.from);
          return [...cells, ...lines.map((_, i) => written[i] ?? '')];
        }),
        { ...options, bom: false },
      ),
  });
};
