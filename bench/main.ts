import { cpus, totalmem } from 'node:os';
import { parseArgs } from 'node:util';
import { measureBrowser } from './browser.ts';
import { compare, compareHas } from './compare.ts';
import { megabytes } from './figures.ts';
import { measureExports } from './exports.ts';
import { measureFiles } from './files.ts';
import { measureLists } from './lists.ts';
import { measureMarket } from './market.ts';
import { measureMatching } from './matching.ts';
import { measureRuns } from './runs.ts';
import { measureServing } from './serving.ts';

/** Measures everything over the universe in a folder: `main --data DIR --tapes N --sqlite-every N --only PART`. */

const PARTS = {
  compare: () => compare(dir, Number(values.tapes), Number(values['sqlite-every'])),
  has: () => compareHas(dir, Number(values.tapes)),
  serving: () => measureServing(dir),
  market: () => measureMarket(dir),
  browser: () => measureBrowser(dir),
  files: () => measureFiles(dir),
  exports: () => measureExports(dir),
  lists: () => measureLists(dir),
  matching: () => measureMatching(dir),
  runs: () => measureRuns(dir),
};

const { values } = parseArgs({
  options: {
    data: { type: 'string' },
    tapes: { type: 'string', default: '200' },
    'sqlite-every': { type: 'string', default: '1' },
    only: { type: 'string' },
  },
});
const dir = values.data!;
console.log(
  `${cpus().length} cores (${cpus()[0]?.model}), ${megabytes(totalmem())} of memory, Node ${process.version}\n`,
);
for (const [name, measure] of Object.entries(PARTS))
  if (!values.only || values.only.split(',').includes(name)) {
    console.log(`## ${name}\n`);
    await measure();
  }
