import { token_set_ratio } from 'fuzzball';
import type { Firm } from '../core/match/firm.ts';
import type { Matching } from '../core/match/match-rows.ts';
import { carelessFile, type FileRow } from '../demo/corrupt.ts';
import { openUniverse, type Db } from '../server/db/open.ts';
import { matchUniverse } from '../server/match/match-universe.ts';
import { firmByKey, firmFinder } from '../server/match/universe-firms.ts';
import { megabytes, TimingTable } from './figures.ts';

/**
 * How well, and how fast, careless files about a universe's own companies are matched, under seeds that nothing was tuned on;
 * beside a general package for likeness of texts that is given the same candidates and the best limit that it could have.
 */

const ROWS = 10_000;
const SEEDS = [501, 502];
const PRECISION = 0.99;

export function measureMatching(dir: string): Promise<void> {
  const universe = openUniverse(dir, { readonly: true });
  const table = new TimingTable('files matched with the universe');
  try {
    for (const seed of SEEDS) {
      const file = fileOf(universe, seed);
      const firms = file.map(({ firm }) => firm);
      const start = performance.now();
      const matching = matchUniverse({ dir, universe, told: () => {} }, firms, PRECISION);
      table.add(`${file.length.toLocaleString('en-GB')} rows, seed ${seed}`, [performance.now() - start]);
      const same = sameCompany(universe);
      report(`seed ${seed}`, file, matching, same);
      peer(universe, file, matching, same);
    }
    table.print();
    console.log(`memory at the end: ${megabytes(process.memoryUsage().rss)}\n`);
  } finally {
    universe.close();
  }
  return Promise.resolve();
}

/** A careless file about companies spread over the universe, other ones under each seed. */
function fileOf(universe: Db, seed: number): FileRow[] {
  const ids = universe
    .prepare<[number, number], number>(
      'SELECT id FROM company WHERE registration IS NOT NULL ORDER BY (id * 7919 + ?) % 1000003 LIMIT ?',
    )
    .pluck()
    .all(seed, ROWS);
  const look = firmFinder(universe);
  return carelessFile(
    ids.map((id) => look(id)),
    seed,
  );
}

type Same = (found: string, truth: string | null) => boolean;

/** Whether a company found is the one meant: it, or a second record of it, which the demo has at the same address. */
function sameCompany(universe: Db): Same {
  const at = (key: string) => {
    const { street, postcode, town } = firmByKey(universe, key)!;
    return [street, postcode, town].join('|');
  };
  return (found, truth) => truth !== null && (found === truth || at(found) === at(truth));
}

function report(
  what: string,
  file: readonly FileRow[],
  { rows, limits }: Matching<string>,
  same: Same,
): void {
  const there = file.filter(({ truth }) => truth !== null).length;
  let [sure, right, offered, doubtful] = [0, 0, 0, 0];
  const bins = Array.from({ length: 20 }, () => ({ pairs: 0, right: 0 }));
  rows.forEach(({ outcome, candidates }, i) => {
    const { truth } = file[i]!;
    if (outcome === 'sure') {
      sure++;
      if (same(candidates[0]!.company, truth)) right++;
    } else if (outcome === 'doubtful') doubtful++;
    if (candidates.some(({ company }) => same(company, truth))) offered++;
    for (const { company, chance } of candidates) {
      const bin = bins[Math.min(19, Math.floor(chance * 20))]!;
      bin.pairs++;
      if (same(company, truth)) bin.right++;
    }
  });
  const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
  console.log(
    `${what}: of ${sure} sure ${percent(right / sure)} are right; of ${there} that are there ${percent(right / there)}`,
  );
  console.log(
    `  are found at once, ${percent(offered / there)} are found or offered; ${doubtful} doubtful; sure from ${limits.sure.toFixed(2)} on`,
  );
  console.log('  chance: pairs, of them right');
  bins.forEach(({ pairs, right: own }, i) => {
    if (pairs)
      console.log(`  ${(i / 20).toFixed(2)}-${((i + 1) / 20).toFixed(2)}: ${pairs}, ${percent(own / pairs)}`);
  });
}

const textOf = ({ name, street, postcode, town, phone, web }: Firm) =>
  [name, street, postcode, town, phone, web].filter(Boolean).join(' ');

/** The same candidates by likeness of their texts alone, with the limit that is best for this very file. */
function peer(universe: Db, file: readonly FileRow[], { rows }: Matching<string>, same: Same): void {
  const there = file.filter(({ truth }) => truth !== null).length;
  const best = rows.map(({ candidates }, i) => {
    const own = textOf(file[i]!.firm);
    let found = { likeness: 0, right: false };
    for (const { company } of candidates) {
      const likeness = token_set_ratio(own, textOf(firmByKey(universe, company)!));
      if (likeness > found.likeness) found = { likeness, right: same(company, file[i]!.truth) };
    }
    return found;
  });
  let most = { f: 0, precision: 0, recall: 0, limit: 0 };
  for (let limit = 40; limit <= 100; limit++) {
    const taken = best.filter(({ likeness }) => likeness >= limit);
    const right = taken.filter((one) => one.right).length;
    const [precision, recall] = [right / Math.max(1, taken.length), right / there];
    const f = (2 * precision * recall) / Math.max(1e-9, precision + recall);
    if (f > most.f) most = { f, precision, recall, limit };
  }
  console.log(
    `  peer, token_set_ratio from ${most.limit} on: ${(100 * most.precision).toFixed(1)} % right, ${(100 * most.recall).toFixed(1)} % found`,
  );
}
