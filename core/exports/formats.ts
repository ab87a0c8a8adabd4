/** The kinds of file that an export can be, in the order they are offered. */

export const FORMAT_IDS = [
  'xlsx',
  'csv',
  'ods',
  'merge',
  'jsonl',
  'parquet',
  'sqlite',
  'geojson',
  'vcard',
  'pdf',
  'dossiers',
  'labels',
  'letters',
] as const;
export type FormatId = (typeof FORMAT_IDS)[number];

export interface Format {
  id: FormatId;
  label: string;
  /** What it is good for and how it is written, in one sentence. */
  says: string;
  /** Ending of its files. */
  ending: string;
  mediaType: string;
  /** Whether "How this list was made" stands inside; else it is put beside, in a ZIP. */
  carries: boolean;
  /** Whether the chosen columns are what it holds; others have a layout of their own. */
  columns: boolean;
  /** Whether its columns go by headings for people; else machines call them by names that stay the same. */
  headings: boolean;
  /** Whether records without a place or an address are left out of it. */
  needs?: 'point' | 'address';
  /** The subjects it is made of; all where left out. */
  subjects?: readonly string[];
}

const PLACED = ['companies', 'sites', 'people'];

export const FORMATS: readonly Format[] = [
  {
    id: 'xlsx',
    label: 'XLSX workbook',
    says: 'Real numbers, dates, currencies and links; estimates marked; filters in the heading.',
    ending: 'xlsx',
    mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    carries: true,
    columns: true,
    headings: true,
  },
  {
    id: 'csv',
    label: 'CSV',
    says: 'UTF-8 text, with a description of its columns beside. Cells that a spreadsheet would run as a formula begin with an apostrophe.',
    ending: 'csv',
    mediaType: 'text/csv; charset=utf-8',
    carries: false,
    columns: true,
    headings: true,
  },
  {
    id: 'ods',
    label: 'ODS spreadsheet',
    says: 'OpenDocument: real numbers and dates, and a second sheet on how it was made.',
    ending: 'ods',
    mediaType: 'application/vnd.oasis.opendocument.spreadsheet',
    carries: true,
    columns: true,
    headings: true,
  },
  {
    id: 'merge',
    label: 'Mail merge',
    says: 'Plain CSV for letters and labels: the chosen columns, and the address line by line as its country writes it.',
    ending: 'csv',
    mediaType: 'text/csv; charset=utf-8',
    carries: false,
    columns: true,
    headings: true,
    needs: 'address',
    subjects: PLACED,
  },
  {
    id: 'jsonl',
    label: 'JSON Lines',
    says: 'One object a line, with the cells as the API gives them.',
    ending: 'jsonl',
    mediaType: 'application/x-ndjson',
    carries: false,
    columns: true,
    headings: false,
  },
  {
    id: 'parquet',
    label: 'Parquet',
    says: 'Typed columns for Python, R and databases; the tape stands in its metadata.',
    ending: 'parquet',
    mediaType: 'application/vnd.apache.parquet',
    carries: true,
    columns: true,
    headings: false,
  },
  {
    id: 'sqlite',
    label: 'SQLite file',
    says: 'One table of the records, and one on how they were chosen.',
    ending: 'sqlite',
    mediaType: 'application/vnd.sqlite3',
    carries: true,
    columns: true,
    headings: false,
  },
  {
    id: 'geojson',
    label: 'GeoJSON',
    says: 'Points for maps (RFC 7946). Records without coordinates stay out.',
    ending: 'geojson',
    mediaType: 'application/geo+json',
    carries: true,
    columns: true,
    headings: false,
    needs: 'point',
    subjects: PLACED,
  },
  {
    id: 'vcard',
    label: 'vCard',
    says: 'Cards for an address book (vCard 4.0).',
    ending: 'vcf',
    mediaType: 'text/vcard; charset=utf-8',
    carries: false,
    columns: false,
    headings: false,
    subjects: PLACED,
  },
  {
    id: 'pdf',
    label: 'PDF sheet',
    says: 'The chosen columns as a table for paper.',
    ending: 'pdf',
    mediaType: 'application/pdf',
    carries: true,
    columns: true,
    headings: true,
  },
  {
    id: 'dossiers',
    label: 'PDF, a page each',
    says: 'One page for each record, with all of the chosen columns.',
    ending: 'pdf',
    mediaType: 'application/pdf',
    carries: true,
    columns: true,
    headings: true,
  },
  {
    id: 'labels',
    label: 'Address labels',
    says: 'PDF of 3 × 8 labels a page (70 × 36 mm on A4).',
    ending: 'pdf',
    mediaType: 'application/pdf',
    carries: true,
    columns: false,
    headings: false,
    needs: 'address',
    subjects: PLACED,
  },
  {
    id: 'letters',
    label: 'Letters',
    says: 'PDF with the address where a window envelope shows it (DIN 5008, form B), and the same text for all.',
    ending: 'pdf',
    mediaType: 'application/pdf',
    carries: true,
    columns: false,
    headings: false,
    needs: 'address',
    subjects: PLACED,
  },
];

export function formatOf(id: FormatId): Format {
  return FORMATS.find((format) => format.id === id)!;
}

/** The formats that records of a subject can be written as. */
export function formatsFor(subject: string): Format[] {
  return FORMATS.filter(({ subjects }) => !subjects || subjects.includes(subject));
}
