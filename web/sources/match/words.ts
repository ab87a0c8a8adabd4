import type { MatchView } from '../../../contract/matches.ts';

/** What the parts of a match are called, by what its rows are. */
export const WORDS: Record<
  MatchView['of'],
  { rows: string; about: string; row: string; own: string; other: string; none: string; foot: string }
> = {
  file: {
    rows: 'rows of the file',
    about: 'each row of the file with who it may be',
    row: 'the file, row',
    own: 'In the file',
    other: 'In the universe',
    none: 'No row of the file came to this.',
    foot: 'match rate',
  },
  doubles: {
    rows: 'companies without a number',
    about: 'each company with whom it may be',
    row: 'without a number',
    own: 'Without a number',
    other: 'May be',
    none: 'No company came to this.',
    foot: 'doubles',
  },
};
