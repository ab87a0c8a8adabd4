import { fold } from '../text/fold.ts';

/** "The right person": a ranked choice of functions, of which each company has the first that somebody holds. */

/** One function: a department, levels, words of the title; what is left out may be any. */
export interface PersonFunction {
  department?: string;
  levels?: readonly string[];
  /** Words of which the title has one. */
  title?: readonly string[];
}

/** Somebody who may be chosen. */
export interface Candidate {
  department: string | null;
  level: string | null;
  title: string | null;
  /** Of the address, in percent; null without one. */
  certainty: number | null;
}

function holds({ department, levels, title }: PersonFunction, person: Candidate): boolean {
  if (department !== undefined && person.department !== department) return false;
  if (levels?.length && (person.level === null || !levels.includes(person.level))) return false;
  if (!title?.length) return true;
  const words = person.title === null ? '' : fold(person.title);
  return title.some((word) => words.includes(fold(word)));
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
