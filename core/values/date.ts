import { dayOf, yearOf } from '../dates.ts';
import { fold } from '../text/fold.ts';
import { CellError, checkLength, type CellStyle } from './cell.ts';

/** Two figures of a year from here on are of the century before. */
const LAST_CENTURY_FROM = 40;

/** Day 0 of the serial numbers with which spreadsheets count days, and those that are taken for one: 1950 to 2079. */
const SERIAL_ZERO = dayOf('1899-12-30')!;
const FIRST_SERIAL = 18_264;
const LAST_SERIAL = 65_745;

const DATE = 'a calendar date such as 2026-09-30 or 30.9.2026';

/**
 * A date: 2026-09-30, 2026. 09. 30., 20260930, 30.9.2026, 30.9.26, 30/09/2026 in the order of the column, 30 September 2026, Sep 30
 * 2026, each with a time or without; or the serial number of a spreadsheet.
 * @returns days since 1970-01-01
 * @throws CellError
 */
export function readDate(text: string, { dates }: Pick<CellStyle, 'dates'>): number {
  checkLength(text, 'a date');
  const cell = withoutTime(text.trim());
  const iso =
    /^(\d{4})[-/.] ?(\d{1,2})[-/.] ?(\d{1,2})\.?$/.exec(cell) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(cell);
  if (iso) return dayFrom(iso[1]!, iso[2]!, iso[3]!);
  const figures = /^(\d{1,2})\s?([./-])\s?(\d{1,2})\s?\2\s?(\d{4}|\d{2})$/.exec(cell);
  if (figures) {
    const [, first, mark, second, year] = figures;
    // With points the day always comes first.
    return dates === 'dmy' || mark === '.'
      ? dayFrom(year!, second!, first!)
      : dayFrom(year!, first!, second!);
  }
  if (/^\d{5}(?:\.\d+)?$/.test(cell)) {
    const serial = Math.floor(Number(cell));
    if (serial >= FIRST_SERIAL && serial <= LAST_SERIAL) return SERIAL_ZERO + serial;
  }
  return dayInWords(cell);
}

/** A calendar year between 1000 and 2100: 1994, 1994.0, "since 1994", 12/2024, or a date. @throws CellError */
export function readYear(text: string): number {
  checkLength(text, 'a year');
  const cell = text.trim().replace(/\.0+$/, '');
  if (BEFORE.test(cell)) throw new CellError(YEAR);
  const short = /^['’](\d\d)$/.exec(cell);
  if (short) return Number(fullYear(short[1]!));
  const alone = /^(?:\D*[^\d.,-]|\d{1,2}\/)?(\d{4})(?:-\d{2}(?:-\d{2})?)?\D*$/.exec(cell);
  const year = alone ? Number(alone[1]) : yearOf(readAsDate(cell));
  if (!(year >= 1000 && year <= 2100)) throw new CellError(YEAR);
  return year;
}

const YEAR = 'a year of four figures';
/** Before a year that is left out: founded before 1990 is not founded in 1990. */
const BEFORE = /^(?:vor|before|pred|před|przed|avant|prima|antes|voor|før|före|ennen|<)\b/i;

function readAsDate(cell: string): number {
  try {
    return readDate(cell, { dates: 'dmy' });
  } catch {
    // 12/31/1994: whichever comes first, the year is the same.
    try {
      return readDate(cell, { dates: 'mdy' });
    } catch {
      throw new CellError(YEAR);
    }
  }
}

/** What the dates with slashes or hyphens of a column say of their order: which of the two some can only have, or 'either' where all can have both. Null where it has none such. */
export function dateOrder(cells: readonly string[]): 'dmy' | 'mdy' | 'either' | 'both' | null {
  let [days, months, any] = [false, false, false];
  for (const text of cells) {
    const found = /^(\d{1,2})[/-](\d{1,2})[/-](?:\d{4}|\d{2})$/.exec(withoutTime(text.trim().slice(0, 40)));
    if (!found) continue;
    any = true;
    if (Number(found[1]) > 12) days = true;
    if (Number(found[2]) > 12) months = true;
  }
  if (!any) return null;
  return days && months ? 'both' : days ? 'dmy' : months ? 'mdy' : 'either';
}

function withoutTime(cell: string): string {
  return cell.replace(/[T ,] ?\d{1,2}:\d{2}.*$/, '');
}

/** The four figures of a year of two. */
const fullYear = (year: string): string => `${Number(year) < LAST_CENTURY_FROM ? 20 : 19}${year}`;

function dayFrom(year: string, month: string, day: string): number {
  const full = year.length === 4 ? year : fullYear(year);
  const found = dayOf(`${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`);
  if (found === null) throw new CellError(DATE);
  return found;
}

const MONTH_LANGUAGES = 'en de cs sk pl fr es it hu nl sv da pt ro sl hr'.split(' ');
let monthNames: Map<string, number> | null = null;

/** Months by their names and short names in several languages, folded; those of which two languages mean two months are left out. */
function months(): Map<string, number> {
  if (monthNames) return monthNames;
  monthNames = new Map();
  for (const language of MONTH_LANGUAGES)
    for (const style of ['long', 'short'] as const) {
      const format = new Intl.DateTimeFormat(language, { month: style, day: 'numeric', timeZone: 'UTC' });
      for (let month = 1; month <= 12; month++) {
        const parts = format.formatToParts(Date.UTC(2026, month - 1, 5));
        const name = plainMonth(parts.find(({ type }) => type === 'month')!.value);
        if (!/[a-z]/.test(name)) continue;
        const known = monthNames.get(name);
        monthNames.set(name, known === undefined || known === month ? month : 0);
      }
    }
  return monthNames;
}

const plainMonth = (name: string) => fold(name).replace(/[^a-z]/g, '');

function dayInWords(cell: string): number {
  const parts =
    /^(\d{1,2})(?:st|nd|rd|th)?[.\s-]*(?:de\s+)?(\p{L}+)[.,\s-]*(?:de\s+)?(\d{4}|\d{2})$/u.exec(cell) ??
    /^(\p{L}+)[.\s]*(\d{1,2})(?:st|nd|rd|th)?[,\s]+(\d{4})$/u.exec(cell);
  if (!parts) throw new CellError(DATE);
  const [day, name] = /\d/.test(parts[1]!) ? [parts[1]!, parts[2]!] : [parts[2]!, parts[1]!];
  const month = months().get(plainMonth(name));
  if (!month) throw new CellError(DATE);
  return dayFrom(parts[3]!, String(month), day);
}
