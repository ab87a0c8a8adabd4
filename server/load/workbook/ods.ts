import { CURRENCIES } from '../../../core/money/rates.ts';
import { numberText } from './xlsx.ts';
import { streamXml, type XmlHandler } from './xml.ts';
import { Zip } from './zip.ts';
import { MOST_COLUMNS, type Sheet } from './sheets.ts';

/** Reads the rows of an ODS workbook, as its content is described in the OpenDocument format 1.2. */

const CONTENT = 'content.xml';

export async function odsSheets(path: string): Promise<Sheet[]> {
  const zip = await Zip.open(path);
  const sheets: Sheet[] = [];
  const hiddenStyles = new Set<string>();
  let style = '';
  const handler: XmlHandler = {
    open: (name, attributes) => {
      if (name === 'style') style = attributes.name ?? '';
      if (name === 'table-properties' && attributes.display === 'false') hiddenStyles.add(style);
      if (name === 'table')
        sheets.push({
          name: attributes.name ?? '',
          hidden: hiddenStyles.has(attributes['style-name'] ?? ''),
        });
    },
  };
  try {
    for await (const _ of streamXml(await zip.stream(CONTENT), handler, () => [])) void _;
    return sheets;
  } finally {
    zip.close();
  }
}

/** The rows of a sheet, blank ones included; of the first one that is not hidden where none is named. */
export async function* odsRows(path: string, sheet: string | null): AsyncGenerator<string[]> {
  const sheets = await odsSheets(path);
  const wanted =
    sheets.find(({ name }) => name === sheet) ?? sheets.find(({ hidden }) => !hidden) ?? sheets[0];
  if (!wanted) throw new Error('it has no sheet.');
  const zip = await Zip.open(path);
  try {
    const reader = new RowReader(sheets.indexOf(wanted));
    yield* streamXml(await zip.stream(CONTENT), reader, () => reader.take());
  } finally {
    zip.close();
  }
}

/** Equal rows on end that are kept as so many; more of them are a filled-up sheet. */
const MOST_REPEATED = 10_000;

class RowReader implements XmlHandler {
  private readonly wanted: number;
  private table = -1;
  private ready: string[][] = [];
  private row: string[] = [];
  private rowTimes = 1;
  private cellTimes = 1;
  private value: string | null = null;
  private paragraphs: string[] = [];
  private depth = 0;
  /** Blank rows that count once a filled one follows. */
  private blanks = 0;
  private span = 1;
  /** By column, what a merged cell above has and for how many more rows. */
  private readonly above = new Map<number, { text: string; rows: number }>();

  constructor(wanted: number) {
    this.wanted = wanted;
  }

  take(): string[][] {
    const ready = this.ready;
    this.ready = [];
    return ready;
  }

  private get reading(): boolean {
    return this.table === this.wanted;
  }

  open(name: string, attributes: Readonly<Record<string, string>>): void {
    if (name === 'table') this.table++;
    if (!this.reading) return;
    if (name === 'table-row') {
      this.row = [];
      this.rowTimes = Number(attributes['number-rows-repeated'] ?? 1);
    } else if (name === 'table-cell' || name === 'covered-table-cell') {
      this.cellTimes = Number(attributes['number-columns-repeated'] ?? 1);
      this.span = Number(attributes['number-rows-spanned'] ?? 1);
      this.value = valueOf(attributes);
      this.paragraphs = [];
    } else if (name === 'annotation') this.depth++;
    else if (name === 'p' && this.depth === 0) this.paragraphs.push('');
    else if (name === 's' && this.depth === 0)
      this.text(' '.repeat(Math.min(100, Number(attributes.c ?? 1))));
  }

  text(text: string): void {
    if (this.reading && this.depth === 0 && this.paragraphs.length)
      this.paragraphs[this.paragraphs.length - 1] += text;
  }

  close(name: string): void {
    if (!this.reading) return;
    if (name === 'annotation') this.depth--;
    else if (name === 'table-cell') this.endCell(this.value ?? this.paragraphs.join('\n'));
    else if (name === 'covered-table-cell') this.endCell('');
    else if (name === 'table-row') this.endRow();
  }

  private endCell(text: string): void {
    const times = Math.min(this.cellTimes, MOST_COLUMNS + 1 - this.row.length);
    for (let i = 0; i < times; i++) {
      const at = this.row.length;
      const over = this.above.get(at);
      if (this.span > 1) this.above.set(at, { text, rows: this.span - 1 });
      if (text === '' && over && over.rows > 0) {
        over.rows--;
        this.row.push(over.text);
      } else this.row.push(text);
    }
  }

  private endRow(): void {
    let width = this.row.length;
    while (width > 0 && this.row[width - 1] === '') width--;
    const row = this.row.slice(0, width);
    if (width === 0) {
      this.blanks += this.rowTimes;
      return;
    }
    for (let i = Math.min(this.blanks, MOST_REPEATED); i > 0; i--) this.ready.push([]);
    this.blanks = 0;
    for (let i = Math.min(this.rowTimes, MOST_REPEATED); i > 0; i--) this.ready.push(row);
  }
}

/** What a cell says of its value; null where only its text says it. */
function valueOf(attributes: Readonly<Record<string, string>>): string | null {
  switch (attributes['value-type']) {
    case 'float':
      return numberText(Number(attributes.value), 'number', 0);
    case 'currency': {
      const { currency = '' } = attributes;
      return numberText(Number(attributes.value), CURRENCIES.includes(currency) ? { currency } : 'number', 0);
    }
    case 'percentage':
      return numberText(Number(attributes.value), 'percent', 0);
    case 'date':
      return (attributes['date-value'] ?? '').slice(0, 10);
    case 'boolean':
      return attributes['boolean-value'] ?? null;
    default:
      return null;
  }
}
