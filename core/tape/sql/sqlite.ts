import { ftsTerm } from '../words-query.ts';
import { sql, type Sql } from './statement.ts';
import { TestCompiler, type WordsIn } from './test-compiler.ts';

/** SQLite over `universe.sqlite`; words are looked up in its full-text index. */
export class SqliteCompiler extends TestCompiler {
  protected readonly least = 'min';

  protected holds(column: string): string {
    return `instr(${column}, ?) > 0`;
  }

  protected term(term: { words: string[]; prefix: boolean }, where: WordsIn, row: string): Sql {
    return sql(
      `CASE WHEN ${row}.id IN (SELECT rowid FROM company_words WHERE company_words MATCH ?) THEN TRUE ${where === 'name' ? '' : `WHEN ${row}.description IS NULL THEN NULL `}ELSE FALSE END`,
      ftsTerm(term, where),
    );
  }
}
