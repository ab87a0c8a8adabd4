import type { CodeTree } from '../core/codes/tree.ts';
import type { Gazetteer, Town } from '../core/geo/gazetteer.ts';
import { toEuro } from '../core/money/rates.ts';
import { advisorySector } from './advisory.ts';
import { companyName, domain, legalForm, misspelt, phone, properName, street } from './names.ts';
import type { Places } from './places.ts';
import { Chance, runningSums } from './random.ts';
import type { Sector } from './sector.ts';
import { SECTORS } from './sectors.ts';
import { standingOf, topIndex, type Standing } from './standing.ts';
import { TECHNOLOGIES } from './technologies.ts';

/** Countries whose law, in the demo, lets companies keep their revenue to themselves. */
const WITHHOLDING = new Set(['CH', 'LU', 'MT', 'CY', 'IE']);

/** One company in every so many is a second record of the one before it, spelt another way and without a registration number. */
const DUPLICATE_EVERY = 33;

/** A company as it truly is; each source tells a part of it. */
export interface Truth {
  index: number;
  duplicate: boolean;
  sector: Sector;
  name: string;
  form: string;
  registration: string;
  status: string;
  town: Town;
  country: string;
  lat: number;
  lon: number;
  postcode: string;
  street: string;
  phone: string;
  web: string | null;
  mail: string | null;
  founded: number;
  nace: string[];
  naics: string[];
  headcount: number;
  /** In the country's currency. */
  revenue: number;
  currency: string;
  description: string;
  headcountKnown: boolean;
  revenueKnown: boolean;
  withheld: boolean;
  surveyed: boolean;
  technologies: string[];
  standing: Standing;
  /** Name of the top company of its group. */
  group: string | null;
  /** Sources that have it. */
  inRegister: boolean;
  inDirectory: boolean;
  inSurvey: boolean;
}

const sectorSums = runningSums(SECTORS.map((sector) => sector.weight));

/** Makes companies by their number. The same seed and number give the same company, whichever source asks. */
export class Companies {
  private readonly places: Places;
  private readonly gazetteer: Gazetteer;
  private readonly nace: CodeTree;
  private readonly seed: number;
  /** How many the universe has. */
  private readonly companies: number;
  /** The group asked for last; companies of a group stand near each other. */
  private lastGroup: { top: number; name: string } | null = null;

  constructor(places: Places, gazetteer: Gazetteer, nace: CodeTree, seed: number, companies: number) {
    this.companies = companies;
    this.places = places;
    this.gazetteer = gazetteer;
    this.nace = nace;
    this.seed = seed;
  }

  at(index: number): Truth {
    const duplicate = index % DUPLICATE_EVERY === DUPLICATE_EVERY - 1;
    if (!duplicate) return this.make(index);
    const truth = this.make(index - 1);
    const chance = new Chance(this.seed ^ Math.imul(index + 1, 0x85ebca6b));
    return {
      ...truth,
      index,
      duplicate: true,
      registration: '',
      name: misspelt(chance, truth.name),
      form: chance.in(0.4) ? '' : truth.form,
      phone: chance.in(0.5) ? truth.phone.replaceAll(' ', '') : truth.phone,
      web: truth.web && chance.in(0.5) ? `www.${truth.web}` : truth.web,
      inRegister: false,
      inDirectory: true,
      inSurvey: false,
    };
  }

  /** The company of an index, or the one that a duplicate at this index repeats. */
  first(index: number): Truth {
    return this.make(index % DUPLICATE_EVERY === DUPLICATE_EVERY - 1 ? index - 1 : index);
  }

