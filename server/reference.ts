import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'node:zlib';
import { CodeSearches, type Keyword } from '../core/codes/search.ts';
import { readCodeTable, SCHEMES, type CodeTree, type Scheme } from '../core/codes/tree.ts';
import { Gazetteer } from '../core/geo/gazetteer.ts';

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

export function loadCodeSearches(trees: ReadonlyMap<Scheme, CodeTree>): CodeSearches {
  return new CodeSearches(trees, () =>
    readReference('codes/keywords.tsv.gz')
      .split('\n')
      .slice(1)
      .filter(Boolean)
      .map((row): Keyword => {
        const [scheme, code, term] = row.split('\t');
        return { scheme: scheme!, code: code!, term: term! };
      }),
  );
}

export function loadGazetteer(): Gazetteer {
  return new Gazetteer({
    countries: readReference('geo/countries.tsv.gz'),
    regions: readReference('geo/regions.tsv.gz'),
    towns: readReference('geo/towns.tsv.gz'),
  });
}
