import { dayOf, isoOf } from '../core/dates.ts';
import type { PersonRecord } from '../core/records/related.ts';
import type { Truth } from './company.ts';
import { checkedDay, DEMO_AS_OF } from './days.ts';
import { mailOf, mailStyle, type MailStyle } from './mails.ts';
import { companyName, properName } from './names.ts';
import type { Chance } from './random.ts';

/** People of a company: owners and founders of the small, directors, heads and others of the larger. */

const GIVEN =
  'Alena, Marek, Jana, Petr, Ivana, Tomas, Lenka, Pavel, Anna, Karl, Sabine, Jürgen, Katrin, Stefan, Monika, Uwe, Zofia, Piotr, Ewa, Adam, Magda, Igor, Ingrid, Lars, Astrid, Nils, Karin, Mikko, Aino, Jean, Claire, Luc, Paola, Marco, Elena, Luis, Carmen, Rui, Helena, George, Alice, Peter, Susan, Ilona, Gabor, Kata, Tanel, Liis, Janis, Ruta, Daniel, Eva, Martin, Julia'.split(
    ', ',
  );

const TITLES: Record<string, Record<string, readonly string[]>> = {
  management: {
    owner: ['Owner', 'Managing owner'],
    founder: ['Founder', 'Co-founder'],
    director: ['Managing director', 'Director'],
    manager: ['Office manager', 'Assistant to the management'],
  },
  production: {
    director: ['Production director', 'Technical director'],
    head: ['Works manager', 'Head of production'],
    manager: ['Shift manager', 'Paint line manager', 'Production planner'],
    specialist: ['Process technician', 'Quality technician'],
  },
  engineering: {
    head: ['Head of design', 'Chief engineer'],
    manager: ['Project engineer', 'Design manager'],
    specialist: ['Design engineer', 'Environmental engineer'],
  },
  sales: {
    director: ['Sales director'],
    head: ['Head of sales', 'Head of export'],
    manager: ['Area sales manager', 'Key account manager'],
    specialist: ['Sales representative', 'Estimator'],
  },
  purchasing: {
    director: ['Purchasing director'],
    head: ['Head of purchasing', 'Head of procurement'],
    manager: ['Purchasing manager', 'Procurement manager'],
    specialist: ['Buyer'],
  },
  logistics: { head: ['Head of logistics'], manager: ['Warehouse manager'], specialist: ['Dispatcher'] },
  finance: {
    director: ['Finance director'],
    head: ['Head of accounting'],
    specialist: ['Accountant', 'Payroll clerk'],
  },
  administration: { manager: ['Personnel manager'], specialist: ['Assistant', 'Reception'] },
};

const AS_OF = dayOf(DEMO_AS_OF)!;

/** Who is recorded at a company; null where nobody ever asked. */
export function peopleOf(truth: Truth, chance: Chance): PersonRecord[] | null {
  if (!chance.in(0.9)) return null;
  const count = Math.min(14, Math.round(1 + 1.35 * Math.log2(1 + truth.headcount) * (0.5 + chance.next())));
  const style = mailStyle(truth);
  return Array.from({ length: count }, (_, nth) => person(truth, chance, style, nth));
}

function person(truth: Truth, chance: Chance, style: MailStyle, nth: number): PersonRecord {
  const first = chance.pick(GIVEN);
  const last =
    properName(chance, truth.country) + (chance.in(0.04) ? `-${properName(chance, truth.country)}` : '');
  const [department, level] = nth === 0 ? leader(truth, chance) : post(truth, chance);
  // The directory has some of the addresses; the others follow the company's way, and have to be worked out.
  const recorded = truth.web !== null && chance.in(0.5);
  const years = -6 * Math.log(1 - chance.next());
  const sinceOn = Math.max(AS_OF - Math.round(years * 365), Date.UTC(truth.founded, 0, 1) / 86_400_000);
  return {
    name: `${first} ${last}`,
    title: chance.in(0.96) ? chance.pick(TITLES[department]![level]!) : null,
    department,
    level,
    sinceOn: chance.in(0.85) ? sinceOn : null,
    mail: recorded ? mailOf(style, first, last) : null,
    certainty: recorded && chance.in(0.15) ? chance.whole(85, 99) : null,
    phone: null,
    earlier: chance.in(0.6) ? career(truth, chance, department, sinceOn) : null,
    checkedOn: checkedDay(chance, 260),
  };
}

function leader({ headcount, founded }: Truth, chance: Chance): [department: string, level: string] {
  const share = headcount < 20 ? 0.6 : headcount < 100 ? 0.3 : 0.06;
  if (chance.in(share)) return ['management', founded > 2005 && chance.in(0.5) ? 'founder' : 'owner'];
  return ['management', 'director'];
}

function post({ headcount, standing }: Truth, chance: Chance): [department: string, level: string] {
  const { departments } = standing;
  const department = departments.length ? chance.pick(departments).key : 'management';
  const levels = Object.keys(TITLES[department]!).filter((level) => level !== 'owner' && level !== 'founder');
  // The larger the company, the more posts stand below the top ones.
  const at = Math.floor(chance.next() ** (headcount > 100 ? 0.6 : 1.1) * levels.length);
  return [department, levels[Math.min(levels.length - 1, at)]!];
}

/** "Purchasing manager, Kostava Okna, 2014-2019; Buyer, …": one to three posts. */
function career({ country, sector }: Truth, chance: Chance, department: string, sinceOn: number): string {
  const posts: string[] = [];
  let until = Number(isoOf(sinceOn).slice(0, 4));
  for (let n = chance.whole(1, 3); n > 0; n--) {
    const from = until - chance.whole(1, 6);
    const titles = Object.values(TITLES[department]!).flat();
    posts.push(`${chance.pick(titles)}, ${companyName(chance, country, sector)}, ${from}-${until}`);
    until = from;
  }
  return posts.join('; ');
}
