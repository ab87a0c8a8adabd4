/** By what changes are sorted: the record, why, and what it was and is. */
export const CHANGE_ORDERS = ['name', 'why', 'was', 'now'] as const;
export type ChangeOrder = (typeof CHANGE_ORDERS)[number];

/** What of a change it is sorted by. */
export type SortedChange = Readonly<Record<'name' | 'why', string> & Record<'was' | 'now', string | null>>;

/** The figure that a value begins with; 0 where it begins with none. */
const figureOf = (value: string) => Number(/^(?:about )?(-?\d+(?:\.\d+)?)/.exec(value)?.[1] ?? 0);

/** Letters of ASCII in either case, as SQLite's NOCASE has them. */
const plain = (text: string) => text.replace(/[A-Z]+/g, (letters) => letters.toLowerCase());

/** Changes in an order, as the server sorts those of a run: values by their figures, unknown ones last. */
export function sortedChanges<T extends SortedChange>(
  changes: readonly T[],
  { by, descending }: { by: ChangeOrder; descending: boolean },
): T[] {
  const sign = descending ? -1 : 1;
  return [...changes].sort((a, b) => {
    const [one, other] = [a[by], b[by]];
    if (one === null || other === null) return (one === null ? 1 : 0) - (other === null ? 1 : 0);
    const figures = by === 'was' || by === 'now' ? figureOf(one) - figureOf(other) : 0;
    const [left, right] = [plain(one), plain(other)];
    return sign * (figures || (left < right ? -1 : left > right ? 1 : 0));
  });
}
