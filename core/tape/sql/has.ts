import { relationsOf, subjectOf } from '../../fields/registry.ts';
import { wantedCount, type HasLine, type Line } from '../nodes.ts';
import { filled, listed, sql, type Sql } from './statement.ts';

/** Compiles inner lines to one condition of three values on a related row. */
type Together = (lines: readonly Line[], subject: string, row: string) => Sql;

/** From whom to what: the rows that pair records with related ones, and the column of the records. */
interface Pairs {
  /** FROM and the conditions of the pairing, ending in WHERE …; the related row is named `row`. */
  from: Sql;
  at: string;
  row: string;
}

/**
 * A has-line as a condition of three values on a row: records are counted in subqueries of their own, never one by one. A count
 * of at least 1 needs no grouping.
 */
export function hasSql(line: HasLine, subject: string, row: string, together: Together): Sql {
  const related = relationsOf(subject).get(line.has)!;
  const pairs = pairsOf(line, subject, row);
  const inner = together(line.lines, related.id, pairs.row);
  const { from, to } = wantedCount(line);
  const sure = inner;
  const possible = filled('(@) IS NOT FALSE', inner);
  const atLeast = (condition: Sql, count: number): Sql => {
    if (count <= 0) return sql('TRUE');
    if (count === Infinity) return sql('FALSE');
    const having =
      count === 1 ? '' : ` GROUP BY ${pairs.at} HAVING count(DISTINCT ${pairs.row}.id) >= ${count}`;
    return filled(`${row}.id IN (SELECT ${pairs.at} @ AND (@)${having})`, pairs.from, condition);
  };
  const known =
    subject === 'companies' ? sql(`${row}.${related.relation!.known} IS NOT NULL`) : atLeast(sql('TRUE'), 1);
  return filled(
    'CASE WHEN NOT @ THEN NULL WHEN @ AND NOT @ THEN TRUE WHEN NOT @ OR @ THEN FALSE END',
    filled('(@)', known),
    atLeast(sure, from),
    atLeast(possible, to + 1),
    atLeast(possible, from),
    atLeast(sure, to + 1),
  );
}

function pairsOf(line: HasLine, subject: string, outer: string): Pairs {
  const related = relationsOf(subject).get(line.has)!;
  const relation = (related.relation ?? subjectOf(subject).relation)!;
  // Aliases tell the depth: c, then h, then h of that.
  const row = `${outer}h`;
  const pair = `${outer}p`;
  const role = relation.roles.find(({ key }) => key === line.as);
  const inRole = role ? filled(` AND ${pair}.role IN (@)`, listed(role.stored)) : sql('');
  if (subject === 'companies') {
    if (relation.roles.length === 0)
      return {
        from: sql(`FROM ${related.table} ${row} WHERE ${row}.company_id IS NOT NULL`),
        at: `${row}.company_id`,
        row,
      };
    return {
      from: filled(
        `FROM ${relation.table} ${pair} JOIN ${related.table} ${row} ON ${row}.id = ${pair}.${relation.record} WHERE ${pair}.company_id IS NOT NULL@`,
        inRole,
      ),
      at: `${pair}.company_id`,
      row,
    };
  }
  return {
    from: filled(
      `FROM ${relation.table} ${pair} JOIN company ${row} ON ${row}.id = ${pair}.company_id WHERE TRUE@`,
      inRole,
    ),
    at: `${pair}.${relation.record}`,
    row,
  };
}
