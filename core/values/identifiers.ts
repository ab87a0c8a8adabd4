import { CellError } from './cell.ts';

/** Letters and figures of a number as people wrote it, and what they may have lost on the way through a spreadsheet. */

/** How many figures the registration numbers of a country have, where they have only figures and always as many. */
const FIGURES: Readonly<Record<string, number>> = {
  BE: 10,
  CZ: 8,
  DK: 8,
  FI: 8,
  FR: 9,
  GB: 8,
  NL: 8,
  NO: 9,
  SE: 10,
  SI: 7,
  SK: 8,
};

/** Leading zeros that a spreadsheet can have eaten; more missing figures are another number. */
const MOST_ZEROS = 4;

/** What a register's number is called, before it: "IČO: 12345678". Where numbers are told apart by such a word, as HRB and HRA, it stays. */
const NUMBER_SAID =
  /^(?:IČO|ICO|IČ|IC|KRS|REGON|SIREN|KVK|CVR|OIB|EIK|CRN|REG(?:ISTRATION)?\.? ?(?:NO|NR|NUMBER)\.?|COMPANY ?(?:NO|NUMBER)\.?|ORG\.? ?N[RO]\.?|DIČ(?= ?:? ?CZ))[ .:]*(?=[A-Z]{0,2} ?\d)/i;

/**
 * A registration number as numbers are compared: capitals and figures only, without the country's letters before
 * figures, with the leading zeros that its country's numbers have. "CZ 012 34 567", "1234567.0" and "01234567" are one.
 */
export function plainRegistration(text: string, country: string | null): string {
  const isPlain = /^\d+$/.test(text);
  let plain = isPlain
    ? text
    : text
        .trim()
        .replace(NUMBER_SAID, '')
        .replace(/^(\d+)\.0$/, '$1')
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, '');
  if (!isPlain && country && plain.startsWith(country) && /^\d+$/.test(plain.slice(2)))
    plain = plain.slice(2);
  const figures = country === null ? undefined : FIGURES[country];
  if (figures && /^\d+$/.test(plain) && plain.length < figures && figures - plain.length <= MOST_ZEROS)
    plain = plain.padStart(figures, '0');
  return plain;
}

/** How many figures postcodes have, where they are figures only and may begin with noughts. */
const POSTCODE_FIGURES: Readonly<Record<string, number>> = {
  DE: 5,
  EE: 5,
  ES: 5,
  FI: 5,
  FR: 5,
  IT: 5,
  LT: 5,
  US: 5,
};

/** A postcode with the leading zero back that a spreadsheet has eaten. */
export function readPostcode(text: string, country: string | null): string | null {
  if (NOUGHTS.test(text)) return null;
  const plain = whole(text)
    .replace(/^(\d+)\.0$/, '$1')
    .replace(COUNTRY_BEFORE, '');
  const figures = POSTCODE_FIGURES[country ?? ''];
  return figures && /^\d+$/.test(plain) && figures - plain.length === 1
    ? plain.padStart(figures, '0')
    : plain;
}

/** The figures of a whole number that a spreadsheet wrote by powers of ten with all of them: 6.0200E+04. */
function whole(text: string): string {
  const parts = /^(\d)[.,](\d{1,8})E\+0?(\d)$/i.exec(text);
  return parts && parts[2]!.length >= Number(parts[3])
    ? parts[1]! + parts[2]!.slice(0, Number(parts[3]))
    : text;
}

/** Nothing but noughts is what programs write where they have nothing. */
const NOUGHTS = /^0[0\s.-]*$/;
/** A country before the figures of a postcode: D-89073, CZ 602 00. */
const COUNTRY_BEFORE = /^[A-Z]{1,3}[- ](?=\d{2})/;

/** A registration number as it came, with the zeros back that were eaten; null for nothing but noughts. @throws CellError */
export function readRegistration(text: string, country: string | null): string | null {
  if (NOUGHTS.test(text)) return null;
  if (/^\d+([.,]\d+)?e\+?\d+$/i.test(text))
    throw new CellError('a number with all its figures; a spreadsheet has cut this one');
  if (!/^\d+(?:\.0)?$/.test(text.trim())) return text;
  return plainRegistration(text, country);
}

/**
 * A phone number. One that a spreadsheet took for a figure gets its plus back where it begins with the dialling code
 * (such as "+420").
 * @throws CellError where figures were cut
 */
