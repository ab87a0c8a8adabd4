import { isoOf, dayOf } from '../../../core/dates.ts';
import { CURRENCIES } from '../../../core/money/rates.ts';
import { asWord } from '../../../core/values/figure-words.ts';
import { currencyIn } from '../../../core/values/figures.ts';
import { linkTargets, saidBy } from './links.ts';
import { streamXml, readXml, type XmlHandler } from './xml.ts';
import { Zip } from './zip.ts';
import { MOST_COLUMNS, type Sheet } from './sheets.ts';

/** Reads the rows of an XLSX or XLSM workbook, as its parts are described in ECMA-376. */

interface SheetPart extends Sheet {
  path: string;
}

interface Workbook {
  sheets: SheetPart[];
  /** Day 0 of its serial numbers. */
  zero: number;
  strings: string[];
  formats: Format[];
}

/** How the numbers of a style are shown. */
type Format = 'number' | 'date' | 'percent' | { zeros: number } | { currency: string };

export async function xlsxSheets(path: string): Promise<Sheet[]> {
  const zip = await Zip.open(path);
  try {
    return (await sheetParts(zip)).sheets.map(({ name, hidden }) => ({ name, hidden }));
  } finally {
    zip.close();
  }
}

/** The rows of a sheet, blank ones included; of the first one that is not hidden where none is named. */
export async function* xlsxRows(path: string, sheet: string | null): AsyncGenerator<string[]> {
  const zip = await Zip.open(path);
  try {
    const { sheets, zero } = await sheetParts(zip);
    const part =
      sheets.find(({ name }) => name === sheet) ?? sheets.find(({ hidden }) => !hidden) ?? sheets[0];
    if (!part) throw new Error('it has no sheet.');
    const book = { sheets, zero, strings: await sharedStrings(zip), formats: await cellFormats(zip) };
    const behind = await behindRows(zip, part.path);
    yield* sheetRows(zip, part.path, book, behind);
  } finally {
    zip.close();
  }
}

async function sheetParts(zip: Zip): Promise<{ sheets: SheetPart[]; zero: number }> {
  const text = await zip.text('xl/workbook.xml');
  if (text === null) throw new Error('it has no list of sheets.');
  const targets = new Map<string, string>();
  readXml((await zip.text('xl/_rels/workbook.xml.rels')) ?? '<none/>', {
    open: (name, { Id, Target }) => {
      if (name === 'Relationship')
        targets.set(Id!, Target!.startsWith('/') ? Target!.slice(1) : `xl/${Target!.replace(/^\.\//, '')}`);
    },
  });
  const sheets: SheetPart[] = [];
  let zero = dayOf('1899-12-30')!;
  readXml(text, {
    open: (tag, attributes) => {
      if (tag === 'workbookPr' && /^(1|true)$/.test(attributes.date1904 ?? '')) zero = dayOf('1904-01-01')!;
      const path = tag === 'sheet' ? targets.get(attributes.id ?? '') : undefined;
      if (path !== undefined && zip.has(path))
        sheets.push({ name: attributes.name!, hidden: (attributes.state ?? 'visible') !== 'visible', path });
    },
  });
  return { sheets, zero };
}

async function sharedStrings(zip: Zip): Promise<string[]> {
  const name = zip.names.find((one) => /^xl\/sharedStrings\.xml$/i.test(one));
  if (name === undefined) return [];
  const strings: string[] = [];
  const text = new TextOf('si');
  for await (const one of streamXml(await zip.stream(name), text, () => text.take())) strings.push(one);
  return strings;
}

/** Collects the texts of the elements of one name, rich text joined, readings of characters left out. */
class TextOf implements XmlHandler {
  private readonly element: string;
  private ready: string[] = [];
  private collected = '';
  private inside = false;
  private reading = false;

  constructor(element: string) {
    this.element = element;
  }
  open(name: string): void {
    if (name === this.element) this.collected = '';
    if (name === 'rPh') this.reading = true;
    if (name === 't') this.inside = !this.reading;
  }
  close(name: string): void {
    if (name === 't') this.inside = false;
    if (name === 'rPh') this.reading = false;
    if (name === this.element) this.ready.push(this.collected);
  }
  text(text: string): void {
    if (this.inside) this.collected += text;
  }
  take(): string[] {
    const ready = this.ready;
    this.ready = [];
    return ready;
  }
}

/** Numbers of the formats of dates that every workbook has without saying so. */
const BUILT_IN_DATES = new Set([14, 15, 16, 17, 18, 19, 20, 21, 22, 27, 30, 36, 45, 46, 47, 50, 57]);
const BUILT_IN_PERCENT = new Set([9, 10]);

