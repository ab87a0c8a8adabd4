import { dayOf } from '../core/dates.ts';
import type { Db } from '../server/db/open.ts';
import { Loader, remakeCompanies } from '../server/load/loader.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../server/reference.ts';
import { technologyKey } from '../server/tables/company.ts';
import { addSource, allSources } from '../server/tables/source.ts';
import { Companies } from './company.ts';
import { Places } from './places.ts';
import { Chance } from './random.ts';
import { DEMO_AS_OF, DEMO_SOURCES } from './sources.ts';
import { TECHNOLOGIES } from './technologies.ts';

const SEED = 20_260_930;

/** Makes the demo universe and loads it, its three sources side by side, through the same path as a user's file; in one transaction. */
export function loadDemo(
  db: Db,
  companies: number,
  progress: (done: number, total: number, message: string) => void,
): { asOf: string; rows: number } {
  const trees = loadCodeTrees();
  const gazetteer = loadGazetteer();
  const makers = new Companies(
    new Places(gazetteer, readReference('geo/postcodes.tsv.gz')),
    gazetteer,
    trees.get('nace-2.1')!,
    SEED,
  );
  let rows = 0;
  const joined = new Set<number>();
  db.transaction(() => {
    if (allSources(db).some((source) => DEMO_SOURCES.some((demo) => demo.key === source.key)))
      throw new Error('The demo is loaded already. Remove its sources first to make it anew.');
    const addTechnology = db.prepare(
      'INSERT OR IGNORE INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)',
    );
    for (const { category, label, products } of TECHNOLOGIES)
      for (const product of products) addTechnology.run(technologyKey(product), product, category, label);
    const loaders = DEMO_SOURCES.map((demo, nth) => {
      const source = addSource(
        db,
        {
          name: demo.name,
          fileName: null,
          licence: demo.licence,
          asOf: dayOf(DEMO_AS_OF)!,
          header: demo.header,
          mapping: demo.mapping,
        },
        demo.key,
      );
      return { demo, nth, loader: new Loader(db, source, trees, gazetteer), row: 1 };
    });
    for (let index = 0; index < companies; index++) {
      if (index % 500 === 0) progress(Math.floor(index * 0.7), companies, 'loading records');
      const truth = makers.at(index);
      for (const one of loaders) {
        if (!one.demo.has(truth)) continue;
        const problems = one.loader.add(
          one.demo.cells(truth, new Chance(SEED ^ Math.imul(index + 1, 0xc2b2ae35) ^ (one.nth + 1))),
          ++one.row,
        );
        if (problems)
          throw new Error(
            `Demo row ${one.row} of ${one.demo.name} does not read: ${JSON.stringify(problems)}`,
          );
        rows++;
      }
    }
    for (const { loader } of loaders) for (const company of loader.end().joined) joined.add(company);
    remakeCompanies(db, joined, trees, gazetteer, (done, all) =>
      progress(Math.floor(companies * (0.7 + (0.3 * done) / all)), companies, 'lining up the sources'),
    );
  }).immediate();
  progress(companies, companies, 'done');
  return { asOf: DEMO_AS_OF, rows };
}
