import type { PersonFunction } from '../people/functions.ts';
import { foldedWords } from '../text/fold.ts';
import { renamed } from './edit.ts';
import type { HasLine, Line } from './nodes.ts';

/**
 * The line, `id`, that keeps companies where somebody holds one of some functions: a has-line on people, or several joined by "or".
 * It keeps just those that `rightPerson` finds somebody at.
 */
export function rightPersonLine(functions: readonly PersonFunction[], id: string): Line {
  const branches = functions.map(hasLine);
  return renamed(branches.length === 1 ? branches[0]! : { id, either: branches }, id);
}

/** The ids are those of the whole line, given at the end. */
function hasLine({ department, levels, title }: PersonFunction): HasLine {
  const lines: Line[] = [];
  if (department !== undefined) lines.push({ id: '', field: 'department', test: { any: [department] } });
  if (levels?.length) lines.push({ id: '', field: 'level', test: { any: levels } });
  const words = (title ?? []).map(foldedWords).filter((one) => one.length > 0);
  if (words.length)
    lines.push({
      id: '',
      field: 'title',
      test: {
        text: words.map((one) => (one.length === 1 ? `${one[0]!}*` : `"${one.join(' ')}"`)).join(' or '),
      },
    });
  return { id: '', has: 'people', lines };
}
