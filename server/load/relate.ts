import { RELATED } from '../../core/fields/registry.ts';
import type { Db } from '../db/open.ts';
import { makeAddresses } from './make-addresses.ts';
import { keepIds, noteSubjectChange } from '../tables/revision.ts';
import { takeTitleReadings } from '../tables/title-readings.ts';

/**
 * What follows from records that hang on companies, for the companies that have records of the subjects touched, and for all where a
 * source covers a country: which subjects are known of a company, and what its sites, brands and deals make of it. To be called
 * last in the transaction of a load or removal.
 */
export function relate(db: Db, revision: number, subjects: readonly string[]): void {
  const ofPeople = subjects.includes('people');
  if (takeLanguages(db, ofPeople ? null : revision) > 0 && !ofPeople)
    noteSubjectChange(db, 'people', revision);
  if (subjects.length === 0) return;
  db.exec('CREATE TEMP TABLE IF NOT EXISTS touched (id INTEGER PRIMARY KEY)');
  if (ofPeople) {
    makeAddresses(db);
    takeTitleReadings(db);
  }
  for (const { id, relation } of RELATED) {
    if (!subjects.includes(id)) continue;
    noteSubjectChange(db, id, revision);
    db.exec(`
      DELETE FROM touched;
      INSERT OR IGNORE INTO touched SELECT company_id FROM ${relation.table} WHERE company_id IS NOT NULL;
      INSERT OR IGNORE INTO touched SELECT id FROM company WHERE ${relation.known} IS NOT NULL;
      INSERT OR IGNORE INTO touched
        SELECT c.id FROM company c WHERE EXISTS (SELECT 1 FROM source_cover v WHERE v.subject = '${id}' AND v.country = c.country);
      UPDATE company SET ${relation.known} = CASE WHEN
          EXISTS (SELECT 1 FROM ${relation.table} p WHERE p.company_id = company.id) OR
          EXISTS (SELECT 1 FROM source_cover v WHERE v.subject = '${id}' AND v.country = company.country) THEN 1 END
        WHERE id IN (SELECT id FROM touched);
      ${DERIVED[id] ?? ''}
    `);
    db.prepare('INSERT OR IGNORE INTO company_change (revision, company_id) SELECT ?, id FROM touched').run(
      revision,
    );
  }
}

/** What people take from their companies, for the companies that a revision changed. To be called after they were. */
export function followCompanies(db: Db, revision: number): void {
  if (takeLanguages(db, revision) > 0) noteSubjectChange(db, 'people', revision);
}

/**
 * Gives people the language of the country of their company: all of them, or those of the companies that a revision changed. Returns
 * how many it gave another.
 */
function takeLanguages(db: Db, revision: number | null): number {
  const language = '(SELECT language_of(c.country) FROM company c WHERE c.id = person.company_id)';
  const where =
    revision === null
      ? ''
      : `AND company_id IN (SELECT company_id FROM company_change WHERE revision = ${revision})`;
  return db
    .prepare(`UPDATE person SET language = ${language} WHERE language IS NOT ${language} ${where}`)
    .run().changes;
}

/** A sum of decimals as a decimal: without what adding them in binary leaves in the last digits. */
const added = (value: string) => `round(sum(${value}), 9)`;

const OWNED = `FROM brand_party p JOIN brand b ON b.id = p.brand_id WHERE p.company_id = company.id AND p.role = 'owner'`;
const RAISING = `FROM deal_party p JOIN deal d ON d.id = p.deal_id WHERE p.company_id = company.id AND p.role = 'target'`;
const ROUNDS = `${RAISING} AND d.kind IN ('growth-loan', 'equity-round')`;

