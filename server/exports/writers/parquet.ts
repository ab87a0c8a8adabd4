import { fileWriter, ParquetWriter } from 'hyparquet-writer';
import { howMadeObject } from '../../../core/exports/how-made.ts';
import { typedColumns } from './typed.ts';
import type { FileRow, OpenWriter } from './writer.ts';

/** Rows of one row group: those in memory at a time. */
const ROWS_A_GROUP = 50_000;

/** Names under which the metadata of a file has the tape and how it was made. */
export const TAPE_KEY = 'just-tally.tape';
const HOW_KEY = 'just-tally.how';

const TYPES = {
  text: { type: 'BYTE_ARRAY', converted_type: 'UTF8' },
  number: { type: 'DOUBLE' },
  date: { type: 'INT32', converted_type: 'DATE' },
} as const;

export const openParquet: OpenWriter = (context) => {
  const columns = [
    { name: 'key', kind: 'text' as const, value: ({ row }: FileRow) => row.key },
    ...typedColumns(context),
  ];
  const writer = new ParquetWriter({
    writer: fileWriter(context.path),
    schema: [
      { name: 'root', num_children: columns.length },
      ...columns.map(({ name, kind }) => ({
        name,
        ...TYPES[kind],
        repetition_type: 'OPTIONAL' as const,
      })),
    ],
    kvMetadata: [
      { key: TAPE_KEY, value: context.how.tape },
      { key: HOW_KEY, value: JSON.stringify(howMadeObject(context.how)) },
    ],
  });
  const empty = () => columns.map((): (string | number | Date | null)[] => []);
  let group = empty();
  const flush = async () => {
    await writer.write({
      columnData: columns.map(({ name }, i) => ({ name, data: group[i]! })),
      rowGroupSize: ROWS_A_GROUP,
    });
    group = empty();
  };
  return {
    add: async (rows) => {
      columns.forEach(({ kind, value }, i) => {
        for (const row of rows) {
          const cell = value(row);
          group[i]!.push(kind === 'date' && typeof cell === 'string' ? new Date(`${cell}T00:00:00Z`) : cell);
        }
      });
      if (group[0]!.length >= ROWS_A_GROUP) await flush();
    },
    finish: async () => {
      if (group[0]!.length) await flush();
      await writer.finish();
    },
    leave: () => {},
  };
};
