import { stringify } from 'csv-stringify/sync';
import { writeFileSync } from 'node:fs';
import { guessMade } from '../../core/records/guess-made.ts';
import { guessSubject, knownHeading } from '../../core/records/headings.ts';
import { lyingTable } from '../../core/records/table-shape.ts';
import { guessMapping, type Mapping, type MappingDefaults } from '../../core/records/mapping.ts';
import { CURRENCIES } from '../../core/money/rates.ts';
import { countryIn, townsOf } from '../../core/values/place.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../reference.ts';
import { prepareFile } from './prepare.ts';
import { previewFile, type FilePreview, type FileReading } from './read-file.ts';

/** A file as it is recognised. */
export interface Recognised {
  preview: FilePreview;
  /** What it was before it was made a table; null where it is as it came. */
  was: string | null;
  subject: string;
  mapping: Mapping;
}

export interface RecogniseWish {
  path: string;
  /** What is not to be recognised but taken as it is said. */
  reading: Partial<FileReading>;
  subject?: string;
  /** True the first time: an archive is unpacked, and JSON, vCard and Parquet become tables. */
  fresh?: boolean;
  defaults: MappingDefaults;
}

/** How a file looks, what its rows are and what its columns may mean. @throws Problem */
export async function recognise(wish: RecogniseWish): Promise<Recognised> {
  const prepared = wish.fresh ? await prepareFile(wish.path) : null;
  let asItIs = await previewFile(wish.path, wish.reading);
  const turned = wish.fresh && asItIs.header.filter(knownHeading).length < 2 && (await turnUp(wish.path));
  if (turned) asItIs = await previewFile(wish.path, wish.reading);
  const was =
    [prepared, turned ? 'turned from a column for each record' : null].filter(Boolean).join(', ') || null;
  const subject = wish.subject ?? guessSubject(asItIs.header);
  const preview = await withPieces(wish, asItIs, subject);
  const places = loadGazetteer();
  const mapping = guessMapping(preview.header, preview.rows, loadCodeTrees(), wish.defaults, subject, {
    ...(preview.kind === 'csv' ? { delimiter: preview.delimiter } : {}),
    made: preview.made?.length ?? 0,
    sameCode: sameInBoth(),
    isCountry: (text) => countryIn(text, places) !== null,
    isTown: (text, country) => {
      // What stands behind a comma says where the town lies.
      const town = text.split(',')[0]!;
      return (country === null ? places.townsNamed(town) : townsOf(town, country, null, places)).length > 0;
    },
    isRegion: (text, country) => places.regionsNamed(text, country).length > 0,
    countriesOf: (town) => places.townsNamed(town.replace(/^[\d -]{4,7} /, '')).map(({ country }) => country),
    currencyOf: (country) => CURRENCIES.find((code) => code === places.country(country)?.currency) ?? null,
  });
  return { preview, was, subject, mapping };
}

/** Turns a table that has a column for each record; false where it is none. A workbook of several sheets stays as it is. */
async function turnUp(path: string): Promise<boolean> {
  const { sheets, rows: read } = await previewFile(path, { skip: 0, hasHeader: false });
  const lying = sheets.length > 1 ? null : lyingTable(read);
  if (lying === null) return false;
  const width = Math.max(...lying.map((cells) => cells.length));
  const rows = Array.from({ length: width }, (_, i) => lying.map((cells) => cells[i] ?? ''));
  // The names stand beside a blank cell.
  if (rows[0]![0]!.trim() === '') rows[0]![0] = 'Company';
  writeFileSync(path, stringify(rows));
  return true;
}

/** The file with the columns that it has in pieces, unless what is made of them is said. */
async function withPieces(
  { path, reading }: RecogniseWish,
  preview: FilePreview,
  subject: string,
): Promise<FilePreview> {
  if (reading.made !== undefined || !preview.hasHeader) return preview;
  const made = guessMade(preview.header, preview.rows, subject);
  return made.length ? previewFile(path, { ...reading, made }) : preview;
}

/** Tells of a cell of codes whether what it says is the same in NACE 2 and NACE 2.1. */
function sameInBoth(): (cell: string) => boolean {
  let same: Set<string> | null = null;
  return (cell) => {
    same ??= new Set(
      readReference('codes/crosswalk.tsv.gz')
        .split('\n')
        .map((line) => line.split('\t'))
        .filter(
          ([from, a, to, b, kind]) => from === 'nace-2' && to === 'nace-2.1' && a === b && kind === 'exact',
        )
        .map(([, code]) => plainCode(code!)),
    );
    return cell.split(/[;,|]/).every((code) => same!.has(plainCode(code)));
  };
}

/** The first four figures of a code: what a national one has behind them extends it. */
const plainCode = (code: string) => code.replace(/\D/g, '').slice(0, 4);
