import { foldedWords } from '../text/fold.ts';

/** Someone in an address book. */
export interface AddressBookEntry {
  name: string;
  mail: string | null;
  phone: string | null;
  title: string | null;
  organisation: string | null;
}

/**
 * The people of a vCard file (RFC 6350; folded lines and versions 2.1 to 4.0 are read alike). Cards without a name are left out.
 */
export function readVCards(text: string): AddressBookEntry[] {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n[ \t]/g, '')
    .split('\n');
  const entries: AddressBookEntry[] = [];
  let card: Map<string, string> | null = null;
  for (const line of lines) {
    const colon = line.indexOf(':');
    if (colon < 0) continue;
    const key = line.slice(0, colon).split(';')[0]!.split('.').at(-1)!.toUpperCase();
    const value = line.slice(colon + 1).trim();
    if (key === 'BEGIN') card = new Map();
    else if (key === 'END') {
      if (card) entries.push(...entryOf(card));
      card = null;
    } else if (card && value !== '' && !card.has(key)) card.set(key, value);
  }
  return entries;
}

function entryOf(card: ReadonlyMap<string, string>): AddressBookEntry[] {
  const text = (key: string) => {
    const value = card.get(key);
    return value === undefined ? null : unescaped(value);
  };
  const parts = partsOf(card.get('N'));
  const name = text('FN') ?? [parts[1], parts[0]].filter(Boolean).join(' ');
  if (name === '') return [];
  return [
    {
      name,
      mail: text('EMAIL'),
      phone: text('TEL')?.replace(/^tel:/i, '') ?? null,
      title: text('TITLE'),
      organisation: partsOf(card.get('ORG'))[0] ?? null,
    },
  ];
}

/** The parts of a value that has several, between semicolons that are not part of a text themselves. */
function partsOf(value: string | undefined): string[] {
  return value === undefined ? [] : value.split(/(?<!\\);/).map(unescaped);
}

function unescaped(text: string): string {
  return text.replace(/\\([\\,;nN])/g, (_, char: string) => (char === 'n' || char === 'N' ? ' ' : char));
}

const HEADINGS: Readonly<Record<keyof AddressBookEntry, readonly string[]>> = {
  name: ['name', 'full name', 'display name', 'contact'],
  mail: ['mail', 'email', 'e-mail', 'e-mail address', 'email address', 'e-mail 1 value'],
  phone: ['phone', 'telephone', 'mobile', 'phone 1 value', 'business phone'],
  title: ['title', 'job title', 'position'],
  organisation: ['organisation', 'organization', 'company', 'firm', 'employer', 'organization 1 name'],
};

/** The people of a sheet by its headings; first and last name may stand apart. Null where no column is a name or a mail address. */
export function readContactRows(
  header: readonly string[],
  rows: Iterable<readonly string[]>,
): AddressBookEntry[] | null {
  const plain = header.map((one) => foldedWords(one).join(' '));
  const at = (names: readonly string[]) =>
    plain.findIndex((one) => names.some((name) => foldedWords(name).join(' ') === one));
  const columns = Object.fromEntries(
    Object.entries(HEADINGS).map(([key, names]) => [key, at(names)]),
  ) as Record<keyof AddressBookEntry, number>;
  const [first, last] = [at(['first name', 'given name']), at(['last name', 'family name', 'surname'])];
  if (columns.name < 0 && first < 0 && last < 0 && columns.mail < 0) return null;
  const entries: AddressBookEntry[] = [];
  for (const cells of rows) {
    const cell = (column: number) => (column < 0 ? '' : (cells[column] ?? '').trim());
    const mail = cell(columns.mail);
    const name = cell(columns.name) || [cell(first), cell(last)].filter(Boolean).join(' ') || mail;
    if (name === '') continue;
    entries.push({
      name,
      mail: mail || null,
      phone: cell(columns.phone) || null,
      title: cell(columns.title) || null,
      organisation: cell(columns.organisation) || null,
    });
  }
  return entries;
}
