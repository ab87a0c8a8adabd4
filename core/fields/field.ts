/** What a field holds, which decides its test, its picker, its column in the engine and its SQL. */
export type FieldKind =
  | 'category'
  | 'flag'
  | 'number'
  | 'money'
  | 'rank'
  | 'keyed'
  | 'growth'
  | 'date'
  | 'codes'
  | 'place'
  | 'text'
  | 'list'
  | 'record'
  | 'peers'
  | 'label';

/** What a field is about; a choice of conditions lists them by section. */
export const SECTIONS = {
  what: 'What it does',
  where: 'Where',
  size: 'Size',
  growth: 'Age and growth',
  technology: 'Technology and website',
  market: 'Brands, channels and money raised',
  standing: 'Standing',
  people: 'Who runs what',
} as const;

/** Where a field's values are kept in the universe's tables. The subject's own table is `company`, `person` and so on. */
export type Store =
  /** One column of the subject's table. */
  | { at: 'column'; column: string }
  /** `<stem>_low`, `_high`, `_point`, `_basis` and `_why` of the subject's table; money also has a `<stem>_currency` and, for sums and orders, `<stem>_eur_…`. */
  | { at: 'range'; stem: string }
  /**
   * A table of (record, value); `known` is the column of the subject's table that is null where nothing was ever
   * recorded, `seen` the column of the table with the day a value was first seen.
   */
  | { at: 'many'; table: string; value: string; known: string | null; seen?: string; days?: 'of change' }
  /** `company_measure`, or `table`: numbers by key. What a key that is not there means for a record that has others: 0, or unknown. */
  | { at: 'keyed'; measure: string; absent: 0 | null; table?: string }
  /** Made of other fields when it is asked for. */
  | { at: 'rank' }
  /** The lists of the workspace. */
  | { at: 'lists' }
  /** The ledger of exports. */
  | { at: 'handed' }
  /** The runs of saved tapes. */
  | { at: 'joined' }
  /** `company_code`. */
  | { at: 'codes' }
  /** `country`, `region`, `town`, `postcode`, `lat`, `lon` of `company`. */
  | { at: 'place' }
  /** The full-text index `company_words`. */
  | { at: 'words' }
  /** A text of the subject's table; `<column>_words` has it as `wordsColumn` makes it. */
  | { at: 'text'; column: string }
  /** What the companies are called that a record hangs on, in a role where it has roles; by name where `says` is left out. */
  | { at: 'parties'; role?: string; says?: PartySays }
  /** Figures by year or month, as JSON in a column of the subject's table. */
  | { at: 'history'; column: string }
  /** The key of the record itself. */
  | { at: 'key' }
  /** The person of a department who stands highest: a column of `person`. */
  | { at: 'holder'; department: string; column: 'name' | 'mail' }
  /** Measured between companies when it is asked for. */
  | { at: 'peers' }
  /** The address book of the workspace. */
  | { at: 'contacts' };

/**
 * What a column says of a company that a record hangs on: its registration number, domain or country, or all of it of several
 * companies (core/records/party-words.ts).
 */
export type PartySays = 'number' | 'domain' | 'country' | 'all';

/** A column of a file that a field can be read from. */
export interface FileColumn {
  /** Id of the column among all file columns. */
  id: string;
  label: string;
  /** Headings that mean it, in several languages, compared folded with spaces and punctuation left out. */
  headings: readonly string[];
}

/** How a field stands in the sheet and in an export. */
export interface SheetColumn {
  heading: string;
  /** Width in pixels until the user drags it. */
  width: number;
  numeric?: boolean;
  /** False where an order would say nothing. */
  sortable?: boolean;
  /** Keyed fields: the one key shown; all of them as a list where left out. */
  key?: string;
}

/** Something known of a subject, declared once. */
export interface Field {
  id: string;
  subject: string;
  section: keyof typeof SECTIONS;
  kind: FieldKind;
  label: string;
  /** One sentence for people: what the value is. */
  meaning: string;
  store: Store;
  /** What says how old a value is: its own year, or a date field. Without it nothing says so, and no freshness can be asked. */
  dated?: 'year' | (string & {});
  /** Numbers: the field whose calendar years are counted from, up to the as-of date. Its column serves both. */
  yearsSince?: string;
  /** Words that open a typed line on it; empty where it cannot be a line. */
  openers: readonly string[];
  column: SheetColumn | null;
  files: readonly FileColumn[];
  /** Numbers and keyed fields: where the bars of a histogram begin, where decades would not do. */
  bars?: readonly number[];
  /** Number fields: what is counted, printed after the figure. */
  unit?: string;
  /** Category fields whose values stand from the highest down, so that "director+" has a meaning. */
  ordered?: true;
  /** Category and keyed fields whose values or keys never change. */
  values?: readonly { key: string; label: string; also?: readonly string[] }[];
}

/** Whether the figures of a field are whole: counts of people, years, things. */
export function isWhole({ kind, unit }: Pick<Field, 'kind' | 'unit'>): boolean {
  return (kind === 'number' || kind === 'keyed' || kind === 'rank') && unit !== '%';
}

/** The least by which bars and words tell figures of a field apart: 1 where they are whole, a hundredth of money, else a thousandth. */
export function stepOf(field: Pick<Field, 'kind' | 'unit'>): 1 | 0.01 | 0.001 {
  if (isWhole(field)) return 1;
  return field.kind === 'money' ? 0.01 : 0.001;
}

/** Whether a record may have several values of a category. */
export function isMany({ store }: Pick<Field, 'store'>): boolean {
  return store.at === 'many' || store.at === 'handed' || store.at === 'joined';
}

/** Whether each value of a category has a day, within a span of which it can be asked for. */
export function hasDays({ store }: Pick<Field, 'store'>): boolean {
  return store.at === 'handed' || store.at === 'joined' || (store.at === 'many' && store.seen !== undefined);
}

/** Whether the day of a value is that on which it was first seen, and not that on which something was done. */
export function saysFirstSeen({ store }: Pick<Field, 'store'>): boolean {
  return store.at === 'many' && store.days === undefined;
}

const IN_NO_TABLE: ReadonlySet<Store['at']> = new Set<Store['at']>([
  ...(['handed', 'joined', 'contacts', 'lists', 'rank', 'peers', 'key', 'words'] as const),
]);

/** Whether every row of an export can be asked to have a value of a field: it is a column, and stands in the tables that files fill. */
export function canBeAsked({ store, column }: Pick<Field, 'store' | 'column'>): boolean {
  return column !== null && !IN_NO_TABLE.has(store.at);
}

/** What a company is to a record of another subject. */
export interface Role {
  key: string;
  /** As in "has a deal as …". */
  label: string;
  /** The roles of the pairs' table that it stands for. */
  stored: readonly string[];
}

/** How the records of a subject hang on companies. */
export interface Relation {
  /** Pairs of record and company: the subject's own table where a record has one company, else a table of parties with roles. */
  table: string;
  /** The column of that table that names the record. */
  record: string;
  /** What a record is to its company: "at" in "people at a company". */
  preposition: 'at' | 'of' | 'with';
  /** None where a record has one company. */
  roles: readonly Role[];
  /** Column of `company` that is 1 where some source covers the subject for the company, else null. */
  known: string;
}

/** A kind of record that a tape can count. */
export interface Subject {
  id: string;
  one: string;
  many: string;
  /** The table of its records; tables of their lists name a record by `<table>_id`. */
  table: string;
  fields: readonly Field[];
  /** Null for companies themselves. */
  relation: Relation | null;
}
