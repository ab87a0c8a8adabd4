import { filled, joined, sql, type Sql } from './statement.ts';

/** An end of a range; null where it is open. */
export type End = Sql | null;

export function end(value: number | undefined | null): End {
  return value === undefined || value === null ? null : sql('?', value);
}

export function between(value: string, from: End, to: End): Sql {
  return either(' AND ', compared(value, '>=', from), compared(value, '<=', to));
}

export function compared(value: string, operator: string, limit: End): End {
  return limit && filled(`${value} ${operator} @`, limit);
}

export function either(by: ' AND ' | ' OR ', ...ends: End[]): Sql {
  return filled(
    '(@)',
    joined(
      ends.filter((one) => one !== null),
      by,
    ),
  );
}
