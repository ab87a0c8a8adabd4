import { workerData } from 'node:worker_threads';
import { rowReader } from '../core/records/read-row.ts';
import { registrationKey } from '../core/records/record.ts';
import { CompanyBatcher, type ReadyCompany } from '../server/load/company-batcher.ts';
import { runFeed } from '../server/feed.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../server/reference.ts';
import type { SourceRow } from '../server/tables/source.ts';
import { Companies } from './company.ts';
import { Places } from './places.ts';
import { Chance } from './random.ts';
import { RelatedMaker, type MadeRelated } from './related.ts';
import { DEMO_SOURCES } from './sources.ts';

/** The thread that makes the rows of the demo's sources, company by company, and reads them as a file's are read. */

export interface DemoWorkerData extends Record<string, unknown> {
  companies: number;
  seed: number;
  /** In the order of DEMO_SOURCES. */
  sources: SourceRow[];
}

export interface DemoBatch {
  companies: ReadyCompany[];
  /** What hangs on these companies and those before. */
  related: MadeRelated[];
  /** Companies made so far, and rows of each source. */
  made: number;
  rows: number[];
}

void runFeed<DemoBatch>((put) => {
  const { companies, seed, sources } = workerData as DemoWorkerData;
  const gazetteer = loadGazetteer();
  const trees = loadCodeTrees();
  const places = new Places(gazetteer, readReference('geo/postcodes.tsv.gz'));
  const makers = new Companies(places, gazetteer, trees.get('nace-2.1')!, seed, companies);
  const related = new RelatedMaker(makers, places, seed, companies);
  const readers = DEMO_SOURCES.map((demo, nth) =>
    rowReader(demo.header, demo.mapping, trees, gazetteer, sources[nth]!.as_of),
  );
  const rows = DEMO_SOURCES.map(() => 0);
  let made = 0;
  const batcher = new CompanyBatcher((ready) =>
    put({ companies: ready, related: related.taken(), made, rows: [...rows] }),
  );
  for (; made < companies; made++) {
    const truth = makers.at(made);
    DEMO_SOURCES.forEach((demo, nth) => {
      if (!demo.has(truth)) return;
      const cells = demo.cells(truth, new Chance(seed ^ Math.imul(made + 1, 0xc2b2ae35) ^ (nth + 1)));
      const read = readers[nth]!.read(cells);
      if ('problems' in read)
        throw new Error(`Company ${made} does not read in ${demo.name}: ${JSON.stringify(read.problems)}`);
      const [source, row] = [sources[nth]!, ++rows[nth]! + 1];
      // Made-up names and domains meet at times; the maker knows that they are two companies.
      const key = registrationKey(read.record) ?? `${source.key}-${row}`;
      batcher.add(source, row, cells, read.record, key);
    });
    related.make(truth);
  }
  batcher.flush();
});
