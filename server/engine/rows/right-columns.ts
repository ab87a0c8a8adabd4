import { spellFunction } from '../../../core/people/functions.ts';
import { textKeys, type Keys } from '../../../core/tally/order.ts';
import type { OwnColumn } from '../../../core/tape/own-columns.ts';
import { fold } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';
import type { Records } from '../records.ts';
import type { OwnColumns } from './own-cells.ts';
import { everyRightPerson, rightPeopleOf, type Chosen } from './right-people.ts';

/** What columns say of the right person of companies. */

type RightColumn = Extract<OwnColumn, { kind: 'right' }>;

function textOf({ person, rank }: Chosen, { part, functions }: RightColumn): string | null {
  if (part === 'function') return spellFunction(functions[rank]!);
  const value = person[part];
  return typeof value === 'number' ? String(value) : value;
}

/** The cells beside some companies by id: texts, or percents. */
export function rightCells(db: Db, ids: ArrayLike<number>, column: RightColumn): OwnColumns[string] {
  const found = rightPeopleOf(db, ids, column.functions);
  if (column.part !== 'certainty') return { texts: found.map((chosen) => chosen && textOf(chosen, column)) };
  const low = Float64Array.from(found, (chosen) => chosen?.person.certainty ?? NaN);
  return { low, high: low };
}

/** Sort keys of all companies; none where nobody holds any of the functions. */
export function rightKeys(db: Db, { ids, recordOf }: Records, column: RightColumn): Keys {
  const texts = new Array<string | null>(ids.length).fill(null);
  const figures = new Float64Array(ids.length).fill(NaN);
  everyRightPerson(db, column.functions, (company, chosen) => {
    const record = recordOf[company] ?? -1;
    if (record < 0) return;
    if (column.part === 'certainty') figures[record] = chosen.person.certainty ?? NaN;
    else texts[record] = textOf(chosen, column);
  });
  if (column.part === 'certainty') return figures;
  return textKeys(texts.map((text) => (text === null ? null : fold(text))));
}
