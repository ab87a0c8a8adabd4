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
  | 'label';

/** What a field is about; a choice of conditions lists them by section. */
export const SECTIONS = {
  what: 'What it does',
  where: 'Where',
  size: 'Size',
  growth: 'Age and growth',
  technology: 'Technology and site',
  standing: 'Standing',
} as const;

/** Where a field's values are kept in the universe's tables. */
export type Store =
  /** One column of `company`. */
  | { at: 'column'; column: string }
  /** `<stem>_low`, `_high`, `_point`, `_basis` and `_why` of `company`; money compares its `<stem>_eur_…` columns. */
  | { at: 'range'; stem: string }
  /**
   * A table of (company, value); `known` is the column of `company` that is null where nothing was ever
   * recorded, `seen` the column of the table with the day a value was first seen.
   */
  | { at: 'many'; table: string; value: string; known: string | null; seen?: string }
  /** `company_measure`: numbers by key. What a key that is not there means for a company that has others: 0, or unknown. */
  | { at: 'keyed'; measure: string; absent: 0 | null }
  /** Made of other fields when it is asked for. */
  | { at: 'rank' }
  /** The lists of the workspace. */
  | { at: 'lists' }
  /** `company_code`. */
  | { at: 'codes' }
  /** `country`, `region`, `town`, `postcode`, `lat`, `lon` of `company`. */
  | { at: 'place' }
  /** The full-text index `company_words`. */
  | { at: 'words' };

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
  /** Number fields: what is counted, printed after the figure. */
  unit?: string;
  /** Category and keyed fields whose values or keys never change. */
  values?: readonly { key: string; label: string }[];
}

/** A kind of record that a tape can count. */
export interface Subject {
  id: string;
  one: string;
  many: string;
  fields: readonly Field[];
}
