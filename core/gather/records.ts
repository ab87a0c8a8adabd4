import { domainOf } from '../text/domain.ts';
import { foldedWords } from '../text/fold.ts';
import { rolled, type Roll } from '../lists/roll.ts';

/** What is kept of a row: values by field, and where they were read. */
export type RecordValues = Record<string, string>;

/**
 * What makes two rows the same record: the page they lead to, else their name with the closest that is known of where
 * they are. Null where a row has no name.
 */
export function recordKey(values: RecordValues): string | null {
  const words = foldedWords(values.name ?? '').join(' ');
  if (words === '') return null;
  if (values.page) return `page ${values.page}`;
  const web = domainOf(values.web ?? null);
  const place = values.postcode ?? values.town ?? '';
  const rest = foldedWords(place).join('') || web || (values.phone ?? '').replace(/\D/g, '');
  return `${words} / ${rest}`;
}

/** Why a row is refused; null where it is not. */
export function refusal(values: RecordValues, needs: readonly string[]): string | null {
  const missing = ['name', ...needs].find((field) => !values[field]);
  return missing === undefined ? null : `without ${missing}`;
}

/** Two rows of one record as one: what either has, the first's where both do. */
export function together(first: RecordValues, second: RecordValues): RecordValues {
  return { ...second, ...first };
}

export interface GatherFigures {
  /** Rows and adverts on all pages read. */
  found: number;
  adverts: number;
  twice: number;
  /** Whether they are companies whose own sites were read, rather than rows of pages. */
  sites?: boolean;
  /** By reason. */
  refused: readonly { reason: string; count: number }[];
}

/** The roll of a gatherer's run; its foot is the records. Steps are named "found", "adverts", "twice" and "refused". */
export function gatherRoll({ found, adverts, twice, refused, sites = false }: GatherFigures): Roll {
  const off = refused.reduce((sum, { count }) => sum + count, 0);
  return rolled([
    {
      step: 'found',
      label: sites ? 'Companies' : 'Rows found',
      note: sites ? 'of the list' : '',
      delta: found,
    },
    ...(sites ? [] : [{ step: 'adverts', label: 'Adverts', note: 'set aside', delta: -adverts }]),
    ...(sites && twice === 0
      ? []
      : [{ step: 'twice', label: 'Twice', note: 'found by another word or place', delta: -twice }]),
    {
      step: 'refused',
      label: 'Refused',
      note: refused.map(({ reason, count }) => `${count} ${reason}`).join(', '),
      delta: -off,
    },
  ]);
}

/** What the rows of one page hold, in its order. */
export interface PageFigures {
  /** The page's number in the run, from 1. */
  nth: number;
  rows: number;
  /** Rows in which each field was found. */
  filled: Readonly<Record<string, number>>;
}

/** Pages that a field must be empty on, and rows of them at least, until a change of build is seen. */
const [EMPTY_PAGES, EMPTY_ROWS] = [3, 12];
/** How often a field was found before it counts as one that rows have. */
const USUAL = 0.4;

/**
 * Whether pages are built otherwise than those before: a field that rows used to have is empty, or there are no rows any
 * more. Says it in words, with the page since which it is so; null where nothing has changed.
 */
export function changeOfBuild(pages: readonly PageFigures[]): string | null {
  if (pages.length <= EMPTY_PAGES) return null;
  const late = pages.slice(-EMPTY_PAGES);
  const before = pages.slice(0, -EMPTY_PAGES);
  const rowsBefore = sum(before, ({ rows }) => rows);
  if (rowsBefore === 0) return null;
  if (late.every(({ rows }) => rows === 0))
    return `no rows since page ${sinceOf(pages, ({ rows }) => rows === 0)}`;
  const fields = Object.keys(Object.assign({}, ...before.map(({ filled }) => filled)) as object);
  const empty = fields.filter(
    (field) =>
      sum(before, ({ filled }) => filled[field] ?? 0) / rowsBefore >= USUAL &&
      sum(late, ({ rows }) => rows) >= EMPTY_ROWS &&
      late.every(({ filled }) => !filled[field]),
  );
  if (empty.length === 0) return null;
  const since = sinceOf(pages, ({ filled }) => !filled[empty[0]!]);
  return empty.length === 1
    ? `${empty[0]} empty since page ${since}`
    : `${empty.length} fields empty since page ${since}`;
}

function sinceOf(pages: readonly PageFigures[], is: (page: PageFigures) => boolean): number {
  let i = pages.length;
  while (i > 0 && is(pages[i - 1]!)) i--;
  return pages[i]!.nth;
}

const sum = <T>(of: readonly T[], figure: (one: T) => number) =>
  of.reduce((all, one) => all + figure(one), 0);

/**
 * Time left in seconds: pages that wait, and those that searches to come are likely to have, at the pace so far; null where
 * nothing is known of it.
 */
export function timeLeft(of: {
  /** Pages that wait, the first ones of searches to come included. */
  waiting: number;
  /** Searches that nothing was read of yet. */
  searchesLeft: number;
  searchesBegun: number;
  pagesRead: number;
  secondsSpent: number;
}): number | null {
  if (of.pagesRead === 0 || of.searchesBegun === 0) return null;
  const perPage = of.secondsSpent / of.pagesRead;
  const perSearch = (of.pagesRead + of.waiting - of.searchesLeft) / of.searchesBegun;
  return Math.ceil(perPage * (of.waiting - of.searchesLeft + of.searchesLeft * Math.max(1, perSearch)));
}
