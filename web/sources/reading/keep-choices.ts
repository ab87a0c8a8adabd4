import type { UploadAnswer } from '../../../contract/responses.ts';
import { fold } from '../../../core/text/fold.ts';
import type { Mapping } from '../../../core/records/mapping.ts';

type Headed = Pick<UploadAnswer, 'subject' | 'header' | 'made'>;

const ownHeadings = ({ header, made }: Headed): readonly string[] =>
  header.slice(0, header.length - made.length);

/** Whether a file is read as before but for the columns that are made of its own. */
export function isSameFile(before: Headed, now: Headed): boolean {
  return before.subject === now.subject && ownHeadings(before).join('\n') === ownHeadings(now).join('\n');
}

/** The column of which a heading is a name. */
function namedBy(heading: string, columns: UploadAnswer['columns']): string | null {
  const folded = fold(heading.trim());
  const named = ({ label, headings }: UploadAnswer['columns'][number]) =>
    fold(label) === folded || headings.some((one) => fold(one) === folded);
  return columns.find(named)?.id ?? null;
}

/**
 * The mapping of a file whose made columns have changed: what was chosen for its own columns, and for made ones that are still there,
 * stays; new ones are read as what they are called, else as they are recognised, where no other column is read so.
 */
export function withMadeOnes(
  mapping: Mapping,
  before: Headed,
  now: Headed & Pick<UploadAnswer, 'mapping' | 'columns'>,
): Mapping {
  const own = ownHeadings(now).length;
  const placeBefore = now.header.map((heading, at) => (at < own ? at : before.header.indexOf(heading, own)));
  const kept = new Set(placeBefore.flatMap((at) => (at < 0 ? [] : [mapping.columns[at]])));
  const { undecided, ...rest } = mapping;
  const asked = [
    ...(undecided ?? []).flatMap(({ column, what }) => {
      const at = placeBefore.indexOf(column);
      return at < 0 ? [] : [{ column: at, what }];
    }),
    ...(now.mapping.undecided ?? []).filter(({ column }) => placeBefore[column]! < 0),
  ];
  const columns = placeBefore.map((at, place) => {
    if (at >= 0) return mapping.columns[at] ?? null;
    const recognised = now.mapping.columns[place] ?? null;
    return recognised !== null && kept.has(recognised) ? null : recognised;
  });
  // Whoever makes a column by the name of a field means that field, whatever was read as it before.
  placeBefore.forEach((at, place) => {
    const named = at < 0 ? namedBy(now.header[place]!, now.columns) : null;
    if (named === null) return;
    columns.forEach((id, other) => id === named && (columns[other] = null));
    columns[place] = named;
  });
  return {
    ...rest,
    columns,
    styles: placeBefore.map(
      (at, place) => (at < 0 ? now.mapping.styles?.[place] : mapping.styles?.[at]) ?? {},
    ),
    ...(mapping.answers
      ? { answers: placeBefore.map((at) => (at < 0 ? null : (mapping.answers?.[at] ?? null))) }
      : {}),
    ...(asked.length ? { undecided: asked } : {}),
  };
}
