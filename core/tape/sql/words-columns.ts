import { foldedWords } from '../../text/fold.ts';
import { joined, filled, sql, type Sql } from './statement.ts';
import { TestCompiler, type WordsIn } from './test-compiler.ts';

/**
 * A text as databases without our full-text index search it: its folded words between single
 * blanks, with one before and after, so that " oak stair " finds the phrase and " oak" what begins so.
 */
export function wordsColumn(text: string | null): string | null {
  return text === null ? null : ` ${foldedWords(text).join(' ')} `;
}

/** A compiler for databases that hold `name_words` and `description_words`, made by `wordsColumn`. */
export abstract class WordsColumnsCompiler extends TestCompiler {
  protected readonly least = 'least';

  /** Whether a text column holds the text put for `?`. */
  protected abstract holds(column: string): string;

  protected term({ words, prefix }: { words: string[]; prefix: boolean }, where: WordsIn): Sql {
    const text = ` ${words.join(' ')}${prefix ? '' : ' '}`;
    const columns = where === 'both' ? ['name', 'description'] : [where];
    return filled(
      '(@)',
      joined(
        columns.map((column) => sql(this.holds(`c.${column}_words`), text)),
        ' OR ',
      ),
    );
  }
}
