import type { Sql } from './statement.ts';
import { WordsColumnsCompiler } from './words-columns.ts';

/** PostgreSQL over tables with the columns of the exported Parquet files. */
export class PostgreSqlCompiler extends WordsColumnsCompiler {
  protected holds(column: string): string {
    return `strpos(${column}, ?) > 0`;
  }

  /** Placeholders are numbered; numbers are cast, because no type can be told from a bare one everywhere. */
  override prepared({ text, values }: Sql): Sql {
    let n = 0;
    return {
      text: text.replace(/\?/g, () => {
        const value = values[n++];
        return typeof value === 'number' ? `$${n}::double precision` : `$${n}`;
      }),
      values,
    };
  }
}
