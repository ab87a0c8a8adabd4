/** What a field holds, which decides its test, its picker, its column in the engine and its SQL. */
export type FieldKind = 'category' | 'number' | 'money' | 'date' | 'codes' | 'place' | 'text' | 'label';

/** Where a field's values are kept in the universe's tables. */
export type Store =
  /** One column of `company`. */
  | { at: 'column'; column: string }
  /** `<stem>_low`, `_high`, `_point`, `_basis` and `_why` of `company`; money compares its `<stem>_eur_…` columns. */
  | { at: 'range'; stem: string }
  /** A table of (company, value); `known` is the column of `company` that is null where nothing was ever recorded. */
  | { at: 'many'; table: string; value: string; known: string | null }
  /** `company_code`. */
  | { at: 'codes' }
  /** `country`, `region`, `town`, `lat`, `lon` of `company`. */
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
}

/** Something known of a subject, declared once. */
export interface Field {
  id: string;
  subject: string;
  kind: FieldKind;
  label: string;
  /** One sentence for people: what the value is. */
  meaning: string;
  store: Store;
  /** Words that open a typed line on it; empty where it cannot be a line. */
  openers: readonly string[];
  column: SheetColumn | null;
  files: readonly FileColumn[];
  /** Number fields: what is counted, printed after the figure. */
  unit?: string;
  /** Category fields whose values never change. */
  values?: readonly { key: string; label: string }[];
}

/** A kind of record that a tape can count. */
export interface Subject {
  id: string;
  one: string;
  many: string;
  fields: readonly Field[];
}
