import { localPartsOf, PATTERNS } from '../core/people/local-parts.ts';
import { namePartsOf } from '../core/people/name-parts.ts';
import type { Truth } from './company.ts';
import { hashOf } from '../core/text/hash.ts';
import { Chance, runningSums } from './random.ts';

/** How companies of the demo write the addresses of their people. */

export interface MailStyle {
  domain: string;
  chance: Chance;
  /** Indices in PATTERNS: the usual one, and the one of those who came before it. */
  patterns: [usual: number, older: number];
  /** Share of people who still have the older one. */
  older: number;
  /** Indices in SPELLINGS and DOUBLES. */
  spelling: number;
  double: number;
}

/** How common each of PATTERNS is, by its place there. */
const SHARES = [38, 14, 9, 8, 10, 5, 3, 3, 2, 2, 1.5, 1, 1.5, 2];
/** In small firms everybody goes by the first name. */
const SMALL_SHARES = [26, 8, 6, 10, 30, 4, 2, 2, 2, 3, 1, 1, 3, 2];
/** Countries where the surname stands first. */
const SURNAME_FIRST = new Set(['HU', 'PL', 'CZ']);
/** Share that spell accented letters out. */
const SPELT_OUT: Readonly<Record<string, number>> = { DE: 0.9, AT: 0.85, CH: 0.8, LU: 0.8, DK: 0.6, NO: 0.5 };
/** Share of people whose address nobody could have foreseen: a nickname, a figure after the name, an earlier surname. */
const UNFORESEEN = 0.03;

/** The way of one company, the same however often it is asked for. */
export function mailStyle({ web, country, headcount }: Truth): MailStyle {
  const domain = (web ?? '').replace(/^www\./, '');
  const chance = new Chance(hashOf(domain));
  const shares = (headcount < 12 ? SMALL_SHARES : SHARES).map((share, at) =>
    PATTERNS[at]!.startsWith('last') && SURNAME_FIRST.has(country) ? 2.5 * share : share,
  );
  const sums = runningSums(shares);
  return {
    domain,
    chance,
    patterns: [chance.draw(sums), chance.draw(sums)],
    older: chance.in(0.12) ? 0.1 + 0.3 * chance.next() : 0,
    spelling: Number(chance.in(SPELT_OUT[country] ?? 0.03)),
    double: chance.in(0.6) ? 0 : chance.whole(1, 2),
  };
}

/** The address of somebody there. */
export function mailOf(style: MailStyle, first: string, last: string): string {
  const { chance, patterns, older, domain } = style;
  const pattern = patterns[chance.in(older) ? 1 : 0];
  const way = localPartsOf(namePartsOf(`${first} ${last}`)!).find(
    (one) =>
      one.pattern === pattern &&
      (one.spelling === null || one.spelling === style.spelling) &&
      (one.double === null || one.double === style.double),
  )!;
  const local = chance.in(UNFORESEEN) ? `${way.local}${chance.whole(2, 79)}` : way.local;
  return `${local}@${domain}`;
}
