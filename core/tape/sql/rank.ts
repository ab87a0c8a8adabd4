import type { RankTest } from '../nodes.ts';
import { between, end } from './ranges.ts';
import { filled, sql, type Sql } from './statement.ts';

/** What companies are ranked among; null where a company has none. The division is that of the main code in NACE 2.1. */
const AMONG = {
  country: 'd.country',
  industry:
    "(SELECT substr(k.code, 1, 2) FROM company_code k WHERE k.company_id = d.id AND k.scheme = 'nace-2.1' AND k.rank = 0 AND length(k.code) > 1)",
  all: "'all'",
};

/** Places of all companies, worked out once a statement, and whether a company's own lies between limits. */
export function rankSql({ by, among, from, to }: RankTest, estimates: boolean, row: string): Sql {
  const value = by === 'revenue' ? 'd.revenue_eur' : 'd.headcount';
  const figure = `CASE d.${by}_basis WHEN 'reported' THEN ${value}_low${estimates ? ` WHEN 'estimate' THEN ${value}_point` : ''} END`;
  const figures = `SELECT d.id, ${figure} AS figure, ${AMONG[among]} AS among FROM company d`;
  const places = `SELECT f.id, rank() OVER (PARTITION BY f.among ORDER BY f.figure DESC) AS place FROM (${figures}) f WHERE f.figure IS NOT NULL AND f.among IS NOT NULL`;
  return filled(
    `CASE WHEN ${row}.id IN (SELECT p.id FROM (@) p WHERE @) THEN TRUE WHEN ${row}.id IN (SELECT p.id FROM (@) p) THEN FALSE END`,
    sql(places),
    between('p.place', end(from), end(to)),
    sql(places),
  );
}
