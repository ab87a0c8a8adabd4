import { fold } from '../text/fold.ts';

/** A person's name taken apart, as it is written, without titles. */
export interface NameParts {
  /** At least one; the first is the one that addresses are made of. */
  given: string[];
  /** Parts of the surname, as "Planik" and "Dorova" of "Planik-Dorova", with particles joined to what follows. */
  family: string[];
}

/** What stands before or after names and is no part of them, folded. */
const TITLES = new Set(
  'mr mrs ms miss herr frau dr prof ing mgr bc mudr rndr judr phdr dipl doc dott dssa sig mag mba msc bsc phd csc drsc ir drs'.split(
    ' ',
  ),
);
/** Particles that belong to the surname after them, folded. */
const PARTICLES = new Set('van von der den de del della di da dos du la le ter ten zu zum af av'.split(' '));

/**
 * Takes a full name apart: titles go, "Surname, First" is turned, a particle belongs to the surname, and all but the last word
 * (with its particles) are given names. Null where it has fewer than two words, since then nobody can say which it is.
 */
export function namePartsOf(name: string): NameParts | null {
  const comma = name.split(',');
  // What follows a comma is the first name, or a title: "Planik, Monika" but "Monika Planik, MBA".
  const turned = comma.length === 2 && wordsOf(comma[1]!).length > 0 ? `${comma[1]} ${comma[0]}` : comma[0]!;
  const words = wordsOf(turned);
  if (words.length < 2) return null;
  let from = words.length - 1;
  while (from > 1 && PARTICLES.has(fold(words[from - 1]!))) from--;
  const family = words.slice(from).join('').split('-').filter(Boolean);
  return family.length === 0 ? null : { given: words.slice(0, from), family };
}

/** "Planik, Monika" as it is said: "Monika Planik". Other names stay as they are, titles and all. */
export function turnedName(name: string): string {
  const parts = name.split(',').map((part) => part.trim());
  return parts.length === 2 && parts.every((part) => wordsOf(part).length > 0)
    ? `${parts[1]} ${parts[0]}`
    : name;
}

function wordsOf(text: string): string[] {
  return text.split(/[\s.]+/).filter((word) => word !== '' && !TITLES.has(fold(word)) && /\p{L}/u.test(word));
}