/** Statements that make a subject's part of the companies in `touched`. */
const DERIVED: Readonly<Record<string, string>> = {
  sites: `
    UPDATE company SET site_count = CASE WHEN sites_known = 1 THEN (SELECT count(*) FROM site s WHERE s.company_id = company.id) END
      WHERE id IN (SELECT id FROM touched);`,
  brands: `
    UPDATE company SET
        brands_owned = CASE WHEN brands_known = 1 THEN (SELECT count(DISTINCT b.id) ${OWNED}) END,
        brands_resold = CASE WHEN brands_known = 1 THEN
          (SELECT count(DISTINCT p.brand_id) FROM brand_party p WHERE p.company_id = company.id AND p.role <> 'owner') END,
        countries_known = (SELECT max(b.countries_known) FROM brand_party p JOIN brand b ON b.id = p.brand_id WHERE p.company_id = company.id)
      WHERE id IN (SELECT id FROM touched);
    UPDATE company SET own_share = CASE WHEN brands_owned + brands_resold > 0
        THEN 100.0 * brands_owned / (brands_owned + brands_resold) END
      WHERE id IN (SELECT id FROM touched);
    DELETE FROM company_market WHERE company_id IN (SELECT id FROM touched);
    INSERT INTO company_market
      SELECT p.company_id, m.measure, m.key, ${added('m.value')} / (
          SELECT count(*) FROM brand_party o WHERE o.company_id = p.company_id AND o.role = 'owner'
            AND EXISTS (SELECT 1 FROM brand_measure n WHERE n.brand_id = o.brand_id AND n.measure = m.measure))
      FROM brand_party p JOIN brand_measure m ON m.brand_id = p.brand_id
      WHERE p.role = 'owner' AND p.company_id IN (SELECT id FROM touched) GROUP BY 1, 2, 3;
    INSERT INTO company_market
      SELECT p.company_id, 'category-share', b.category, ${added('b.share')}
      FROM brand_party p JOIN brand b ON b.id = p.brand_id
      WHERE p.role = 'owner' AND b.category IS NOT NULL AND b.share IS NOT NULL AND p.company_id IN (SELECT id FROM touched) GROUP BY 1, 3;
    DELETE FROM company_country WHERE company_id IN (SELECT id FROM touched);
    INSERT INTO company_country
      SELECT DISTINCT p.company_id, v.country FROM brand_party p JOIN brand_country v ON v.brand_id = p.brand_id
      WHERE p.company_id IN (SELECT id FROM touched);`,
  // An amount that is not disclosed leaves the sum open upwards.
  deals: `
    UPDATE company SET
        last_round_on = (SELECT max(d.date_on) ${RAISING} AND d.kind IN ('growth-loan', 'equity-round', 'buy-out')),
        raised_low = (SELECT sum(d.amount_eur_low) ${ROUNDS}),
        raised_high = (SELECT CASE WHEN count(*) > count(d.amount_eur_high) THEN 9e999 ELSE sum(d.amount_eur_high) END ${ROUNDS}),
        raised_year = (SELECT CAST(strftime('%Y', max(d.date_on) * 86400, 'unixepoch') AS INTEGER) ${ROUNDS})
      WHERE id IN (SELECT id FROM touched);
    UPDATE company SET
        raised_high = CASE WHEN raised_low IS NOT NULL THEN raised_high END,
        raised_basis = CASE WHEN raised_low IS NOT NULL THEN CASE WHEN raised_low = raised_high THEN 'reported' ELSE 'band' END END,
        raised_currency = CASE WHEN raised_low IS NOT NULL THEN 'EUR' END,
        raised_point = CASE WHEN raised_low = raised_high THEN raised_low END,
        raised_why = CASE WHEN raised_low IS NOT NULL THEN NULL
          WHEN deals_known = 1 AND last_round_on IS NULL THEN 'not applicable'
          WHEN EXISTS (SELECT 1 ${ROUNDS} AND d.amount_low IS NOT NULL) THEN 'no exchange rate' END,
        raised_eur_low = raised_low, raised_eur_high = CASE WHEN raised_low IS NOT NULL THEN raised_high END,
        raised_eur_point = CASE WHEN raised_low = raised_high THEN raised_low END
      WHERE id IN (SELECT id FROM touched);`,
};

/** Takes companies that are going from all that hangs on them, which stays as records of its source without a company. */
export function unlinkCompanies(db: Db, ids: readonly number[]): string[] {
  const changed: string[] = [];
  const list = JSON.stringify(ids);
  for (const { id, relation } of RELATED) {
    const { changes } = db
      .prepare(
        `UPDATE ${relation.table} SET company_id = NULL WHERE company_id IN (SELECT value FROM json_each(?))`,
      )
      .run(list);
    if (changes > 0) changed.push(id);
  }
  for (const table of ['company_market', 'company_country'])
    db.prepare(`DELETE FROM ${table} WHERE company_id IN (SELECT value FROM json_each(?))`).run(list);
  return changed;
}

/** Takes out the records of a source that hang on companies; deals that another source has too stay. */
export function removeRelated(db: Db, source: string): string[] {
  const changed: string[] = [];
  for (const table of ['site', 'event', 'person', 'brand', 'deal']) keepIds(db, table);
  const run = (text: string) => db.prepare(text).run(source).changes > 0;
  for (const [subject, table] of [
    ['sites', 'site'],
    ['events', 'event'],
  ] as const)
    if (run(`DELETE FROM ${table} WHERE source = ?`)) changed.push(subject);
  run('DELETE FROM related_words WHERE rowid IN (SELECT id * 8 FROM person WHERE source = ?)');
  if (run('DELETE FROM person WHERE source = ?')) changed.push('people');
  const ofBrand = 'SELECT id FROM brand WHERE source = ?';
  run('DELETE FROM related_words WHERE rowid IN (SELECT id * 8 + 1 FROM brand WHERE source = ?)');
  for (const table of ['brand_party', 'brand_country', 'brand_measure'])
    run(`DELETE FROM ${table} WHERE brand_id IN (${ofBrand})`);
  if (run('DELETE FROM brand WHERE source = ?')) changed.push('brands');
  if (run('DELETE FROM deal_source WHERE source = ?')) {
    changed.push('deals');
    const orphans = 'SELECT id FROM deal WHERE id NOT IN (SELECT deal_id FROM deal_source)';
    db.exec(`
      DELETE FROM related_words WHERE rowid IN (SELECT id * 8 + 2 FROM deal WHERE id NOT IN (SELECT deal_id FROM deal_source));
      DELETE FROM deal_party WHERE deal_id IN (${orphans});
      DELETE FROM deal WHERE id IN (${orphans});`);
  }
  run('DELETE FROM source_cover WHERE source = ?');
  return changed;
}
