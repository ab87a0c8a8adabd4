import { COMPUTED } from '../../../core/exports/computed.ts';
import { textWriter } from './text-file.ts';
import type { OpenWriter } from './writer.ts';

/** Each record as the API gives it: its key, and its cells by column. */
export const openJsonLines: OpenWriter = ({ path, columns }) => {
  const made = columns.flatMap((column, i) => (isOfItself(column.id) ? [{ i, id: column.plain }] : []));
  return textWriter(path, {
    rows: (rows) =>
      rows
        .map(({ row, cells }) => {
          const { key, company, cells: own, why } = row;
          const computed = Object.fromEntries(made.map(({ i, id }) => [id, cells[i]]));
          const whole = {
            key,
            ...(company ? { company } : {}),
            ...own,
            ...computed,
            ...(why ? { why } : {}),
          };
          return `${JSON.stringify(whole)}\n`;
        })
        .join(''),
  });
};

/** Columns that are made for the file alone and are no cell of the API. */
const isOfItself = (id: string) => id.startsWith(COMPUTED);
