import type { WordedTally } from '../../../contract/responses.ts';
import type { Field, SheetColumn } from '../../../core/fields/field.ts';
import { columnFields, fieldOf } from '../../../core/fields/registry.ts';
import { COUNT_COLUMN, countedLine, type HasLine, type Tape } from '../../../core/tape/nodes.ts';
import { wordedById } from '../worded.ts';

/** A column of the sheet: of a field, or the count of a has-line. */
export interface ShownColumn extends SheetColumn {
  id: string;
  label: string;
  meaning: string;
  field: Field | null;
  counts: HasLine | null;
}

const COUNT_WIDTH = 104;

/** A column by id; null where the subject or the tape has none such. */
export function columnOf(tape: Tape, id: string, tally?: WordedTally): ShownColumn | null {
  const field = fieldOf(tape.subject, id);
  if (field?.column)
    return { ...field.column, id, label: field.label, meaning: field.meaning, field, counts: null };
  const line = countedLine(tape, id);
  if (!line) return null;
  const words = wordedById(tally?.lines ?? []).get(line.id)?.words;
  const many = line.has === 'company' ? 'companies' : line.has;
  const heading = `${many.charAt(0).toUpperCase()}${many.slice(1)}${line.as ? ` as ${line.as}` : ''}`;
  return {
    id,
    heading,
    width: Math.max(COUNT_WIDTH, 34 + heading.length * 7),
    numeric: true,
    label: `number of ${heading.toLowerCase()}`,
    meaning: `How many: ${words?.label ?? ''} ${words?.text ?? ''}.${line.has === 'company' ? '' : ' Click a number to see them.'}`,
    field: null,
    counts: line,
  };
}

/** Every column that the tape's records can have: those of fields, then counts of has-lines. */
export function allColumns(tape: Tape, tally?: WordedTally): ShownColumn[] {
  const counted = tape.lines.flatMap((line) => {
    const leaves = 'either' in line ? line.either : [line];
    return leaves.flatMap((one) =>
      'has' in one ? (columnOf(tape, COUNT_COLUMN + one.id, tally) ?? []) : [],
    );
  });
  return [...columnFields(tape.subject).map(({ id }) => columnOf(tape, id, tally)!), ...counted];
}
