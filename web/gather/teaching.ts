import type { GatherSpecBody } from '../../contract/gather.ts';
import type { AroundAnswer, LookAnswer, LookRow } from '../../contract/gather-views.ts';
import { headingOf } from '../../core/gather/fields.ts';
import type { TaughtField } from '../../core/gather/lesson.ts';

/** What is pointed at on a page, as changes of what a gatherer reads. */

export type Pointing = 'row' | 'field' | 'advert' | 'next' | 'step';

/** What a gatherer reads before anything is said. */
export const newSpec = (more: Partial<GatherSpecBody> = {}): GatherSpecBody => ({
  start: '',
  steps: [],
  words: [],
  places: [],
  examples: [],
  next: { how: 'usual' },
  needs: [],
  pause: 1,
  pages: 1000,
  detail: null,
  sites: null,
  country: null,
  ...more,
});

/**
 * Takes something for a row, with what it seems to hold, and one like it that holds more; a row that is an example already
 * stays as it is.
 */
export function withRow(
  spec: GatherSpecBody,
  page: number,
  { choices, best, fields, another }: AroundAnswer,
): GatherSpecBody {
  const node = choices[best]?.node;
  const isOne = (row: number) => spec.examples.some((one) => one.page === page && one.node === row);
  if (node === undefined || isOne(node)) return spec;
  const more = another === null || isOne(another.node) ? [] : [{ page, as: 'row' as const, ...another }];
  return { ...spec, examples: [...spec.examples, { page, node, as: 'row', fields }, ...more] };
}

export function withAdvert(
  spec: GatherSpecBody,
  page: number,
  { choices, best }: AroundAnswer,
): GatherSpecBody {
  const node = choices[best]?.node;
  if (node === undefined) return spec;
  const others = spec.examples.filter((one) => one.page !== page || one.node !== node);
  return { ...spec, examples: [...others, { page, node, as: 'advert', fields: [] }] };
}

export const withoutExample = (spec: GatherSpecBody, at: number): GatherSpecBody => ({
  ...spec,
  examples: spec.examples.filter((_, i) => i !== at),
});

/** Takes the row of an example wider or narrower: its fields stay where they were pointed at. */
export const withNode = (spec: GatherSpecBody, at: number, node: number): GatherSpecBody => ({
  ...spec,
  examples: spec.examples.map((one, i) => (i === at ? { ...one, node } : one)),
});

/** Says what a value of a row is; the row becomes an example where it was found by itself. */
export function withField(
  spec: GatherSpecBody,
  page: number,
  row: LookRow,
  taught: TaughtField,
): GatherSpecBody {
  const at = row.example ?? spec.examples.length;
  const before = spec.examples[at] ?? { page, node: row.node, as: 'row' as const, fields: known(row) };
  const fields = [...before.fields.filter(({ field }) => field !== taught.field), taught];
  const examples = [...spec.examples];
  examples[at] = { ...before, fields };
  return { ...spec, examples };
}

/** What a row that was found by itself is taken to hold: it is right until it is corrected. */
const known = ({ values }: LookRow): TaughtField[] => values.map(({ field, node }) => ({ field, node }));

export const withoutField = (spec: GatherSpecBody, at: number, field: string): GatherSpecBody => ({
  ...spec,
  examples: spec.examples.map((one, i) =>
    i === at ? { ...one, fields: one.fields.filter((taught) => taught.field !== field) } : one,
  ),
});

/** The row of a page that a node lies in: the innermost, as their numbers nest. */
export function rowAt(look: LookAnswer, choices: readonly { node: number }[]): LookRow | null {
  const around = new Set(choices.map(({ node }) => node));
  return look.rows.find(({ nodes }) => nodes.some((node) => around.has(node))) ?? null;
}

export interface Mark {
  nodes: number[];
  kind: 'example' | 'row' | 'advert' | 'perhaps' | 'field' | 'next';
  label: string;
}

/** What is drawn over a page. */
export function marksOf(spec: GatherSpecBody, page: number, look: LookAnswer): Mark[] {
  let nth = 0;
  const rows = look.rows.map(({ nodes, example }): Mark => {
    if (example === null) return { nodes, kind: 'row', label: '' };
    return { nodes, kind: 'example', label: String(++nth) };
  });
  // Words over every value would hide the page: the first example of each look has them.
  const named = new Set(
    look.looks.map((_, i) => look.rows.find((row) => row.look === i && row.example !== null)),
  );
  const fields = look.rows.flatMap((row) =>
    [...new Set(row.values.map(({ node }) => node))].map((node): Mark => {
      const own = row.values
        .filter((value) => value.node === node)
        .map(({ field }) => headingOf(field).toLowerCase());
      return { nodes: [node], kind: 'field', label: named.has(row) ? own.join(', ') : '' };
    }),
  );
  const adverts = look.adverts.map((node, i): Mark => ({
    nodes: [node],
    kind: 'advert',
    label:
      i === 0 && look.adverts.length > 1
        ? `advert, set aside with ${look.adverts.length - 1} like it`
        : 'advert, set aside',
  }));
  const perhaps = look.perhaps.map((node, i): Mark => ({
    nodes: [node],
    kind: 'perhaps',
    label: i === 0 ? 'a row, too? point at it' : '',
  }));
  const { next } = spec;
  const onward: Mark[] =
    next.how === 'pointed' && next.page === page && next.node !== undefined
      ? [{ nodes: [next.node], kind: 'next', label: 'the way on' }]
      : [];
  return [...rows, ...fields, ...adverts, ...perhaps, ...onward];
}

/** What is learned, in words: how many looks, and rows of each. */
export function learnedWords(look: LookAnswer | undefined): string {
  if (!look) return '';
  const looks = look.looks.filter((count) => count > 0);
  if (looks.length === 0) return 'nothing learned yet: point at a row';
  const rows =
    looks.length === 1
      ? `${looks[0]} rows like it`
      : looks.map((count, i) => `${count} like ${i + 1}`).join(', ');
  const sure = look.sure === null ? '' : `, ${Math.round(100 * look.sure)} % sure`;
  return `${looks.length === 1 ? 'one look' : `${looks.length} looks`}, ${rows}${sure}`;
}