  private make(index: number): Truth {
    const chance = new Chance(this.seed ^ Math.imul(index + 1, 0x9e3779b1));
    const drawn = SECTORS[chance.draw(sectorSums)]!;
    const sector = advisorySector(index, this.companies) ?? drawn;
    const country = this.places.countryCodes[chance.draw(this.places.countrySums)]!;
    const town = this.places.townsOf(country)[chance.draw(this.places.sumsOf(country, sector.gathers))]!;
    const large = chance.in(0.03) ? 1.6 : 0;
    let headcount = Math.max(
      chance.in(0.08) ? 0 : 1,
      Math.round(Math.exp(sector.size[0] + large + sector.size[1] * chance.normal())),
    );
    const founded =
      2026 - Math.min(150, Math.round(-22 * Math.log(1 - chance.next())) + (headcount > 100 ? 8 : 0));
    const euros = Math.max(
      8_000,
      Math.max(0.6, headcount) *
        sector.perHead *
        1000 *
        Math.exp(0.45 * chance.normal()) *
        (0.8 + Math.min(40, 2026 - founded) / 150),
    );
    // A plain mistake now and then: a headcount of tens of thousands in a village.
    if (index % 8000 === 4321) headcount = 40_000;
    const { currency, dialling } = this.gazetteer.country(country)!;
    const rate = toEuro(1, currency, 2025);
    const name = companyName(chance, country, sector);
    const web = chance.in(0.89) ? domain(name) : null;
    const withheld = WITHHOLDING.has(country) && chance.in(0.85);
    const size = Math.min(1, Math.log10(1 + headcount) / 3);
    const inRegister = chance.in(0.82);
    const inSurvey = web !== null && chance.in(0.55);
    const surveyed = inSurvey && chance.in(0.8);
    const truth = {
      index,
      duplicate: false,
      sector,
      name,
      country,
      town,
      form: legalForm(chance, country, headcount),
      registration: String(10_000_000 + ((index * 7919 + 4_201_337) % 89_999_999)),
      status: chance.in(0.92) ? 'active' : chance.in(0.6) ? 'dormant' : 'closed',
      lat: round4(town.lat + chance.normal() * 0.018),
      lon: round4(town.lon + chance.normal() * 0.026),
      postcode: this.places.postcode(town),
      street: street(chance, country),
      phone: phone(chance, country, dialling),
      web,
      mail: web && chance.in(0.8) ? `${chance.pick(['info', 'office', 'post', 'contact'])}@${web}` : null,
      founded,
      ...this.codes(chance, sector),
      headcount,
      revenue: roundTo3(rate === null ? euros : euros / rate),
      currency,
      description: describe(chance, sector),
      headcountKnown: chance.in(0.88),
      revenueKnown: !withheld && chance.in(0.58 + 0.46 * size),
      withheld,
      surveyed,
      technologies: surveyed ? technologies(chance, sector, headcount) : [],
      inRegister,
      inSurvey,
      inDirectory: !inRegister && !inSurvey ? true : chance.in(0.55),
    };
    const standing = standingOf(truth, new Chance(this.seed ^ Math.imul(index + 1, 0x27d4eb2f)));
    return { ...truth, standing, group: this.groupOf(truth, standing) };
  }

  private groupOf({ index, name }: Pick<Truth, 'index' | 'name'>, { ownership }: Standing): string | null {
    if (ownership === 'independent') return null;
    if (ownership === 'top') return name;
    const top = topIndex(index);
    if (this.lastGroup?.top !== top) this.lastGroup = { top, name: this.make(top).name };
    return this.lastGroup.name;
  }

  /** The main code, at times only a broad one, and some of the others. */
  private codes(chance: Chance, sector: Sector): { nace: string[]; naics: string[] } {
    const broad = chance.next();
    const node = this.nace.nodeOf(sector.nace);
    const group = this.nace.parents[node]!;
    const main =
      broad < 0.05
        ? this.nace.codes[group]!
        : broad < 0.08
          ? this.nace.codes[this.nace.parents[group]!]!
          : sector.nace;
    const others = sector.also.filter(() => chance.in(0.3));
    if (chance.in(0.06)) others.push(SECTORS[chance.whole(0, SECTORS.length - 1)]!.nace);
    return {
      nace: [...new Set([main, ...others])].slice(0, 7),
      naics: [chance.in(0.08) ? sector.naics.slice(0, 3) : sector.naics],
    };
  }
}

function describe(chance: Chance, sector: Sector): string {
  const [what, how, whom] = sector.does as [string[], string[], string[]];
  const first = `${chance.pick(what)} in ${chance.pick(how)} for ${chance.pick(whom)}`;
  const extra = chance.in(0.5)
    ? `; ${chance.pick(['own delivery', 'family firm in the third generation', 'certified quality', 'small series welcome', 'two shifts', `branch in ${properName(chance, 'GB')}`])}`
    : '';
  return `${first}${extra}.`;
}

function technologies(chance: Chance, sector: Sector, headcount: number): string[] {
  const reach = 0.5 + Math.min(1, Math.log10(1 + headcount) / 2.2);
  return TECHNOLOGIES.flatMap(({ category, products }) => {
    if (!chance.in(Math.min(0.95, (sector.uses[category] ?? 0) * reach))) return [];
    // The first product of a category leads, the rest share what is left.
    return [products[Math.floor(chance.next() ** 1.7 * products.length)]!];
  });
}

function round4(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}

/** To three figures, as revenues are told. */
function roundTo3(value: number): number {
  return Number(value.toPrecision(3));
}
