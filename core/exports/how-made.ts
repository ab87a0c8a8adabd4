/** What a reader of an exported list needs to know of how it came to be. */
export interface HowMade {
  name: string;
  /** What is listed, such as "Companies". */
  many: string;
  /** ISO time stamp. */
  madeAt: string;
  /** Who made it, and for whom; empty where nobody said. */
  person: string;
  receiver: string;
  asOf: string;
  count: number;
  universe: number;
  /** How many were picked by hand; null where the whole tape went out. */
  picked: number | null;
  /** The steps from what was chosen to the rows of the file. */
  roll: readonly { label: string; delta: number; total: number; note: string }[];
  /** Of the rows, those that a suppression list has, and why they go out. */
  along: readonly { name: string; count: number; reason: string }[];
  /** The last spot check of the tape, if any, in words. */
  check: string | null;
  /** The tape in words, a line each. */
  wording: readonly string[];
  /** The tape file. */
  tape: string;
  sources: readonly { name: string; asOf: string; licence: string | null; rowsRead: number }[];
  /** Columns with what they mean, their unit and where it is more than text. */
  columns: readonly { heading: string; meaning: string }[];
}

export const HOW_TITLE = 'How this list was made';
/** What stands before the tape file, so that it is found again. */
export const TAPE_FILE = 'Tape file';
/** Letters that a cell of a workbook may hold; a longer tape goes on in the cells beside. */
export const LONGEST_CELL = 32_767;

const ATTRIBUTION = 'Place data: GeoNames (CC BY 4.0), adapted; outlines made with Natural Earth.';

/** The sheet "How this list was made", as rows of cells. */
export function howMadeRows(how: HowMade): (string | number)[][] {
  const tape = how.tape.match(new RegExp(`[\\s\\S]{1,${LONGEST_CELL}}`, 'g')) ?? [''];
  return [
    [HOW_TITLE],
    [],
    ['List', how.name],
    ['Made', how.madeAt.slice(0, 16).replace('T', ' ')],
    ...(how.person ? [['By', how.person]] : []),
    ...(how.receiver ? [['For', how.receiver]] : []),
    ['As-of date', how.asOf],
    [`${how.many} in this list`, how.count],
    [`${how.many} in the universe`, how.universe],
    [
      `Which ${how.many.toLowerCase()}`,
      how.picked === null ? 'all that pass the tape' : `${how.picked} picked by hand`,
    ],
    ...how.along.map(({ name, count, reason }) => [
      `On ${name}, and taken along`,
      `${count}, because: ${reason}`,
    ]),
    ...(how.check === null ? [] : [['Spot check', how.check]]),
    [],
    ['From what was chosen to the rows', '', 'left'],
    ...how.roll.map(({ label, delta, total, note }) => [note ? `${label} (${note})` : label, delta, total]),
    [],
    ['The tape, line by line'],
    ...(how.wording.length
      ? how.wording.map((line, i) => [`line ${i + 1}`, line])
      : [['', 'no lines: the whole universe']]),
    [],
    ['Sources', 'as of', 'records', 'licence'],
    ...how.sources.map((source) => [
      source.name,
      source.asOf,
      source.rowsRead,
      source.licence ?? 'not stated',
    ]),
    [],
    ['Columns', 'what they are'],
    ...how.columns.map(({ heading, meaning }) => [heading, meaning]),
    [],
    [TAPE_FILE, ...tape],
    [],
    [ATTRIBUTION],
  ];
}

/** The same as text, for a file beside. */
export function howMadeText(how: HowMade): string {
  return howMadeRows(how)
    .filter(([name]) => name !== TAPE_FILE)
    .map((cells) => cells.join('\t'))
    .join('\n')
    .concat('\n');
}

/** The same as an object, for formats that hold one; the tape as itself. */
export function howMadeObject(how: HowMade): Record<string, unknown> {
  const { tape, ...rest } = how;
  return { title: HOW_TITLE, ...rest, tape: JSON.parse(tape) as unknown, attribution: ATTRIBUTION };
}

/** The tape in such rows of cells; null where it is not there. */
export function tapeInRows(rows: readonly (readonly unknown[])[]): string | null {
  const row = rows.find(([name]) => name === TAPE_FILE);
  return row
    ? row
        .slice(1)
        .filter((cell) => typeof cell === 'string')
        .join('')
    : null;
}
