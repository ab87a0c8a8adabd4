import { fieldOf } from '../../core/fields/registry.ts';
import { textKeys, type Keys } from '../../core/tally/order.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';

/** Sort keys of a label, such as the name: labels are no columns, so all texts are read, folded and sorted. */
export function labelKeys(db: Db, by: string): Keys {
  const { store } = fieldOf('companies', by)!;
  if (store.at !== 'column') throw new Error(`${by} has no order.`);
  return textKeys(
    db
      .prepare<[], string | null>(`SELECT ${store.column} FROM company ORDER BY id`)
      .pluck()
      .all()
      .map((text) => (text === null ? null : fold(text))),
  );
}
