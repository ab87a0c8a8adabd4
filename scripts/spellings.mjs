import { readFileSync, writeFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import { register } from 'tsx/esm/api';

/** `npm run spellings`: makes `data/geo/spellings.tsv.gz` of the towns, so that no thread folds and sorts them at its start. */
register();
const { spellingsOf } = await import('../core/geo/towns.ts');
const towns = gunzipSync(readFileSync('data/geo/towns.tsv.gz')).toString('utf8');
writeFileSync('data/geo/spellings.tsv.gz', gzipSync(spellingsOf(towns), { level: 9 }));
