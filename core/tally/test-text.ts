import type { TextTest } from '../tape/nodes.ts';
import { parseWords, type WordsQuery } from '../tape/words-query.ts';
import { dropBits, noBits, notBits } from './bits.ts';
import type { TextColumn } from './columns.ts';
import { addRecords } from './sorted.ts';
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
        return notVerdict(verdictOf(query.part), size);
      case 'term': {
        const yes = noBits(size);
        const records = column.find(query, where);
        addRecords(yes, records, 0, records.length);
        const unknown = where === 'name' ? noBits(size) : notBits(column.described, size);
        dropBits(unknown, yes);
        return { yes, unknown };
      }
    }
  };
  return verdictOf(parseWords(test.text));
}
