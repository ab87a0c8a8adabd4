import type { Lookup } from '../lookup.ts';
import { alsoLine } from '../also.ts';
import { emptyTape, isBlock, isHas, type Line, type Tape } from '../nodes.ts';
import { wordLine } from '../wording.ts';
import { squeezed } from './pieces.ts';
import { parseTyped } from './parse.ts';
import { suggestions } from './suggest.ts';
import type { Suggestion } from './suggestion.ts';

/** A line that the text so far may become. */
export interface Completion {
  /** The whole line as typed. */
  typed: string;
  /** What it means in words. */
  meaning: string;
  /** What kind of thing a name is, where several have it: "region", "town", "metro area". */
  what?: string;
  /** Just what was typed is its name. */
  exact?: true;
  /** Only spelled like what was typed; never to be taken without a look. */
  alike?: true;
  /** Meant as further choices of a line that the tape has, rather than as a line beside it. */
  also?: true;
}

const MOST = 8;
/** Completions of a kind that the tape has a line of are also offered as more of it; so many at most. */
const MOST_ALSO = 3;

const MARKS = /^(?:(?:not|must|parked|keep unknowns?|drop unknowns?|fresh\s+\d+\s+\w+)\s+)*/i;

/**
 * What the last of the typed lines may become, likeliest first: what reads as it stands, then exact names in any of their
 * languages, then what begins so, words, and at last what is only spelled alike. Words are taken by meaning: "painters"
 * finds the code for painting, "brno" the town, "50" a headcount.
 */
export function complete(text: string, tape: Pick<Tape, 'subject' | 'lines'>, lookup: Lookup): Completion[] {
  const { subject } = tape;
  const trimmed = squeezed(text).replace(/^\/+ ?/, '');
  const marks = MARKS.exec(trimmed)![0];
  const body = trimmed.slice(marks.length);
  if (body === '') return [];
  const candidates: Suggestion[] = [{ typed: body }, ...suggestions(body, subject, lookup)];
  const found: Completion[] = [];
  let alsos = 0;
  for (const { typed, what, exact, alike } of candidates) {
    if (found.length >= MOST) break;
    const line = lineOf(marks + typed, subject, lookup);
    if (!line) continue;
    const meaning = wordsOf(line, subject, lookup);
    const same = found.find((one) => one.meaning === meaning && !one.also);
    if (same) {
      if (what && !same.what) same.what = what;
      continue;
    }
    found.push({
      typed: marks + typed,
      meaning,
      ...(what ? { what } : {}),
      ...(exact ? { exact } : {}),
      ...(alike ? { alike } : {}),
    });
    if (marks !== '' || alike || alsos === MOST_ALSO || !more(tape, line)) continue;
    alsos++;
    found.push({ typed, meaning: `also ${meaning}`, ...(what ? { what } : {}), also: true });
  }
  return found;
}

/** What a completion's line reads as, under an id of its own; null where it reads as none. */
function lineOf(typed: string, subject: string, lookup: Lookup): Line[] | null {
  try {
    let n = 0;
    const lines = parseTyped(typed, subject, lookup, () => `c${++n}`);
    return lines.length ? lines : null;
  } catch {
    // A suggestion that does not read is none.
    return null;
  }
}

function wordsOf(lines: readonly Line[], subject: string, lookup: Lookup): string {
  return lines
    .map((line) => `${line.not ? 'not ' : ''}${Object.values(wordLine(line, subject, lookup)).join(' ')}`)
    .join('; ');
}

/** Whether the tape has a line of which these could be further choices. */
function more(
  { subject, lines }: Pick<Tape, 'subject' | 'lines'>,
  [line, ...rest]: readonly Line[],
): boolean {
  if (!line || rest.length || isBlock(line) || isHas(line)) return false;
  const has = lines.some(
    (one) => JSON.stringify('test' in one ? one.test : null) === JSON.stringify(line.test),
  );
  return !has && alsoLine({ ...emptyTape(subject), lines }, line) !== null;
}
