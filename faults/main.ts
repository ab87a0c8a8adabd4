import { parseArgs } from 'node:util';
import { crowd } from './crowd.ts';
import { files } from './files.ts';
import { folders } from './folders.ts';
import { fuzz } from './fuzz.ts';
import { gather } from './gather.ts';
import { Harness } from './harness.ts';
import { kills } from './kills.ts';
import { mail } from './mail.ts';
import { ownValues } from './own-values.ts';
import { races } from './races.ts';
import { runs } from './runs.ts';

/** `npm run faults -- --short --seed N --only kills,mail,own,gather,runs,folders,races,fuzz,files,crowd`: a hostile day for the built program. */
const { values } = parseArgs({
  options: {
    short: { type: 'boolean', default: false },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
    only: { type: 'string', default: 'kills,mail,own,gather,runs,folders,races,fuzz,files,crowd' },
  },
});
const seed = Number(values.seed);
const { short } = values;
const harness = new Harness();
const parts: Readonly<Record<string, () => Promise<void>>> = {
  kills: () => kills(harness, short ? 1 : 25, seed),
  mail: () => mail(harness, short ? 3 : 40, seed),
  own: () => ownValues(harness, short ? 1 : 10, seed),
  gather: () => gather(harness, short ? 64 : 2000, short ? 1 : 3, seed),
  runs: () => runs(harness, short ? 2 : 20, seed),
  folders: () => folders(harness, short ? 2 : 40, short ? 3 : 6, seed),
  races: () => races(harness, short ? 6 : 60),
  fuzz: () => fuzz(harness, short ? 1500 : 20_000, seed),
  files: () => files(harness, short ? 24 : 300, seed),
  crowd: () => crowd(harness, short ? 12 : 50, short ? 6 : 120, seed),
};
console.log(`Seed ${seed}`);
const wanted = values.only.split(',');
for (const name of wanted)
  if (!(name in parts)) {
    console.error(`--only ${name}: one or more of ${Object.keys(parts).join(', ')} are expected.`);
    process.exit(1);
  }
/** Side by side in the short form: most of a part's time goes into starts, which wait for the disk and not for each other. */
const lanes = short
  ? [
      ['kills', 'races', 'own', 'runs', 'fuzz', 'crowd'],
      ['mail', 'gather', 'folders', 'files'],
    ]
  : [['kills', 'mail', 'own', 'gather', 'runs', 'folders', 'races', 'fuzz', 'files', 'crowd']];
await Promise.all(
  lanes.map(async (lane) => {
    for (const name of lane) if (wanted.includes(name)) await parts[name]!();
  }),
);
harness.end();
process.exit(harness.failed === 0 ? 0 : 1);
