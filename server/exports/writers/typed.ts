import type { ExportColumn } from '../../../core/exports/field-columns.ts';
import type { FileRow, WriterContext } from './writer.ts';

/** A column of a typed file: figures alone where they are figures, the ends of bands and ranges beside. */
export interface TypedColumn {
  name: string;
  kind: ExportColumn['kind'];
  value(row: FileRow): string | number | null;
}

export function typedColumns({ columns, names }: Pick<WriterContext, 'columns' | 'names'>): TypedColumn[] {
  return columns.flatMap((column, i): TypedColumn[] => {
    const name = names[i]!;
    if (column.kind !== 'number') return [{ name, kind: column.kind, value: ({ cells }) => text(cells[i]!) }];
    const own: TypedColumn = {
      name,
      kind: 'number',
      value: ({ cells }) => (typeof cells[i] === 'number' ? cells[i] : null),
    };
    const { range } = column;
    if (!range) return [own];
    return [
      own,
      { name: `${name}_from`, kind: 'number', value: ({ row }) => range(row)?.[0] ?? null },
      { name: `${name}_to`, kind: 'number', value: ({ row }) => range(row)?.[1] ?? null },
    ];
  });
}

const text = (value: string | number | null) => (value === null ? null : String(value));
