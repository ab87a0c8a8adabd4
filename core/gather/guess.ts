import { fileColumns } from '../fields/registry.ts';
import { fold } from '../text/fold.ts';
import { cellsOf, type Cell } from './cells.ts';
import { GATHER_FIELDS } from './fields.ts';
import { wholeAddress } from './follow.ts';
import type { PageForm, Step } from './forms.ts';
import type { TaughtField } from './lesson.ts';
import type { Page, PageElement } from './page.ts';
import { rowOf } from './row.ts';
import { labelIn, type Shape } from './shape.ts';

/** What a row, a page or a form seems to hold, before anybody has pointed at it: a beginning that is corrected. */

/** Fields by the words before their values, in the languages that headings of files are known in. */
const LABELS: ReadonlyMap<string, string> = new Map(
  fileColumns('companies')
    .filter(({ id }) => GATHER_FIELDS[id] !== undefined)
    .flatMap(({ id, label, headings }) =>
      [label, ...headings].map((heading) => [labelIn(heading), id] as const),
    )
    .concat(
      ['tel', '☎', 'tel no', 'phone no', 't'].map((label) => [fold(label), 'phone'] as const),
      ['staff', 'employees'].map((label) => [label, 'headcount'] as const),
      [['e-mail', 'mail'] as const, ['m', 'mail'] as const],
    )
    .filter(([label]) => label !== ''),
);

/** Fields that a value of a shape is: an address is three of them. */
const BY_SHAPE: Partial<Record<Shape, readonly string[]>> = {
  phone: ['phone'],
  mail: ['mail'],
  web: ['web'],
  postcode: ['postcode'],
  street: ['street'],
  address: ['street', 'postcode', 'town'],
  place: ['postcode', 'town'],
};

/** What a row seems to hold: its name and the page it leads to, and what its values look like. */
export function guessRow(page: Page, node: number, url: string): TaughtField[] {
  const first = page.nodes[node]!;
  const cells = cellsOf(rowOf(page, first.kind === 'element' ? first : first.parent));
  const name = nameCell(cells);
  if (!name) return [];
  const found: TaughtField[] = [{ field: 'name', node: name.node }];
  const link = linkOf(page, cells, name);
  const whole = link && wholeAddress(link.text, url);
  if (link && whole && !link.text.startsWith('#'))
    found.push(
      new URL(whole).host === new URL(url).host
        ? { field: 'page', node: link.node, source: 'href' }
        : { field: 'web', node: link.node, source: 'href' },
    );
  addByShape(found, cells, name);
  return found;
}

/** Fields worth a second example where the first row lacks them. */
const WORTH_ANOTHER: ReadonlySet<string> = new Set(['phone', 'mail', 'web', 'street', 'postcode', 'town']);

/** Of rows that are alike, the one that holds most of what the first lacks; null where none holds more. */
export function guessAnother(
  page: Page,
  rows: readonly number[],
  first: readonly TaughtField[],
  url: string,
): { node: number; fields: TaughtField[] } | null {
  const known = new Set(first.map(({ field }) => field));
  let best: { node: number; fields: TaughtField[] } | null = null;
  let most = 0;
  for (const node of rows) {
    const fields = guessRow(page, node, url);
    const more = fields.filter(({ field }) => WORTH_ANOTHER.has(field) && !known.has(field)).length;
    if (more > most) [best, most] = [{ node, fields }, more];
  }
  return best;
}

/** What a page that tells of one company seems to say: what stands behind words that are known. */
export function guessDetail(page: Page): TaughtField[] {
  const cells = cellsOf(rowOf(page, page.root));
  const found: TaughtField[] = [];
  for (const cell of cells) {
    const field = cell.source === 'text' ? LABELS.get(cell.label) : undefined;
    if (field === undefined || field === 'name' || found.some((one) => one.field === field)) continue;
    if (field === 'town' && cell.shape === 'place') found.push({ field: 'postcode', node: cell.node });
    found.push({ field, node: cell.node });
  }
  return found;
}

const HEADING = />(?:h[1-6]|strong|b)(?:>|$)/;

/** What a name may look like: "Lindner 24" looks like a street. */
const NAMES: ReadonlySet<Shape> = new Set(['words', 'street', 'place']);

function nameCell(cells: readonly Cell[]): Cell | undefined {
  const may = cells.filter(
    ({ source, shape, text }) => source === 'text' && NAMES.has(shape) && text.length > 2,
  );
  return (
    may.find(({ path }) => HEADING.test(path)) ??
    may.find(({ path }) => />a(?:>|$)/.test(path)) ??
    may.find(({ shape }) => shape === 'words') ??
    may[0]
  );
}

/** The address that the words of a cell lead to. */
function linkOf(page: Page, cells: readonly Cell[], { node }: Cell): Cell | undefined {
  const at = page.nodes[node]!;
  for (let up: PageElement | null = at.kind === 'element' ? at : at.parent; up !== null; up = up.parent) {
    const own = cells.find((cell) => cell.source === 'href' && cell.node === up.id);
    if (own) return own;
  }
  return undefined;
}

function addByShape(found: TaughtField[], cells: readonly Cell[], name: Cell): void {
  const has = (field: string) => found.some((one) => one.field === field);
  cells.forEach((cell, i) => {
    if (cell.source !== 'text' || cell === name) return;
    const labelled = LABELS.get(cell.label);
    const before = cells[i - 1];
    const fields =
      labelled !== undefined && labelled !== 'name' && BY_SHAPE[cell.shape] === undefined
        ? [labelled]
        : (BY_SHAPE[cell.shape] ?? (before?.shape === 'postcode' && cell.shape === 'words' ? ['town'] : []));
    for (const field of fields) if (!has(field)) found.push({ field, node: cell.node });
  });
}

const PLACE_WORDS =
  /where|place|town|city|location|region|ort|stadt|misto|mesto|kde|ville|lieu|ciudad|lugar|luogo|citta|miasto|gdzie|plaats|sted|plats/;

/** Steps of a search: the word into the first box, the place into the one that asks for it, and the form's button. */
export function stepsFor(forms: readonly PageForm[], words: boolean, places: boolean): Step[] {
  const [form] = [...forms]
    .filter(({ buttons, controls }) => buttons.length && controls.some(({ kind }) => kind === 'text'))
    .sort((a, b) => b.controls.length - a.controls.length);
  if (!form) return [];
  const boxes = form.controls.filter(({ kind }) => kind === 'text');
  const place = boxes.find(({ label }) => PLACE_WORDS.test(fold(label))) ?? boxes[1];
  const word = boxes.find((box) => box !== place);
  return [
    ...(words && word ? [{ do: 'type' as const, into: word.label, text: '{word}' }] : []),
    ...(places && place ? [{ do: 'type' as const, into: place.label, text: '{place}' }] : []),
    { do: 'press', button: form.buttons[0]!.label },
  ];
}
