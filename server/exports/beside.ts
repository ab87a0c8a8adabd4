import type { ExportColumn } from '../../core/exports/field-columns.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { HOW_TITLE, howMadeText, type HowMade } from '../../core/exports/how-made.ts';
import { apart } from '../../core/exports/names.ts';
import type { FileOptions } from './writers/writer.ts';

/** What stands beside a file in its ZIP: how the list was made, and the tape. */
export function howFiles(how: HowMade, name: string): { name: string; text: string }[] {
  return [
    { name: `${HOW_TITLE}.txt`, text: howMadeText(how) },
    { name: `${name}.tape.json`, text: `${JSON.stringify(JSON.parse(how.tape), null, 2)}\n` },
  ];
}

/** What the columns of a CSV are, for programs (W3C, "Metadata Vocabulary for Tabular Data"). */
export function csvMetadata(
  file: string,
  columns: readonly ExportColumn[],
  names: readonly string[],
  { delimiter, lineEnd }: Pick<FileOptions, 'delimiter' | 'lineEnd'>,
  how: HowMade,
): string {
  const titles = apart(columns.map(({ heading }) => heading));
  return `${JSON.stringify(
    {
      '@context': ['http://www.w3.org/ns/csvw', { '@language': 'en' }],
      url: file,
      'dc:title': how.name,
      'dc:created': how.madeAt,
      'dc:source': how.sources.map(({ name, asOf }) => `${name}, as of ${asOf}`),
      dialect: {
        delimiter,
        header: true,
        encoding: 'utf-8',
        lineTerminators: [lineEnd === 'crlf' ? '\r\n' : '\n'],
      },
      tableSchema: {
        columns: columns.map((column, i) => ({
          name: names[i],
          titles: titles[i],
          // A figure that may be a band is text: "10-49".
          datatype:
            column.kind === 'number' && !column.range ? 'number' : column.kind === 'date' ? 'date' : 'string',
          ...(column.unit ? { 'schema:unitText': column.unit } : {}),
        })),
      },
    },
    null,
    2,
  )}\n`;
}

/** What each column of a file means, for those who read it. */
export function meaningsOf(subject: string, columns: readonly ExportColumn[]): HowMade['columns'] {
  return columns.map(({ id, heading, plain }) => ({
    heading,
    meaning: plain.endsWith(' basis')
      ? 'how the figure is known: reported, estimate with its range, band, or why it is unknown'
      : (fieldOf(subject, id)?.meaning ?? ''),
  }));
}
