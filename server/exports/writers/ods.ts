import { createWriteStream, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import type { ExportColumn } from '../../../core/exports/field-columns.ts';
import { HOW_TITLE, howMadeRows } from '../../../core/exports/how-made.ts';
import { apart } from '../../../core/exports/names.ts';
import type { FileRow, OpenWriter } from './writer.ts';

/** OpenDocument 1.3 (ISO/IEC 26300): a ZIP whose content.xml has the sheets. It is written flat first, since its size is not known before. */

const ROWS_A_SHEET = 1_048_575;
const NOT_IN_XML =
  /(?![\t\n\r])\p{Cc}|[\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/gu;

const MEDIA_TYPE = 'application/vnd.oasis.opendocument.spreadsheet';
const MANIFEST = `<?xml version="1.0" encoding="UTF-8"?>
<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">
<manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${MEDIA_TYPE}"/>
<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/>
</manifest:manifest>
`;
const HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:number="urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0" office:version="1.3">
<office:automatic-styles>
<number:date-style style:name="day"><number:year number:style="long"/><number:text>-</number:text><number:month number:style="long"/><number:text>-</number:text><number:day number:style="long"/></number:date-style>
<number:number-style style:name="whole"><number:number number:decimal-places="0" number:min-integer-digits="1" number:grouping="true"/></number:number-style>
<number:number-style style:name="exact"><number:number number:decimal-places="2" number:min-integer-digits="1" number:grouping="true"/></number:number-style>
<number:number-style style:name="about"><number:text>≈ </number:text><number:number number:decimal-places="0" number:min-integer-digits="1" number:grouping="true"/></number:number-style>
<style:style style:name="heading" style:family="table-cell"><style:text-properties fo:font-weight="bold"/></style:style>
<style:style style:name="date" style:family="table-cell" style:data-style-name="day"/>
<style:style style:name="figure" style:family="table-cell" style:data-style-name="whole"/>
<style:style style:name="decimal" style:family="table-cell" style:data-style-name="exact"/>
<style:style style:name="estimate" style:family="table-cell" style:data-style-name="about"><style:text-properties fo:font-style="italic" fo:color="#8a5a00"/></style:style>
<style:style style:name="changed" style:family="table-cell"><style:table-cell-properties fo:background-color="#e7eedc"/></style:style>
</office:automatic-styles>
<office:body><office:spreadsheet>
`;

export const openOds: OpenWriter = async ({ path, columns, how }) => {
  const flat = `${path}.content`;
  const file = await open(flat, 'wx');
  const headings = apart(columns.map(({ heading }) => heading));
  const begin = (sheet: number) =>
    `<table:table table:name="${escaped(sheet === 1 ? how.many : `${how.many} ${sheet}`)}"><table:table-header-rows>${rowXml(headings.map((heading) => textCell(heading, 'heading')))}</table:table-header-rows>\n`;
  let sheets = 1;
  let written = 0;
  await file.appendFile(HEAD + begin(sheets));
  const put = ({ row, cells, changed }: FileRow) =>
    rowXml(
      cells.map((value, i) =>
        cellXml(columns[i]!, value, columns[i]!.range?.(row) != null, changed?.includes(i)),
      ),
    );
  const close = async () => {
    await file.close().catch(() => {});
    rmSync(flat, { force: true });
  };
  return {
    add: async (rows) => {
      let text = '';
      for (const row of rows) {
        if (written > 0 && written % ROWS_A_SHEET === 0) text += `</table:table>\n${begin(++sheets)}`;
        text += put(row);
        written++;
      }
      await file.appendFile(text);
    },
    finish: async () => {
      const made = howMadeRows(how).map((cells) =>
        rowXml(cells.map((cell) => (typeof cell === 'number' ? numberCell(cell, 'figure') : textCell(cell)))),
      );
      await file.appendFile(
        `</table:table>\n<table:table table:name="${HOW_TITLE}">${made.join('')}</table:table></office:spreadsheet></office:body></office:document-content>\n`,
      );
      const zip = new yazl.ZipFile();
      // The first entry says what the file is and is not compressed (part 2, 3.3).
      zip.addBuffer(Buffer.from(MEDIA_TYPE), 'mimetype', { compress: false });
      zip.addBuffer(Buffer.from(MANIFEST), 'META-INF/manifest.xml');
      zip.addFile(flat, 'content.xml');
      zip.end();
      await pipeline(zip.outputStream, createWriteStream(path, { flags: 'wx' }));
      await close();
    },
    leave: close,
  };
};

const rowXml = (cells: readonly string[]) =>
  `<table:table-row>${cells.join('') || '<table:table-cell/>'}</table:table-row>\n`;

function cellXml(
  column: ExportColumn,
  value: string | number | null,
  estimate: boolean,
  changed = false,
): string {
  if (value === null || value === '') return '<table:table-cell/>';
  const style = changed ? 'changed' : undefined;
  if (typeof value === 'number')
    return numberCell(
      value,
      style ?? (estimate ? 'estimate' : column.year ? undefined : column.digits ? 'decimal' : 'figure'),
    );
  if (column.kind === 'date' && /^\d{4}-\d\d-\d\d$/.test(value))
    return `<table:table-cell table:style-name="${style ?? 'date'}" office:value-type="date" office:date-value="${value}"><text:p>${value}</text:p></table:table-cell>`;
  return textCell(value, style);
}

const styled = (style: string | undefined) => (style ? ` table:style-name="${style}"` : '');

function numberCell(value: number, style: string | undefined): string {
  return `<table:table-cell${styled(style)} office:value-type="float" office:value="${value}"><text:p>${value}</text:p></table:table-cell>`;
}

function textCell(value: string, style?: string): string {
  const lines = value.split(/\r\n?|\n/).map((line) => `<text:p>${escaped(line)}</text:p>`);
  return `<table:table-cell${styled(style)} office:value-type="string">${lines.join('')}</table:table-cell>`;
}

/** Text as XML has it; several blanks are one there unless they are written as such (part 3, 6.1.3). */
function escaped(text: string): string {
  return text
    .replace(NOT_IN_XML, '')
    .replace(/[&<>"]/g, (sign) => ENTITIES[sign]!)
    .replace(/ {2,}|^ | $/g, (blanks) => `<text:s text:c="${blanks.length}"/>`)
    .replaceAll('\t', '<text:tab/>');
}

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
