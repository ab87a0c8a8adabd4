import type { Lookup } from '../../../core/tape/lookup.ts';
import type { PlaceTest } from '../../../core/tape/nodes.ts';
import { spellFunctions } from '../../../core/people/functions.ts';
import { RIGHT_PARTS, type OwnColumn } from '../../../core/tape/own-columns.ts';
import { wordLine } from '../../../core/tape/wording.ts';

/** The heading, in a file, of a column that no field has. */
export function ownHeading(column: OwnColumn, subject: string, lookup: Lookup): string {
  switch (column.kind) {
    case 'score':
      return 'Alike';
    case 'why':
      return 'Why alike';
    case 'right':
      return `${RIGHT_PARTS[column.part]} of ${spellFunctions(column.functions)}`.slice(0, 120);
    case 'group':
    case 'member':
    case 'carried':
    case 'review':
    case 'key':
      return column.label;
    case 'km': {
      const near = (column.line.test as PlaceTest).near!;
      return `Distance from ${near.label ?? 'the point'}, ${near.miles === undefined ? 'km' : 'miles'}`;
    }
    case 'count': {
      const { label, text } = wordLine(column.line, subject, lookup);
      return `${label} ${text}`.replace(/^Has an? /, 'Number of ').slice(0, 120);
    }
  }
}
