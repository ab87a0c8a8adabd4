import type { Firm } from '../core/match/firm.ts';
import { withoutForm } from '../core/match/legal-forms.ts';
import { companyName, domain, legalForm, misspelt, phone, street } from './names.ts';
import { Chance } from './random.ts';
import { SECTORS } from './sectors.ts';

/**
 * A file of companies as a prospector may be handed it: what a universe knows of some of its companies, with the mistakes and the
 * gaps of people who write things down, and companies among them that the universe does not have. For trying the matcher.
 */

export interface FileRow {
  firm: Firm;
  /** Key of the company that the row is of; null where the universe has it not. */
  truth: string | null;
}

/** How often something is wrong, or left out. */
export interface Carelessness {
  /** Share of rows that the universe has not. */
  strangers: number;
  number: number;
  web: number;
  mail: number;
  phone: number;
  street: number;
  postcode: number;
  town: number;
  country: number;
  typo: number;
}

/** Shares of the rows that have each thing, and of names mistyped. */
export const USUAL: Carelessness = {
  strangers: 0.2,
  number: 0.3,
  web: 0.55,
  mail: 0.4,
  phone: 0.6,
  street: 0.7,
  postcode: 0.75,
  town: 0.92,
  country: 0.97,
  typo: 0.3,
};

/** Writes one row of a company; the same seed and row give the same. */
export function corrupted(firm: Firm, chance: Chance, care: Carelessness): Firm {
  const country = firm.country ?? 'DE';
  const has = (share: number) => chance.in(share);
  const moved = chance.in(0.05);
  const row: Firm = {
    ...firm,
    name: careless(firm.name ?? '', country, chance, care.typo),
    legalForm: null,
    registration: firm.registration && has(care.number) ? numberAs(firm.registration, country, chance) : null,
    country: has(care.country) ? firm.country : null,
    web: firm.web && has(care.web) ? webAs(firm.web, chance) : null,
    mail:
      firm.web && has(care.mail)
        ? `${chance.pick(['sales', 'hello', 'l.brandt'])}@${hostOf(firm.web)}`
        : null,
    phone: firm.phone && has(care.phone) ? phoneAs(firm.phone, country, chance) : null,
    street:
      firm.street && has(care.street)
        ? moved
          ? street(chance, country)
          : streetAs(firm.street, chance)
        : null,
    postcode:
      firm.postcode && has(care.postcode) ? firm.postcode.replace(/ /g, chance.in(0.4) ? '' : ' ') : null,
    town: firm.town && has(care.town) ? unaccented(firm.town, chance) : null,
    lat: null,
    lon: null,
    headcount:
      firm.headcount !== null && chance.in(0.4)
        ? Math.max(1, Math.round(firm.headcount * (0.7 + 0.6 * chance.next())))
        : null,
  };
  return row;
}

/** A company that the universe has not, in a town of one that it has: its name, domain and numbers are its own. */
export function stranger(beside: Firm, chance: Chance): Firm {
  const country = beside.country ?? 'DE';
  const sector = chance.pick(SECTORS);
  // At times it shares a word with its neighbour, or its house.
  const twin = chance.in(0.2) ? (withoutForm(beside.name ?? '').words[0] ?? '') : '';
  const name = twin
    ? `${twin[0]!.toUpperCase()}${twin.slice(1)} ${companyName(chance, country, sector).split(' ').at(-1)}`
    : companyName(chance, country, sector);
  return {
    ...beside,
    name: `${name} ${legalForm(chance, country, 10)}`,
    legalForm: null,
    registration: String(chance.whole(10_000_000, 99_999_999)),
    web: chance.in(0.7) ? domain(`${name} ${chance.pick(['works', 'group', 'shop', 'home'])}`) : null,
    mail: null,
    phone: phone(chance, country, beside.phone?.split(' ')[0] ?? '+49'),
    street: chance.in(0.15) ? beside.street : street(chance, country),
    headcount: chance.whole(1, 80),
  };
}

/** The rows of a file about some companies of a universe, with strangers among them. */
export function carelessFile(
  companies: readonly { key: string; firm: Firm }[],
  seed: number,
  care: Carelessness = USUAL,
): FileRow[] {
  return companies.map(({ key, firm }, i) => {
    const chance = new Chance(seed ^ Math.imul(i + 1, 0x9e3779b1));
    if (chance.in(care.strangers))
      return { firm: corrupted(stranger(firm, chance), chance, care), truth: null };
    return { firm: corrupted(firm, chance, care), truth: key };
  });
}

function careless(name: string, country: string, chance: Chance, typo: number): string {
  let { words } = withoutForm(name);
  const written = name.split(/\s+/);
  // The words as they were written, where the form stands apart from them.
  let text = written
    .slice(0, Math.max(1, Math.min(written.length, words.length + (name.includes('&') ? 1 : 0))))
    .join(' ');
  if (chance.in(0.12)) text = misspelt(chance, text);
  if (chance.in(typo)) text = mistyped(text, chance);
  words = text.split(' ');
  const order = chance.next();
  if (words.length > 1 && order < 0.08) text = [...words.slice(1), words[0]].join(' ');
  else if (words.length > 1 && order < 0.16) text = words.slice(0, -1).join(' ');
  else if (words.length > 1 && order < 0.2) text = words.join('');
  if (chance.in(0.55))
    text += ` ${chance.in(0.85) ? legalForm(chance, country, 10) : chance.pick(['Ltd', 'GmbH', 's.r.o.'])}`;
  return text;
}

/** One letter left out, doubled, changed for its neighbour's place, or another. */
function mistyped(text: string, chance: Chance): string {
  const at = chance.whole(0, Math.max(0, text.length - 2));
  switch (chance.whole(0, 3)) {
    case 0:
      return text.slice(0, at) + text.slice(at + 1);
    case 1:
      return text.slice(0, at) + text[at]! + text.slice(at);
    case 2:
      return text.slice(0, at) + (text[at + 1] ?? '') + text[at]! + text.slice(at + 2);
    default:
      return text.slice(0, at) + chance.pick(['a', 'e', 'r', 's', 'n', 'k']) + text.slice(at + 1);
  }
}

function numberAs(number: string, country: string, chance: Chance): string {
  const way = chance.whole(0, 4);
  if (way === 0) return `${country}${number}`;
  if (way === 1) return number.replace(/(\d{3})(?=\d)/g, '$1 ');
  if (way === 2 && number.startsWith('0')) return number.replace(/^0+/, '');
  return number;
}

const hostOf = (web: string) => web.replace(/^www\./, '').split('/')[0]!;

function webAs(web: string, chance: Chance): string {
  const host = hostOf(web);
  return chance.pick([
    host,
    `www.${host}`,
    `https://www.${host}/contact`,
    `http://${host}/?utm_source=fair`,
    host.toUpperCase(),
  ]);
}

function phoneAs(number: string, country: string, chance: Chance): string {
  if (chance.in(0.06)) return phone(chance, country, number.split(' ')[0]!);
  const way = chance.whole(0, 3);
  if (way === 0) return number.replaceAll(' ', '');
  if (way === 1) return number.replace(/^\+/, '00');
  if (way === 2) return number.replaceAll(' ', '-');
  return number;
}

function streetAs(text: string, chance: Chance): string {
  if (chance.in(0.15)) return text.replace(/straße/i, 'str.').replace(/^ul\. /, '');
  return unaccented(text, chance);
}

const unaccented = (text: string, chance: Chance) =>
  chance.in(0.4) ? text.normalize('NFD').replace(/[\u0300-\u036f]/g, '') : text;
