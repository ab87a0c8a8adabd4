import { newDocument } from './pdf-document.ts';
import type { SketchPoint } from '../../core/geo/sketch.ts';
import type { Writable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { fontFor, FONTS, layoutOf, riseOf, type Face } from './fonts.ts';

/** The roles of ink on paper. */
export const INK = {
  ink: '#221D16',
  soft: '#5F5547',
  rule: '#DDD3C1',
  bar: '#CBBFA8',
  unsure: '#8A5A00',
} as const;

const MARGIN = 48;
const HEAD = 34;
const FOOT = 40;

export interface PaperHead {
  title: string;
  /** Under the title on the first page. */
  under: string;
  /** At the foot of every page: sources and their days. */
  foot: string;
  size: 'A4' | 'Letter';
  landscape?: boolean;
}

export interface TableColumn {
  heading: string;
  /** Share of the width. */
  width: number;
  right?: boolean;
  mono?: boolean;
}

/** One row of bars: a name, a length from 0 to 1 of which a part rests on estimates, and what is written beside it. */
export interface PaperBar {
  name: string;
  length: number;
  soft?: number;
  shown: string;
  /** Unknown, or bands that no group holds. */
  unknown?: boolean;
  rest?: boolean;
}

/** A document laid out from top to bottom, with a head and numbered pages. */
export class Paper {
  private readonly doc: PDFKit.PDFDocument;
  private readonly head: PaperHead;
  readonly width: number;
  readonly left = MARGIN;
  y = MARGIN + HEAD;

  private readonly into: Writable | null;
  private pages = 1;

  /** Kept whole until it is done; or written page by page `into` a stream, with `more` as the information that the file holds. */
  constructor(head: PaperHead, into: Writable | null = null, more: Record<string, string> = {}) {
    this.head = head;
    this.into = into;
    this.doc = newDocument({
      size: head.size === 'A4' ? 'A4' : 'LETTER',
      layout: head.landscape ? 'landscape' : 'portrait',
      margins: { top: MARGIN, bottom: 0, left: MARGIN, right: MARGIN },
      bufferPages: into === null,
      info: { Title: head.title, Creator: 'Just Tally', ...more },
    });
    if (into) this.doc.pipe(into);
    for (const [name, path] of Object.entries(FONTS)) this.doc.registerFont(name, path);
    this.width = this.doc.page.width - 2 * MARGIN;
    this.write(head.title, { font: 'slab', size: 20 });
    this.write(head.under, { size: 9.5, colour: INK.soft });
    this.y += 6;
  }

  /** How much room is left on the page. */
  get room(): number {
    return this.doc.page.height - MARGIN - FOOT - this.y;
  }

  newPage(): void {
    if (this.into) this.furnish(this.pages++, null);
    this.doc.addPage();
    this.y = MARGIN + HEAD;
  }

  /** Goes on on a new page unless there is so much room. */
  need(height: number): void {
    if (this.room < height) this.newPage();
  }

  /** Writes a paragraph, over several pages where it must. */
  write(
    text: string,
    {
      font: name = 'sans',
      size = 9.5,
      colour = INK.ink,
      x = this.left,
      width = this.width,
      gap = 2,
    }: { font?: Face; size?: number; colour?: string; x?: number; width?: number; gap?: number } = {},
  ): void {
    if (text === '') return;
    this.doc.font(fontFor(name, text)).fontSize(size).fillColor(colour);
    const layout = { width, ...layoutOf(text) };
    const height = this.doc.heightOfString(text, layout);
    if (height < 600) this.need(height);
    this.doc.text(text, x, this.y, layout);
    this.y += height + gap;
  }

  heading(text: string, note = ''): void {
    this.need(60);
    this.y += 8;
    this.doc
      .font(fontFor('slab', text))
      .fontSize(13)
      .fillColor(INK.ink)
      .text(text, this.left, this.y, { width: this.width, lineBreak: false });
    if (note) {
      const start = this.doc.widthOfString(text) + 12;
      this.doc
        .font(fontFor('sans', note))
        .fontSize(8.5)
        .fillColor(INK.soft)
        .text(fitted(this.doc, note, this.width - start), this.left + start, this.y + 4, {
          lineBreak: false,
        });
    }
    this.y += 17;
    this.rule();
    this.y += 4;
  }

  rule(colour: string = INK.rule): void {
    this.doc
      .moveTo(this.left, this.y)
      .lineTo(this.left + this.width, this.y)
      .lineWidth(0.6)
      .strokeColor(colour)
      .stroke();
  }

  /** Name and value in two columns. */
  fact(name: string, value: string, colour: string = INK.ink): void {
    const layout = { width: this.width - 130, ...layoutOf(value) };
    this.doc.font(fontFor('sans', value)).fontSize(9.5);
    const height = Math.max(12, this.doc.heightOfString(value, layout));
    this.need(height + 3);
    this.doc.fillColor(colour).text(value, this.left + 130, this.y, layout);
    this.doc.font('sans').fillColor(INK.soft);
    this.doc.text(name, this.left, this.y, { width: 124, lineBreak: false });
    this.y += height + 3;
  }

  /** A table whose heading is printed again on every page; a cell is one row, cut where it is too long. One that `goesOn` has its heading already. */
  table(columns: readonly TableColumn[], rows: Iterable<readonly string[]>, size = 8, goesOn = false): void {
    const whole = columns.reduce((sum, { width }) => sum + width, 0);
    const widths = columns.map(({ width }) => (this.width * width) / whole);
    const line = size + 5;
    const printRow = (cells: readonly string[], heading: boolean) => {
      let x = this.left;
      columns.forEach((column, i) => {
        const cell = cells[i] ?? '';
        this.doc
          .font(fontFor(heading ? 'bold' : column.mono ? 'mono' : 'sans', cell))
          .fontSize(heading ? size - 0.5 : size)
          .fillColor(heading ? INK.soft : INK.ink);
        const room = widths[i]! - 6;
        const text = fitted(this.doc, cell, room);
        const at = column.right ? x + room - this.doc.widthOfString(text) : x;
        this.doc.text(text, at, this.y - riseOf(text, size), { lineBreak: false, ...layoutOf(text) });
        x += widths[i]!;
      });
      this.y += line;
    };
    const head = () => {
      printRow(
        columns.map(({ heading }) => heading),
        true,
      );
      this.y -= 2;
      this.rule(INK.soft);
      this.y += 3;
    };
    if (!goesOn) {
      this.need(3 * line);
      head();
    }
    for (const row of rows) {
      if (this.room < line) {
        this.newPage();
        head();
      }
      printRow(row, false);
      this.y -= 2;
      this.rule();
      this.y += 2;
    }
  }

  /** Lying bars from zero; what rests on estimates or is unknown is hatched. */
  bars(
    bars: readonly PaperBar[],
    { x = this.left, width = this.width, named = 0.36 }: { x?: number; width?: number; named?: number } = {},
  ): void {
    const nameWidth = width * named;
    const room = width - nameWidth - 52;
    for (const bar of bars) {
      if (x === this.left) this.need(13);
      this.doc
        .font(fontFor('sans', bar.name))
        .fontSize(8.5)
        .fillColor(bar.unknown ? INK.unsure : INK.ink)
        .text(fitted(this.doc, bar.name, nameWidth - 6), x, this.y - riseOf(bar.name, 8.5), {
          lineBreak: false,
          ...layoutOf(bar.name),
        });
      const long = Math.max(0.5, room * Math.min(1, Math.max(0, bar.length)));
      const soft = bar.unknown ? long : long * (bar.soft ?? 0);
      const at = x + nameWidth;
      this.doc.rect(at, this.y + 1.5, long - soft, 8).fill(bar.rest ? INK.bar : INK.ink);
      if (soft > 0) this.hatch(at + long - soft, this.y + 1.5, soft, 8);
      this.doc
        .font('mono')
        .fontSize(8)
        .fillColor(INK.ink)
        .text(bar.shown, at + long + 4, this.y + 1, { lineBreak: false });
      this.y += 13;
    }
  }

  private hatch(x: number, y: number, width: number, height: number): void {
    this.doc.save();
    this.doc.rect(x, y, width, height).clip();
    this.doc.lineWidth(0.7).strokeColor(INK.unsure);
    for (let at = x - height; at < x + width; at += 3)
      this.doc
        .moveTo(at, y + height)
        .lineTo(at + height, y)
        .stroke();
    this.doc.restore();
    this.doc.rect(x, y, width, height).lineWidth(0.6).strokeColor(INK.unsure).stroke();
  }

  /** A curve from 0 to 1 both ways, with what stands at the ends of its axes. */
  curve(
    points: readonly (readonly [x: number, y: number])[],
    axes: { right: string; top: string },
    height = 120,
  ): void {
    this.need(height + 24);
    const [x, y, width] = [this.left + 34, this.y + 4, this.width - 60];
    for (const share of [0, 0.25, 0.5, 0.75, 1]) {
      const at = y + height * (1 - share);
      this.doc
        .moveTo(x, at)
        .lineTo(x + width, at)
        .lineWidth(0.5)
        .strokeColor(INK.rule)
        .stroke();
      this.doc
        .font('mono')
        .fontSize(7.5)
        .fillColor(INK.soft)
        .text(`${share * 100} %`, this.left, at - 4, { lineBreak: false });
    }
    points.forEach(([px, py], i) => {
      const to: [number, number] = [x + px * width, y + height * (1 - py)];
      if (i === 0) this.doc.moveTo(...to);
      else this.doc.lineTo(...to);
    });
    this.doc.lineWidth(1.6).strokeColor(INK.ink).stroke();
    this.doc.font('mono').fontSize(7.5).fillColor(INK.soft);
    this.doc.text('0', x, y + height + 3, { lineBreak: false });
    this.doc.text(axes.right, x + width - this.doc.widthOfString(axes.right), y + height + 3, {
      lineBreak: false,
    });
    this.y = y + height + 18;
  }

  /** A way from the first of some points by all others and back, in a square; each but the first has its number, towns their names. */
  way(
    points: readonly SketchPoint[],
    towns: readonly (SketchPoint & { name: string; at: number })[],
    size: number,
  ): void {
    this.need(size + 8);
    const at = points.map(({ x, y }) => [this.left + x, this.y + y] as const);
    this.doc.rect(this.left, this.y, size, size).lineWidth(0.6).strokeColor(INK.rule).stroke();
    [...at, at[0]!].forEach(([x, y], i) => (i === 0 ? this.doc.moveTo(x, y) : this.doc.lineTo(x, y)));
    this.doc.lineWidth(1).strokeColor(INK.ink).stroke();
    at.forEach(([x, y], nth) => {
      if (nth === 0) return void this.doc.circle(x, y, 3.5).fill(INK.ink);
      this.doc.circle(x, y, 6.5).lineWidth(0.8).fillAndStroke('#FFFFFF', INK.ink);
      const number = String(nth);
      this.doc.font('mono').fontSize(7.5).fillColor(INK.ink);
      this.doc.text(number, x - this.doc.widthOfString(number) / 2, y - 3.6, { lineBreak: false });
    });
    for (const { name, x, y, at: begins } of towns) {
      this.doc.rect(this.left + x - 1.2, this.y + y - 1.2, 2.4, 2.4).fill(INK.soft);
      this.doc.font(fontFor('sans', name)).fontSize(7).fillColor(INK.soft);
      this.doc.text(name, this.left + begins, this.y + y - 4.5, { lineBreak: false });
    }
    this.y += size + 8;
  }

  /** Two blocks side by side; the page goes on below the longer one. */
  beside(
    height: number,
    left: (x: number, width: number) => void,
    right: (x: number, width: number) => void,
  ): void {
    this.need(height);
    const start = this.y;
    const width = (this.width - 24) / 2;
    left(this.left, width);
    const after = this.y;
    this.y = start;
    right(this.left + width + 24, width);
    this.y = Math.max(after, this.y) + 8;
  }

  /** Heads and feet on all pages, and the whole as bytes. */
  async done(): Promise<Buffer> {
    const chunks: Buffer[] = [];
    this.doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    const ended = new Promise<void>((resolve) => this.doc.on('end', resolve));
    const { start, count } = this.doc.bufferedPageRange();
    for (let page = start; page < start + count; page++) {
      this.doc.switchToPage(page);
      this.furnish(page - start + 1, count);
    }
    this.doc.end();
    await ended;
    return Buffer.concat(chunks);
  }

  /** Ends a paper that is written into a stream, once all of it is there. */
  async ended(): Promise<void> {
    this.furnish(this.pages, null);
    this.doc.end();
    await finished(this.into!);
  }

  /** Lets go of a paper that is not to be. */
  abandon(): void {
    this.into!.destroy();
  }

  /** The head and foot of the page that is being written. */
  private furnish(page: number, of: number | null): void {
    const { height } = this.doc.page;
    this.doc
      .font('slab')
      .fontSize(10)
      .fillColor(INK.ink)
      .text('Just Tally', this.left, MARGIN - 6, { lineBreak: false });
    this.doc.font(fontFor('sans', this.head.title)).fontSize(8.5).fillColor(INK.soft);
    const title = fitted(this.doc, page === 1 ? '' : this.head.title, this.width - 90);
    this.doc.text(title, this.left + this.width - this.doc.widthOfString(title), MARGIN - 5, {
      lineBreak: false,
    });
    this.doc
      .moveTo(this.left, MARGIN + 12)
      .lineTo(this.left + this.width, MARGIN + 12)
      .lineWidth(0.8)
      .strokeColor(INK.ink)
      .stroke();
    const foot = height - FOOT;
    const number = of === null ? `page ${page}` : `page ${page} of ${of}`;
    this.doc
      .font(fontFor('sans', this.head.foot))
      .fontSize(7.5)
      .fillColor(INK.soft)
      .text(fitted(this.doc, this.head.foot, this.width - 80), this.left, foot, { lineBreak: false });
    this.doc.text(number, this.left + this.width - this.doc.widthOfString(number), foot, {
      lineBreak: false,
    });
  }
}

/** A text cut to a width, with dots where something is left out. */
function fitted(doc: PDFKit.PDFDocument, text: string, width: number): string {
  const plain = text.replace(/\s+/g, ' ');
  if (doc.widthOfString(plain) <= width) return plain;
  let [low, high] = [0, plain.length];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (doc.widthOfString(`${plain.slice(0, middle)}…`) <= width) low = middle;
    else high = middle - 1;
  }
  return low === 0 ? '' : `${plain.slice(0, low).trimEnd()}…`;
}
