import { joined, filled, sql, type Sql } from './statement.ts';
import { TestCompiler, type WordsIn } from './test-compiler.ts';
import { termText } from './words-column.ts';

/** A compiler for databases that hold `name_words` and `description_words`, made by `wordsColumn`. */
export abstract class WordsColumnsCompiler extends TestCompiler {
  protected readonly least = 'least';

  protected term({ words, prefix }: { words: string[]; prefix: boolean }, where: WordsIn, row: string): Sql {
    const text = termText({ words, prefix });
    const columns = where === 'both' ? ['name', 'description'] : [where];
    return filled(
      '(@)',
      joined(
        columns.map((column) => sql(this.holds(`${row}.${column}_words`), text)),
        ' OR ',
      ),
    );
  }
}
