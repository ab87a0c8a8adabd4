import type { TextTest } from '../tape/nodes.ts';
import { parseWords, type WordsQuery } from '../tape/words-query.ts';
import { noBits, setBit } from './bits.ts';
import type { TextColumn } from './columns.ts';
import { andVerdict, notVerdict, orVerdict, type Verdict } from './verdict.ts';

/**
 * A term that is found is a yes. One that is not found is a no where all text asked for is known,
 * else unknown: a description nobody recorded might hold it.
 */
export function testText(column: TextColumn, test: TextTest, size: number): Verdict {
  const where = test.in ?? 'both';
  const verdictOf = (query: WordsQuery): Verdict => {
    switch (query.kind) {
      case 'and':
        return andVerdict(query.parts.map(verdictOf));
      case 'or':
        return orVerdict(query.parts.map(verdictOf));
      case 'not':
        return notVerdict(verdictOf(query.part));
      case 'term': {
        const yes = noBits(size);
        for (const record of column.find(query, where)) setBit(yes, record);
        const unknown = noBits(size);
        if (where !== 'name')
          for (let w = 0; w < unknown.length; w++) unknown[w] = ~(column.described[w]! | yes[w]!);
        if (size & 31) unknown[size >> 5]! &= (2 ** (size & 31) - 1) >>> 0;
        return { yes, unknown };
      }
    }
  };
  return verdictOf(parseWords(test.text));
}
