import type { WordedTally } from '../../../contract/responses.ts';
import type { Field, SheetColumn } from '../../../core/fields/field.ts';
import { columnFields, fieldOf } from '../../../core/fields/registry.ts';
import { spellFunctions } from '../../../core/people/functions.ts';
import type { CarriedColumn } from '../../../core/lists/carried.ts';
import type { HasLine, PlaceTest, Tape } from '../../../core/tape/nodes.ts';
import {
  isSortable,
  ownColumnOf,
  ownColumns,
  REVIEW_PARTS,
  RIGHT_PARTS,
  type OwnColumn,
} from '../../../core/tape/own-columns.ts';
import { wordedById } from '../worded.ts';

/** A column of the sheet: of a field, or one beyond those, such as the count of a has-line. */
export interface ShownColumn extends SheetColumn {
  id: string;
  label: string;
  meaning: string;
  field: Field | null;
  counts: HasLine | null;
}

const FIGURE_WIDTH = 104;
const MEMBER_WIDTHS = {
  verdict: 104,
  reason: 120,
  note: 220,
  tags: 140,
  assigned: 108,
  added: 100,
  carried: 260,
  origins: 240,
};

const RIGHT_WIDTHS = { name: 170, title: 190, mail: 220, certainty: 128, phone: 150, function: 170 };
const CARRIED_WIDTH = 120;

/** A column by id; null where the subject or the tape has none such. */
export function columnOf(tape: Tape, id: string, tally?: WordedTally): ShownColumn | null {
  const field = fieldOf(tape.subject, id);
  if (field?.column)
    return { ...field.column, id, label: field.label, meaning: field.meaning, field, counts: null };
  const own = ownColumnOf(tape, id);
  if (!own) return null;
  const words =
    own.kind === 'key' || own.kind === 'group' || own.kind === 'right'
      ? undefined
      : wordedById(tally?.lines ?? []).get(own.line.id)?.words;
  const line = `${words?.label ?? ''} ${words?.text ?? ''}`.trim();
  const { heading, meaning } = told(own, tape.subject, line);
  const text =
    own.kind === 'why' ||
    own.kind === 'carried' ||
    own.kind === 'member' ||
    (own.kind === 'right' && own.part !== 'certainty') ||
    (own.kind === 'review' && own.part === 'doubts');
  return {
    id,
    heading,
    width:
      own.kind === 'member'
        ? MEMBER_WIDTHS[own.part]
        : own.kind === 'right'
          ? RIGHT_WIDTHS[own.part]
          : own.kind === 'carried'
            ? Math.max(CARRIED_WIDTH, 34 + heading.length * 7)
            : text
              ? 320
              : Math.max(own.kind === 'score' ? 92 : FIGURE_WIDTH, 34 + heading.length * 7),
    ...(isSortable(own) ? {} : { sortable: false }),
    ...(text ? {} : { numeric: true }),
    label: own.kind === 'count' ? `number of ${heading.toLowerCase()}` : heading.toLowerCase(),
    meaning,
    field: null,
    counts: own.kind === 'count' ? own.line : null,
  };
}

function told(own: OwnColumn, subject: string, line: string): { heading: string; meaning: string } {
  switch (own.kind) {
    case 'count': {
      const many = own.line.has === 'company' ? 'companies' : own.line.has;
      return {
        heading: `${many.charAt(0).toUpperCase()}${many.slice(1)}${own.line.as ? ` as ${own.line.as}` : ''}`,
        meaning: `How many: ${line}.${own.line.has === 'company' ? '' : ' Click a number to see them.'}`,
      };
    }
    case 'score':
      return {
        heading: 'Alike',
        meaning: `From 0 to 1: what is surely alike, to what may be where parts are unknown. ${line}`,
      };
    case 'why':
      return { heading: 'Why alike', meaning: `The reasons, the weightiest first. ${line}` };
    case 'km': {
      const near = (own.line.test as PlaceTest).near!;
      const unit = near.miles === undefined ? 'km' : 'miles';
      return {
        heading: `Distance, ${unit}`,
        meaning: `How far from ${near.label ?? 'the point'}, in ${unit}.`,
      };
    }
    case 'member':
      return { heading: own.label, meaning: `${own.label}, as the list says of its members.` };
    case 'carried':
      return { heading: own.label, meaning: `${own.label}, as the file says that put a member on the list.` };
    case 'right':
      return {
        heading: own.label,
        meaning: `${RIGHT_PARTS[own.part]} of the right person: ${spellFunctions(own.functions)}. Among several whom one reaches surest.`,
      };
    case 'review':
      return { heading: own.label, meaning: REVIEW_PARTS[own.part].meaning };
    case 'group':
      return {
        heading: own.label,
        meaning:
          'Of the whole group: its companies with a single figure, added up; of a company without group its own.',
      };
    case 'key':
      return { heading: own.label, meaning: fieldOf(subject, own.field)!.meaning };
  }
}

/**
 * Every column that the tape's records can have: those of fields, then those of the tape's own lines.
 * @param carried the headings under which files say something of a list's members
 */
export function allColumns(
  tape: Tape,
  tally?: WordedTally,
  carried?: (list: string) => readonly CarriedColumn[],
): ShownColumn[] {
  return [...columnFields(tape.subject).map(({ id }) => id), ...ownColumns(tape, carried)].map((id) =>
    columnOf(tape, id, tally)!,
  );
}
