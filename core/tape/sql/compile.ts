import { subjectOf } from '../../fields/registry.ts';
import type { Lookup } from '../lookup.ts';
import { isLive, passesUnknown, type Line, type Tape } from '../nodes.ts';
import { DuckDbCompiler } from './duckdb.ts';
import { PostgreSqlCompiler } from './postgresql.ts';
import { SqliteCompiler } from './sqlite.ts';
import { filled, joined, sql, type Sql } from './statement.ts';
import { townOf } from './place.ts';
import type { TestCompiler } from './test-compiler.ts';

/** The databases that a tape can be compiled for. */
export const DIALECTS = ['sqlite', 'duckdb', 'postgresql'] as const;
export type Dialect = (typeof DIALECTS)[number];

const COMPILERS = { sqlite: SqliteCompiler, duckdb: DuckDbCompiler, postgresql: PostgreSqlCompiler };

/** Values that a tape's companies can be counted by in SQL; codes by their own and every code above them. */
export type CountsBy =
  | { by: 'column'; expression: string }
  | { by: 'many'; table: string; value: string; groups: boolean }
  | { by: 'codes'; scheme: string; mainOnly: boolean };

/** What a company's places are counted by. */
export const PLACE_COLUMNS = { countries: 'c.country', regions: 'c.region', towns: townOf('c') };

/** Compiles whole tapes to the SQL of one database. Every statement counts what the tally counts. */
export class TapeCompiler {
  private readonly tests: TestCompiler;

  constructor(dialect: Dialect, lookup: Lookup) {
    this.tests = new COMPILERS[dialect](lookup);
  }

  /** The ids of the records that a tape keeps, ascending. */
  kept(tape: Tape): Sql {
    return filled(`SELECT c.id FROM ${subjectOf(tape.subject).table} c@\nORDER BY c.id`, this.where(tape));
  }

  /**
   * All figures of a tape in one row: `universe`, `tally`, and for every live line i, counted from
   * 0, `subtotal_i`, `alone_i`, `without_i` and `unknown_i`. Each test is made once a company.
   */
  figures(tape: Tape): Sql {
    const lines = tape.lines.filter(isLive);
    const pass = lines.map((_, i) => `p${i}`);
    const count = (passed: readonly string[], name: string) =>
      `count(*)${passed.length ? ` FILTER (WHERE ${passed.join(' AND ')})` : ''} AS ${name}`;
    const counts = lines.flatMap((_, i) => {
      const others = pass.toSpliced(i, 1);
      return [
        count(pass.slice(0, i + 1), `subtotal_${i}`),
        count([pass[i]!], `alone_${i}`),
        count(others, `without_${i}`),
        count([...others, `t${i} IS NULL`], `unknown_${i}`),
      ];
    });
    const tested = lines.map((line, i) => filled(`@ AS t${i}`, this.tests.test(line, tape.subject, 'c')));
    return filled(
      `WITH tested AS MATERIALIZED (SELECT @ FROM ${subjectOf(tape.subject).table} c),
  passed AS MATERIALIZED (SELECT @ FROM tested)
SELECT ${[count([], 'universe'), count(pass, 'tally'), ...counts].join(',\n  ')}
FROM passed`,
      lines.length ? joined(tested, ',\n    ') : sql('1'),
      sql(
        lines.length
          ? lines.map((line, i) => `t${i}, ${passing(line, `t${i}`)} AS p${i}`).join(',\n    ')
          : '1',
      ),
    );
  }

  /** The companies of a tape by value, as rows of `value` and `companies`; values of none are left out. */
  counts(tape: Tape, by: CountsBy): Sql {
    const where = this.where(tape);
    switch (by.by) {
      case 'column':
        return filled(
          `SELECT ${by.expression} AS value, count(*) AS companies FROM company c@ GROUP BY 1`,
          where,
        );
      case 'many': {
        const from = `company c JOIN ${by.table} v ON v.company_id = c.id`;
        const values = filled(
          `SELECT v.${by.value} AS value, count(*) AS companies FROM ${from}@ GROUP BY 1`,
          where,
        );
        if (!by.groups) return values;
        return filled(
          `@\nUNION ALL SELECT g.category, count(DISTINCT c.id) FROM ${from} JOIN technology g ON g.key = v.${by.value} AND g.category IS NOT NULL@ GROUP BY 1`,
          values,
          where,
        );
      }
      case 'codes':
        return filled(
          `SELECT b.above AS value, count(DISTINCT c.id) AS companies FROM company c JOIN company_code k ON k.company_id = c.id AND k.scheme = @${by.mainOnly ? ' AND k.rank = 0' : ''} JOIN code_branch b ON b.scheme = k.scheme AND b.code = k.code@ GROUP BY 1`,
          sql('?', by.scheme),
          where,
        );
    }
  }

  /** A statement as the database prepares it: with its own placeholders. */
  prepared(statement: Sql): Sql {
    return this.tests.prepared(statement);
  }

  /** The conditions of a tape on `c`, with WHERE before them; empty where the tape keeps all. */
  where(tape: Tape): Sql {
    const lines = tape.lines.filter(isLive).map((line) => {
      const test = this.tests.test(line, tape.subject, 'c');
      return { ...test, text: passing(line, test.text) };
    });
    return lines.length ? filled('\nWHERE @', joined(lines, '\n  AND ')) : sql('');
  }
}

/** When a line lets a company through, as a condition that is true exactly then. */
function passing(line: Line, test: string): string {
  if (passesUnknown(line)) return line.not ? `(${test}) IS NOT TRUE` : `(${test}) IS NOT FALSE`;
  return line.not ? `NOT (${test})` : test;
}