async function cellFormats(zip: Zip): Promise<Format[]> {
  const text = await zip.text('xl/styles.xml');
  const own = new Map<number, string>();
  const formats: Format[] = [];
  let inCells = false;
  if (text !== null)
    readXml(text, {
      open: (name, attributes) => {
        if (name === 'numFmt') own.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
        if (name === 'cellXfs') inCells = true;
        if (name === 'xf' && inCells) formats.push(formatOf(Number(attributes.numFmtId ?? 0), own));
      },
      close: (name) => {
        if (name === 'cellXfs') inCells = false;
      },
    });
  return formats;
}

function formatOf(id: number, own: ReadonlyMap<number, string>): Format {
  const code = own.get(id);
  if (code === undefined)
    return BUILT_IN_DATES.has(id) ? 'date' : BUILT_IN_PERCENT.has(id) ? 'percent' : 'number';
  const bare = code
    .slice(0, 255)
    .replace(/"[^"]*"/g, '')
    .replace(/\\./g, '')
    .split('[')
    .map((part, i) => (i === 0 ? part : part.slice(part.indexOf(']') + 1)))
    .join('');
  if (/^0{2,}$/.test(bare)) return { zeros: bare.length };
  if (bare.includes('%')) return 'percent';
  if (/[dy]/i.test(bare) && !/[#0]/.test(bare)) return 'date';
  const currency = currencyShown(code);
  return currency === null ? 'number' : { currency };
}

/** Currencies whose sign is that of others, too, by the locale that a format names beside it (Microsoft's language codes, MS-LCID). */
const OF_LOCALE: Readonly<Record<string, string>> = {
  ...{ '41d': 'SEK', '414': 'NOK', '406': 'DKK', '40f': 'ISK', '1009': 'CAD', c09: 'AUD', '1409': 'NZD' },
};

/** The currency that a format shows beside figures: [$CHF], [$kr-41D], "Kč", €; null where it shows none. */
function currencyShown(code: string): string | null {
  const text = code.slice(0, 255);
  for (const [, sign, locale] of text.matchAll(/\[\$([^\]-]{1,8})(?:-([\da-f]{1,8}))?\]/gi)) {
    const found =
      OF_LOCALE[(locale ?? '').toLowerCase()] ?? currencyIn(asWord(sign!.trim()), CURRENCIES)?.currency;
    if (found) return found;
  }
  const literal = text.replace(/\[[^\]]{0,40}\]/g, '').match(/"[^"]{1,20}"|[€£¥$₺₴₩₹₪]/g) ?? [];
  for (const part of literal) {
    const found = currencyIn(asWord(part.replace(/["\s]/g, '')), CURRENCIES);
    if (found) return found.currency;
  }
  return null;
}

/** By column, the rows to which merged cells reach down: [first, last] rows from 1. */
type Merged = Map<number, [number, number][]>;

/** What a sheet says behind its rows: which cells are merged, and by row and column where cells lead to. */
interface BehindRows {
  merged: Merged;
  links: ReadonlyMap<string, string>;
}

async function behindRows(zip: Zip, path: string): Promise<BehindRows> {
  const merged: Merged = new Map();
  const links = new Map<string, string>();
  const targets = await linkTargets(zip, path);
  let rest = '';
  const stream = await zip.stream(path);
  stream.setEncoding('utf8');
  for await (const chunk of stream) {
    const text = rest + (chunk as string);
    for (const [, column, first, last] of text.matchAll(
      /<(?:\w+:)?mergeCell [^>]*?ref="([A-Z]+)(\d+):[A-Z]+(\d+)"/g,
    )) {
      if (Number(last) <= Number(first)) continue;
      const at = columnOf(column!);
      const ranges = merged.get(at) ?? [];
      ranges.push([Number(first), Number(last)]);
      merged.set(at, ranges);
    }
    if (targets.size > 0)
      for (const [tag] of text.matchAll(/<(?:\w+:)?hyperlink [^>]*>/g)) {
        const cell = / ref="([A-Z]+)(\d+)/.exec(tag);
        const target = targets.get(/:id="([^"]*)"/.exec(tag)?.[1] ?? '');
        if (cell && target !== undefined) links.set(`${cell[2]} ${columnOf(cell[1]!)}`, target);
      }
    // A tag that is cut off here is found with the next chunk.
    rest = text.slice(Math.max(text.lastIndexOf('<'), text.length - 2000));
  }
  // The last comes first, so that the rows take them off the end as they pass.
  for (const ranges of merged.values()) ranges.sort(([a], [b]) => b - a);
  return { merged, links };
}

async function* sheetRows(
  zip: Zip,
  path: string,
  book: Workbook,
  behind: BehindRows,
): AsyncGenerator<string[]> {
  const reader = new RowReader(book, behind);
  yield* streamXml(await zip.stream(path), reader.handler, () => reader.take());
}

/** Rows that are left out in a sheet and still count; more than these are a mistake. */
const MOST_BLANK_ROWS = 100_000;

class RowReader {
  private ready: string[][] = [];
  private row: string[] = [];
  private number = 0;
  private at = 0;
  private type = 'n';
  private style = 0;
  private value = '';
  private inValue = false;
  private inReading = false;
  private readonly book: Workbook;
  private readonly merged: Merged;
  private readonly links: BehindRows['links'];
  private readonly above = new Map<number, string>();

  constructor(book: Workbook, { merged, links }: BehindRows) {
    this.book = book;
    this.merged = merged;
    this.links = links;
  }

  readonly handler = {
    open: (name: string, attributes: Readonly<Record<string, string>>) => this.open(name, attributes),
    text: (text: string) => {
      if (this.inValue) this.value += text;
    },
    close: (name: string) => this.close(name),
  };

  take(): string[][] {
    const ready = this.ready;
    this.ready = [];
    return ready;
  }

  private open(name: string, attributes: Readonly<Record<string, string>>): void {
    if (name === 'row') {
      const number = Number(attributes.r ?? this.number + 1);
      if (number - this.number > MOST_BLANK_ROWS) throw new Error(`it jumps to row ${number}.`);
      while (++this.number < number) this.ready.push([]);
      this.row = [];
      this.at = -1;
    } else if (name === 'c') {
      // Where a cell stands may be left out; then it is the next one.
      this.at = attributes.r === undefined ? this.at + 1 : columnOf(attributes.r);
      if (this.at >= MOST_COLUMNS)
        throw new Error(`a cell stands in column ${this.at + 1}; sheets have at most ${MOST_COLUMNS}.`);
      this.type = attributes.t ?? 'n';
      this.style = Number(attributes.s ?? 0);
      this.value = '';
    } else if (name === 'rPh') this.inReading = true;
    else if (name === 'v' || (name === 't' && !this.inReading)) this.inValue = true;
  }

  private close(name: string): void {
    if (name === 'v' || name === 't') this.inValue = false;
    else if (name === 'rPh') this.inReading = false;
    else if (name === 'c') {
      while (this.row.length < this.at) this.row.push('');
      this.row[this.at] = saidBy(this.text(), this.links.get(`${this.number} ${this.at}`));
    } else if (name === 'row') {
      for (const [column, ranges] of this.merged) this.fillDown(column, ranges);
      this.ready.push(this.row);
    }
  }

  private fillDown(column: number, ranges: [number, number][]): void {
    while (ranges.length && ranges.at(-1)![1] < this.number) ranges.pop();
    const range = ranges.at(-1);
    if (!range || this.number < range[0]) return;
    if (this.number === range[0]) this.above.set(column, this.row[column] ?? '');
    else if ((this.row[column] ?? '') === '') {
      while (this.row.length < column) this.row.push('');
      this.row[column] = this.above.get(column) ?? '';
    }
  }

  private text(): string {
    const { value, type } = this;
    if (type === 's') return this.book.strings[Number(value)] ?? '';
    if (type === 'b') return value === '1' ? 'true' : 'false';
    if (type !== 'n' || value === '') return value.replace(/_x000D_/g, '');
    return numberText(Number(value), this.book.formats[this.style] ?? 'number', this.book.zero);
  }
}

/** A number of a workbook as text that reads as the same, whatever decimal mark its column has. */
export function numberText(value: number, format: Format, zero: number): string {
  if (format === 'date' && value >= 1 && value < 2_958_466) return isoOf(zero + Math.floor(value));
  if (format === 'percent') return `${plainNumber(Number((value * 100).toPrecision(15)))}%`;
  if (typeof format === 'object' && 'currency' in format) return `${plainNumber(value)} ${format.currency}`;
  if (typeof format === 'object' && Number.isInteger(value) && value >= 0)
    return String(value).padStart(format.zeros, '0');
  return plainNumber(value);
}

function plainNumber(value: number): string {
  const text = String(Number(value.toPrecision(15)));
  // With just three decimals it could be taken for thousands.
  return /\.\d{3}$/.test(text) ? `${text}E0` : text;
}

/** The place of a column, from 0: A is 0, AA is 26. Letters beyond the third are another file's. */
function columnOf(reference: string): number {
  let at = 0;
  for (const letter of reference.slice(0, 4)) {
    const code = letter.charCodeAt(0) - 64;
    if (code < 1 || code > 26) break;
    at = at * 26 + code;
  }
  return at - 1;
}