export function readPhone(text: string, dialling: string | null): string {
  if (/^\d[.,]\d+e\+?\d+$/i.test(text)) {
    const whole = Number(text.replace(',', '.'));
    if (text.split(/e/i)[0]!.replace(/\D/g, '').length < String(whole).length - 1)
      throw new CellError('a number with all its figures; a spreadsheet has cut this one');
    return readPhone(String(whole), dialling);
  }
  const phone = text
    .split(FAX, 1)[0]!
    .trim()
    .replace(/[,;|/·-]$/, '')
    .trim()
    .replace(PHONE_BEFORE, '')
    .replace(/^(\d+)\.0$/, '$1');
  if (!/\d{3}/.test(phone.replace(/[^\d]/g, ''))) throw new CellError('a phone number');
  const code = dialling?.slice(1) ?? '';
  return code !== '' && /^\d+$/.test(phone) && phone.startsWith(code) && phone.length >= code.length + 8
    ? `+${phone}`
    : phone;
}

/** What stands before a number: "Tel.: ", "T ", "Phone ", and the apostrophe by which spreadsheets keep a plus. */
const PHONE_BEFORE = /^(?:'|(?:tel|telefon|telephone|phone|fon|mobil|mobile|t|m|p)\b[.:]* *)+/i;
/** A number of a fax behind that of the phone. */
const FAX = /\b(?:tele)?fax\b/i;

const TRACKERS = /^(utm_\w+|fbclid|gclid|msclkid|mc_[ce]id|ref|source)$/i;

/** A host alone, as nearly all files write web addresses: it stays as it is. */
const PLAIN_HOST = /^[a-z0-9-]+(?:\.[a-z0-9-]+)+$/;

/** What stands between addresses where a cell has several. */
const BETWEEN_ADDRESSES = / \/ |[;,|\s]/;

/** The first of several addresses that one cell has, where each of them is one; else the cell as it is. */
function firstOf(text: string, isOne: (part: string) => boolean): string {
  const parts = text.split(BETWEEN_ADDRESSES).filter(Boolean);
  return parts.length > 1 && parts.every(isOne) ? parts[0]! : text;
}

const WEB = /^(?:[a-z]+:\/\/)?[^\s/.@()[\]<>"]+(?:\.[^\s/.@()[\]<>"]+)+(?::\d+)?(?:\/\S*)?$/i;

/** A web address without scheme, trackers and closing slash; the first of several. @throws CellError */
export function readWeb(cell: string): string {
  if (PLAIN_HOST.test(cell)) return cell;
  const text = firstOf(cell, (part) => WEB.test(part)).replace(/\.$/, '');
  const plain = text.replace(/^[a-z]+:\/\//i, '').split('#')[0]!;
  const [path, query] = plain.split('?', 2);
  const kept = (query ?? '').split('&').filter((part) => part !== '' && !TRACKERS.test(part.split('=')[0]!));
  const bare = path!.split('/').reduceRight((end, part) => (end === '' ? part : `${part}/${end}`), '');
  if (!WEB.test(bare)) throw new CellError('a web address such as foo.example');
  const [host, ...rest] = bare.split('/');
  const address = [host!.toLowerCase(), ...rest].join('/');
  return kept.length ? `${address}?${kept.join('&')}` : address;
}

const MAIL = /^[^\s@,;<>]+@[^\s@,;<>]+\.[^\s@,;<>.]+$/;

/** What people write for signs so that machines find no address: info(at)foo.example, info [at] foo [dot] example. */
const unhidden = (text: string): string =>
  text.replace(/ ?[([{](?:at|a)[)\]}] ?/gi, '@').replace(/ ?[([{](?:dot|punkt|tecka)[)\]}] ?/gi, '.');

/** A mail address, also as "Name <a@foo.example>", "mailto:a@foo.example" or with signs in words; the first of several. @throws CellError */
export function readMail(text: string): string {
  const bare = (/<([^<>\s]+)>$/.exec(text)?.[1] ?? text).replace(/^mailto:/i, '');
  if (MAIL.test(bare)) return bare;
  const plain = firstOf(unhidden(bare), (part) => MAIL.test(part));
  if (!MAIL.test(plain)) throw new CellError('a mail address such as office@foo.example');
  return plain;
}
