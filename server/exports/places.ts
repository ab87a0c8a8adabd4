import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import type { Db } from '../db/open.ts';
import type { RecordPlace } from './writers/writer.ts';

/** Where records stand and how they are reached: a company's own, a site's own, a person's with the address of the company. */

const COMPANY = 'c.street, c.postcode, c.town, c.region, c.country, c.web, c.lat, c.lon';

const SELECTS: Readonly<Record<string, string>> = {
  companies: `SELECT c.id, NULL AS person, NULL AS title, c.name AS organisation, c.phone, c.mail, ${COMPANY} FROM company c`,
  sites: `SELECT s.id, NULL AS person, NULL AS title, COALESCE(c.name || CASE WHEN s.name IS NULL OR s.name = c.name THEN '' ELSE ', ' || s.name END, s.name) AS organisation,
    s.phone, c.mail, s.street, s.postcode, s.town, s.region, s.country, c.web, s.lat, s.lon FROM site s LEFT JOIN company c ON c.id = s.company_id`,
  people: `SELECT p.id, p.name AS person, p.title, COALESCE(c.name, json_extract(p.reference, '$[2]')) AS organisation,
    p.phone, p.mail, ${COMPANY} FROM person p LEFT JOIN company c ON c.id = p.company_id`,
};
const ALIASES: Readonly<Record<string, string>> = { companies: 'c', sites: 's', people: 'p' };

/** A statement of the ids of those records of a subject that a letter would reach, or that a map can show. */
export function reachableSql(subject: string, what: 'address' | 'point'): string {
  const test =
    what === 'address'
      ? 'r.town IS NOT NULL AND (r.street IS NOT NULL OR r.postcode IS NOT NULL)'
      : 'r.lat IS NOT NULL AND r.lon IS NOT NULL';
  return `SELECT r.id FROM (${SELECTS[subject]!}) r WHERE ${test}`;
}

/** Reads the places of some records of a subject, beside their ids; null for subjects that have none. */
export function placeReader(
  db: Db,
  subject: string,
  places: Gazetteer,
): ((ids: Uint32Array) => (RecordPlace | null)[]) | null {
  const select = SELECTS[subject];
  if (!select) return null;
  const find = db.prepare<[string], RecordPlace & { id: number }>(
    `${select} WHERE ${ALIASES[subject]!}.id IN (SELECT value FROM json_each(?))`,
  );
  return (ids) => {
    const found = new Map(
      find.all(`[${ids.join()}]`).map(({ id, ...place }) => [
        id,
        {
          ...place,
          countryName: place.country === null ? null : (places.country(place.country)?.name ?? place.country),
        },
      ]),
    );
    return Array.from(ids, (id) => found.get(id) ?? null);
  };
}
