import { foldedWords } from '../text/fold.ts';
import type { PersonFunction } from './functions.ts';

/** "The right person": a ranked choice of functions, of which each company has the first that somebody holds. */

/** Somebody who may be chosen. */
export interface Candidate {
  department: string | null;
  level: string | null;
  title: string | null;
  /** Of the address, in percent; null without one. */
  certainty: number | null;
}

/**
 * Whether somebody surely holds a function; what is not known of a person holds none. Words of a title are held to it as a line
 * on titles does (`core/tape/right-person.ts`).
 */
function holds({ department, levels, title }: PersonFunction, person: Candidate): boolean {
  if (department !== undefined && person.department !== department) return false;
  if (levels?.length && (person.level === null || !levels.includes(person.level))) return false;
  const wanted = (title ?? []).map(foldedWords).filter((words) => words.length > 0);
  if (wanted.length === 0) return true;
  if (person.title === null) return false;
  const words = foldedWords(person.title);
  return wanted.some((some) => hasWords(words, some));
}

/** Whether words hold some others side by side; one alone need only begin a word. */
function hasWords(words: readonly string[], wanted: readonly string[]): boolean {
  if (wanted.length === 1) return words.some((word) => word.startsWith(wanted[0]!));
  return words.some((_, at) => wanted.every((word, i) => words[at + i] === word));
}

/**
 * Of the people of one company the right one: of the first function that anybody holds, who can be reached surest; among equals
 * the first. With `rank`, the place of the function, from 0. Null where nobody holds any.
 */
export function rightPerson<P extends Candidate>(
  people: readonly P[],
  functions: readonly PersonFunction[],
): { person: P; rank: number } | null {
  for (const [rank, one] of functions.entries()) {
    let best: P | null = null;
    for (const person of people)
      if (holds(one, person) && (best === null || (person.certainty ?? -1) > (best.certainty ?? -1)))
        best = person;
    if (best) return { person: best, rank };
  }
  return null;
}
