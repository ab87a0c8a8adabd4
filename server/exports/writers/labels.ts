import { newDocument } from '../../paper/pdf-document.ts';
import { createWriteStream } from 'node:fs';
import { finished } from 'node:stream/promises';
import { postalLines } from '../../../core/exports/postal.ts';
import { fontFor, FONTS, layoutOf } from '../../paper/fonts.ts';
import { tapeInfo } from './pdf-tape.ts';
import type { FileRow, OpenWriter, Writer, WriterContext } from './writer.ts';

/** Points of a millimetre. */
const MM = 72 / 25.4;

/** Labels of 70 × 36 mm, three across and eight down, as they are sold for A4. */
const ACROSS = 3;
const DOWN = 8;
const LABEL = { width: 70 * MM, height: 36 * MM, inset: 5 * MM };

export const openLabels: OpenWriter = (context) => {
  const { doc, writer } = document(context, (row, nth) => {
    const place = nth % (ACROSS * DOWN);
    if (place === 0) doc.addPage();
    const { width, height } = doc.page;
    const left = (width - ACROSS * LABEL.width) / 2 + (place % ACROSS) * LABEL.width + LABEL.inset;
    const top = Math.max(0, (height - DOWN * LABEL.height) / 2) + Math.floor(place / ACROSS) * LABEL.height;
    address(doc, row, left, top + LABEL.inset, LABEL.width - 2 * LABEL.inset, 9, context);
  });
  return writer;
};

/** The window of an envelope, in mm from the upper left of the page: DIN 5008, form B. */
const WINDOW = { left: 25, sender: 50, top: 62.7, width: 80 };
const TEXT = { left: 25, top: 103, width: 165 };

/** A page for each record: the sender in small letters and the address in the window, then the text, with what it says of the record. */
export const openLetters: OpenWriter = (context) => {
  const { sender, text } = context.options.letter;
  const { doc, writer } = document(context, (row) => {
    doc.addPage();
    doc.font(fontFor('sans', sender)).fontSize(7);
    doc.text(inOneLine(sender), WINDOW.left * MM, WINDOW.sender * MM, {
      width: WINDOW.width * MM,
      lineBreak: false,
      ellipsis: true,
      height: 10,
    });
    address(doc, row, WINDOW.left * MM, WINDOW.top * MM, WINDOW.width * MM, 10, context);
    const own = filled(text, row);
    doc.font(fontFor('sans', own)).fontSize(10.5);
    doc.text(own, TEXT.left * MM, TEXT.top * MM, { width: TEXT.width * MM, lineGap: 2, ...layoutOf(own) });
  });
  return writer;
};

const inOneLine = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .join(' · ');

function filled(text: string, { place }: FileRow): string {
  const { person, organisation, town } = place!;
  const values = { name: person ?? organisation ?? '', company: organisation ?? '', town: town ?? '' };
  return text.replace(/\{(name|company|town)\}/g, (_, field: keyof typeof values) => values[field]);
}

function address(
  doc: PDFKit.PDFDocument,
  { place }: FileRow,
  left: number,
  top: number,
  width: number,
  size: number,
  { options }: WriterContext,
): void {
  let y = top;
  for (const line of postalLines(place!, options.letter.from)) {
    doc.font(fontFor('sans', line)).fontSize(size);
    doc.text(line, left, y, { width, height: size + 3, ellipsis: true, lineBreak: false, ...layoutOf(line) });
    y += size + 3;
  }
}

/** A document without head or foot, written as it is made. */
function document(
  { path, title, options, how }: WriterContext,
  draw: (row: FileRow, nth: number) => void,
): { doc: PDFKit.PDFDocument; writer: Writer } {
  const doc = newDocument({
    size: options.paper === 'A4' ? 'A4' : 'LETTER',
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Just Tally', ...tapeInfo(how.tape) },
  });
  for (const [name, file] of Object.entries(FONTS)) doc.registerFont(name, file);
  const into = createWriteStream(path, { flags: 'wx' });
  doc.pipe(into);
  let nth = 0;
  return {
    doc,
    writer: {
      add: async (rows) => {
        for (const row of rows) draw(row, nth++);
        await new Promise((resolve) => setImmediate(resolve));
      },
      finish: async () => {
        if (nth === 0) doc.addPage();
        doc.end();
        await finished(into);
      },
      leave: () => void into.destroy(),
    },
  };
}
