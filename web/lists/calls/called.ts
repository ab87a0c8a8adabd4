import type { RowsAnswer } from '../../../contract/responses.ts';
import { outcomeOf, type CallOutcome } from '../../../core/lists/calls.ts';
import type { PersonFunction } from '../../../core/people/functions.ts';
import { memberColumn, rightColumn } from '../../../core/tape/own-columns.ts';

const NOTE = memberColumn('note');
const TAGS = memberColumn('tags');

/** A member of the list, to be called. */
export interface Called {
  key: string;
  name: string;
  where: string | null;
  phone: string | null;
  person: { name: string; title: string | null; phone: string | null } | null;
  note: string | null;
  tags: string[];
  outcome: CallOutcome | null;
}

/** The columns that a call sheet is made of. */
export function columnsFor(ofCompanies: boolean, functions: readonly PersonFunction[]): string[] {
  return ofCompanies
    ? [
        ...['name', 'place', 'phone'],
        ...(['name', 'title', 'phone'] as const).map((part) => rightColumn(part, functions)),
        ...[NOTE, TAGS],
      ]
    : ['name', 'title', 'phone', 'company', NOTE, TAGS];
}

/** A row of these columns as it stands on the sheet. */
export function calledOf(
  { key, cells }: RowsAnswer['rows'][number],
  ofCompanies: boolean,
  functions: readonly PersonFunction[],
): Called {
  const text = (column: string) => {
    const cell = cells[column];
    return typeof cell === 'string' && cell !== '' ? cell : null;
  };
  const tags = (text(TAGS) ?? '').split(', ').filter(Boolean);
  const right = (part: 'name' | 'title' | 'phone') => text(rightColumn(part, functions));
  const place = cells.place as { town: string | null; countryName: string | null } | null | undefined;
  const person = ofCompanies ? right('name') : text('company');
  return {
    ...{ key, tags, outcome: outcomeOf(tags), note: text(NOTE), phone: text('phone') },
    name: text('name') ?? key,
    where: ofCompanies ? [place?.town, place?.countryName].filter(Boolean).join(', ') || null : text('title'),
    person:
      person === null
        ? null
        : {
            name: person,
            title: ofCompanies ? right('title') : null,
            phone: ofCompanies ? right('phone') : null,
          },
  };
}
