import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'node:zlib';
import { readCrosswalk, type Crosswalk } from '../core/codes/crosswalk.ts';
import { CodeSearches, type Keyword } from '../core/codes/search.ts';
import { readCodeTable, SCHEMES, type CodeTree, type Scheme } from '../core/codes/tree.ts';
import { Gazetteer } from '../core/geo/gazetteer.ts';
import type { CodeNote, ReferenceData } from './engine/universe-lookup.ts';

/** The project's folder, found from the source and from the build alike. */
export const ROOT = findRoot(dirname(fileURLToPath(import.meta.url)));

function findRoot(from: string): string {
  return existsSync(join(from, 'data', 'codes')) ? from : findRoot(dirname(from));
}

/** Reads one of the gzipped reference tables under `data/`. */
export function readReference(path: string): string {
  return gunzipSync(readFileSync(join(ROOT, 'data', path))).toString('utf8');
}

export function loadCodeTrees(): Map<Scheme, CodeTree> {
  return new Map(
    (Object.keys(SCHEMES) as Scheme[]).map((scheme) => [
      scheme,
      readCodeTable(scheme, readReference(`codes/${scheme}.tsv.gz`)),
    ]),
  );
}

export function loadCodeSearches(
  trees: ReadonlyMap<Scheme, CodeTree>,
  note: ReferenceData['note'] = () => null,
): CodeSearches {
  const readKeywords = () =>
    readReference('codes/keywords.tsv.gz')
      .split('\n')
      .slice(1)
      .filter(Boolean)
      .map((row): Keyword => {
        const [scheme, code, term] = row.split('\t');
        return { scheme: scheme!, code: code!, term: term! };
      });
  return new CodeSearches(trees, readKeywords, (scheme, code) => note(scheme, code)?.text ?? '');
}

export function loadCrosswalk(trees: ReadonlyMap<Scheme, CodeTree>): Crosswalk {
  return readCrosswalk(trees, readReference('codes/crosswalk.tsv.gz'));
}

export function loadGazetteer(): Gazetteer {
  return new Gazetteer({
    countries: readReference('geo/countries.tsv.gz'),
    regions: readReference('geo/regions.tsv.gz'),
    get towns() {
      return readReference('geo/towns.tsv.gz');
    },
    get spellings() {
      return readReference('geo/spellings.tsv.gz');
    },
    get postcodes() {
      return readReference('geo/postcodes.tsv.gz');
    },
  });
}

function loadNotes(): Map<string, CodeNote> {
  const rows = readReference('codes/notes.tsv.gz').split('\n').slice(1).filter(Boolean);
  return new Map(
    rows.map((row) => {
      const [scheme, code, fromScheme, fromCode, text] = row.split('\t');
      return [`${scheme} ${code}`, { text: text!, from: `${fromScheme} ${fromCode}` }];
    }),
  );
}

/** All that is read from the tables under `data/`; the crosswalk and the notes when they are first asked for. */
export function loadReferenceData(): ReferenceData {
  const trees = loadCodeTrees();
  let crosswalk: Crosswalk | null = null;
  let notes: Map<string, CodeNote> | null = null;
  const note: ReferenceData['note'] = (scheme, code) =>
    (notes ??= loadNotes()).get(`${scheme} ${code}`) ?? null;
  return {
    trees,
    searches: loadCodeSearches(trees, note),
    crosswalk: () => (crosswalk ??= loadCrosswalk(trees)),
    note,
    places: loadGazetteer(),
  };
}
