import { WordsColumnsCompiler } from './words-columns.ts';

/** DuckDB over the exported Parquet files, each read as the table it is named after. */
export class DuckDbCompiler extends WordsColumnsCompiler {
  protected holds(column: string): string {
    return `contains(${column}, ?)`;
  }
}
