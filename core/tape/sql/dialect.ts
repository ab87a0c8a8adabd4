import type { Lookup } from '../lookup.ts';
import type { FieldLine } from '../nodes.ts';

/** A statement with its values in order of the question marks. */
export interface Sql {
  text: string;
  values: (string | number)[];
}

/** How one kind of database spells the test of a line over the universe's tables; `c` is the company. */
export interface Dialect {
  test(line: FieldLine, subject: string, lookup: Lookup): Sql;
}
