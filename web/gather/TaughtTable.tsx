import clsx from 'clsx';
import type { LookAnswer, LookRow } from '../../contract/gather-views.ts';
import { GATHER_FIELDS, headingOf } from '../../core/gather/fields.ts';
import { SortHead, useOrder } from '../ui/SortHead.tsx';

/** What comes of a page with what is taught so far: its rows as records, those that lack something first to be seen. */
export function TaughtTable({
  look,
  needs,
  onShow,
}: {
  look: LookAnswer;
  needs: readonly string[];
  /** Brings a row into view on the page. */
  onShow(node: number): void;
}) {
  const known = Object.keys(GATHER_FIELDS);
  const fields = [...new Set(look.rows.flatMap(({ values }) => values.map(({ field }) => field)))].sort(
    (a, b) =>
      ((known.indexOf(a) + known.length + 1) % (known.length + 1)) -
      ((known.indexOf(b) + known.length + 1) % (known.length + 1)),
  );
  const valueOf = ({ values }: LookRow, field: string) =>
    values.find((value) => value.field === field)?.value ?? null;
  const rows = look.rows.map((row, i) => ({
    ...Object.fromEntries(fields.map((field) => [`v:${field}`, valueOf(row, field)])),
    row,
    nth: i + 1,
  }));
  const { sorted, order, setOrder } = useOrder<
    string,
    (typeof rows)[number] & Record<string, string | number | null>
  >(rows as never, { by: 'nth', descending: false });
  const lacks = (row: LookRow) => ['name', ...needs].filter((field) => valueOf(row, field) === null);
  if (look.rows.length === 0)
    return (
      <p className="py-2 text-soft">Nothing yet: point at a row of the page, and all like it stand here.</p>
    );
  return (
    <div className="min-h-0 flex-1 overflow-auto">
      <table className="w-full" aria-label="What comes of it">
        <thead className="sticky top-0 bg-ground text-[13px]">
          <tr className="border-b border-edge">
            <th className="w-8">
              <span className="sr-only">Row on the page</span>
            </th>
            {fields.map((field) => (
              <SortHead
                key={field}
                by={`v:${field}`}
                label={headingOf(field)}
                text
                order={order}
                onOrder={setOrder}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          {sorted.map(({ row, nth }) => (
            <tr
              key={row.node}
              className={clsx('border-b border-rule', lacks(row).length > 0 && 'bg-wash')}
              title={lacks(row).length ? `without ${lacks(row).join(', ')}: it would be refused` : undefined}
            >
              <td className="pl-1">
                <button
                  type="button"
                  className="figure text-soft hover:text-ink hover:underline"
                  aria-label={`Show row ${nth} on the page`}
                  onClick={() => onShow(row.node)}
                >
                  {nth}
                </button>
              </td>
              {fields.map((field) => {
                const value = valueOf(row, field);
                return (
                  <td
                    key={field}
                    className={clsx('max-w-52 truncate py-1 pr-4', field === 'name' && 'font-semibold')}
                    title={value ?? undefined}
                  >
                    {value ?? <i className="text-soft">none</i>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
