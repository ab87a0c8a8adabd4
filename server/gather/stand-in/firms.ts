import { OFFERS } from '../../../core/fields/companies/making.ts';
import { domainOf } from '../../../core/text/domain.ts';
import { fold, foldedWords } from '../../../core/text/fold.ts';
import { hashOf } from '../../../core/text/hash.ts';
import type { Db } from '../../db/open.ts';
import { universeMark } from '../../match/universe-firms.ts';
import { loadCodeTrees } from '../../reference.ts';

/** A firm as the pages of the stand-in know it. All of them are made up. */
export interface StandInFirm {
  id: number;
  /** Its company in the universe; null for the one in five that is in none. */
  key: string | null;
  name: string;
  street: string;
  postcode: string;
  town: string;
  phone: string | null;
  mail: string | null;
  domain: string | null;
  registration: string | null;
  founded: number | null;
  headcount: number | null;
  /** The directory's own name for what it does. */
  trade: string;
  region: string | null;
  about: string;
  offers: readonly string[];
  technologies: readonly string[];
  /** Folded words that a search looks in. */
  words: string;
}

/** Firms of the stand-in that are of the universe, at most. */
const MOST = 4000;
/** Of so many firms of the universe, one more is made that is in none. */
const EACH = 4;

/** What a directory calls trades, by the beginning of their NACE codes; all others go by the code's title. */
const TRADES: readonly (readonly [code: string, trade: string])[] = [
  ['16', 'Joinery'],
  ['31', 'Furniture and joinery'],
  ['43.32', 'Joinery, fitting'],
  ['25.51', 'Coating shop'],
  ['22', 'Composite moulder'],
  ['30.1', 'Boatbuilder'],
  ['18', 'Printer'],
  ['25', 'Metal workshop'],
];

interface Row {
  id: number;
  key: string;
  name: string;
  street: string | null;
  postcode: string | null;
  town: string | null;
  region: string | null;
  phone: string | null;
  mail: string | null;
  web: string | null;
  registration: string | null;
  founded: number | null;
  headcount: number | null;
  description: string | null;
  code: string | null;
  offers: string | null;
  technologies: string | null;
}

const FIRM = `SELECT c.id, c.key, c.name, c.street, c.postcode, c.town, c.region, c.phone, c.mail, c.web, c.registration,
  c.founded, c.headcount_point AS headcount, c.description,
  (SELECT code FROM company_code WHERE company_id = c.id AND scheme = 'nace-2.1' AND rank = 0) AS code,
  (SELECT group_concat(offer) FROM company_offer WHERE company_id = c.id) AS offers,
  (SELECT group_concat(technology) FROM company_technology WHERE company_id = c.id) AS technologies
  FROM company c`;

/** The firms of the stand-in's directories, made from a universe by a seed: the same each time. Of an empty universe all are made up. */
function standInFirms(universe: Db, seed: number): StandInFirm[] {
  const rows = universe
    .prepare<[number], Row & { town: string }>(
      `${FIRM} WHERE c.town IS NOT NULL AND (c.web IS NULL OR c.web LIKE '%.example%')
       ORDER BY c.country NOT IN ('CZ', 'SK', 'AT'), c.country <> 'CZ', c.id LIMIT ?`,
    )
    .all(MOST);
  const tree = loadCodeTrees().get('nace-2.1')!;
  const titles = (code: string) => tree.titles[tree.nodeOf(code)];
  const firms: StandInFirm[] = [];
  rows.forEach((row, i) => {
    firms.push(firmOf(firms.length, row, titles));
    if (i % EACH === EACH - 1) firms.push(unknownFirm(firms.length, firms[firms.length - 1]!, seed));
  });
  while (firms.length < LEAST) firms.push(unknownFirm(firms.length, MODEL, seed));
  return firms;
}

/** Companies whose sites the stand-in has beyond those of its directories, at most. */
const MOST_SITES = 300_000;

/** Companies of a universe by the domain of their site. */
function domainsOf(universe: Db): Map<string, number> {
  const found = new Map<string, number>();
  const rows = universe
    .prepare<[number], [number, string]>(
      "SELECT id, web FROM company WHERE web LIKE '%.example%' ORDER BY id LIMIT ?",
    )
    .raw()
    .iterate(MOST_SITES);
  for (const [id, web] of rows) {
    const domain = domainOf(web);
    if (domain !== null && !found.has(domain)) found.set(domain, id);
  }
  return found;
}

/** One company of a universe as the stand-in knows it. */
function firmOfCompany(universe: Db, id: number): StandInFirm {
  return firmOf(0, universe.prepare<[number], Row>(`${FIRM} WHERE c.id = ?`).get(id)!, () => undefined);
}

/** The firms of the stand-in, by a universe as it is by now: made anew only when it has changed. */
export class StandInFirms {
  private readonly universe: Db;
  private readonly seed: number;
  private made: {
    of: string;
    firms: StandInFirm[];
    unknown: Map<string, StandInFirm>;
    domains: Map<string, number> | null;
  } | null = null;

  constructor(universe: Db, seed: number) {
    this.universe = universe;
    this.seed = seed;
  }

  /** Those of the directories. */
  get all(): readonly StandInFirm[] {
    return this.now.firms;
  }

  /** The firm whose site is at a domain. */
  at(domain: string): StandInFirm | null {
    const now = this.now;
    const unknown = now.unknown.get(domain);
    if (unknown) return unknown;
    const id = (now.domains ??= domainsOf(this.universe)).get(domain);
    return id === undefined ? null : firmOfCompany(this.universe, id);
  }

  private get now() {
    const of = universeMark(this.universe);
    if (this.made?.of !== of) {
      const firms = standInFirms(this.universe, this.seed);
      const unknown = new Map(
        firms.flatMap((firm) =>
          firm.key === null && firm.domain !== null ? [[firm.domain, firm] as const] : [],
        ),
      );
      this.made = { of, firms, unknown, domains: null };
    }
    return this.made;
  }
}

/** Firms where the universe has none or few. */
const LEAST = 60;

const MODEL: StandInFirm = {
  ...{
    id: 0,
    key: null,
    name: 'Model',
    street: 'Main Street 1',
    postcode: '602 00',
    town: 'Brno',
    region: null,
  },
  ...{ phone: '+420 000 000 100', mail: null, domain: 'model.example', registration: null, founded: 1999 },
  ...{ headcount: 20, trade: 'Joinery installation', about: 'Stairs and windows in wood.' },
  ...{ offers: ['quote-form'], technologies: [], words: '' },
};

function firmOf(id: number, row: Row, titleOf: (code: string) => string | undefined): StandInFirm {
  const code = row.code ?? '';
  const trade = TRADES.find(([begin]) => code.startsWith(begin))?.[1] ?? titleOf(code) ?? 'Other trades';
  return withWords({
    ...{ id, key: row.key, name: row.name, town: row.town ?? '', region: row.region },
    ...{ phone: row.phone, mail: row.mail },
    street: row.street ?? '',
    postcode: row.postcode ?? '',
    domain: domainOf(row.web),
    ...{ registration: row.registration, founded: row.founded, headcount: row.headcount, trade },
    about: row.description ?? '',
    offers: row.offers?.split(',') ?? [],
    technologies: row.technologies?.split(',') ?? [],
  });
}

const withWords = (firm: Omit<StandInFirm, 'words'>): StandInFirm => ({
  ...firm,
  words: ` ${foldedWords(`${firm.name} ${firm.trade} ${firm.about}`).join(' ')}`,
});

const BEGIN = [
  'Ald',
  'Brem',
  'Cor',
  'Dun',
  'Elm',
  'Fal',
  'Gro',
  'Hes',
  'Jar',
  'Kel',
  'Lom',
  'Mor',
  'Nov',
  'Orl',
  'Pes',
];
const MIDDLE = ['a', 'e', 'i', 'o', 'u'];
const END = ['bren', 'dova', 'fert', 'gast', 'link', 'mark', 'nitz', 'rovec', 'slav', 'tam', 'verk', 'zin'];

/** A firm of no universe, in the place and trade of another. */
function unknownFirm(id: number, model: StandInFirm, seed: number): StandInFirm {
  const draw = (what: string, from: number) => hashOf(`${seed} ${id} ${what}`) % from;
  const stem = `${BEGIN[draw('a', BEGIN.length)]}${MIDDLE[draw('b', MIDDLE.length)]}${END[draw('c', END.length)]}`;
  const tail = model.name.split(' ').slice(1).join(' ') || 'Works';
  const domain = `${fold(stem)}-${id}.example`;
  return withWords({
    ...model,
    ...{
      id,
      key: null,
      name: `${stem} ${tail}`,
      domain,
      mail: `info@${domain}`,
      registration: String(90_000_000 + id),
    },
    street: model.street.replace(/\d+/, String(1 + draw('house', 180))),
    phone: (model.phone ?? MODEL.phone)!.replace(/\d{3}$/, String(100 + draw('phone', 900))),
    founded: 1950 + draw('founded', 70),
    headcount: 2 + draw('staff', 120),
    offers: OFFERS.filter((offer) => draw(offer, 3) === 0),
    technologies: [],
  });
}

/** Firms that a search looks for: all of its words begin some of theirs, and they are in its town or the region around it. */
export function findFirms(
  firms: readonly StandInFirm[],
  wish: { words: string; place: string; web: boolean },
): StandInFirm[] {
  const words = foldedWords(wish.words);
  const place = fold(wish.place.trim());
  const inTown = (firm: StandInFirm) => place === '' || fold(firm.town).startsWith(place);
  const around = new Set(
    place === '' ? [] : firms.filter(inTown).flatMap(({ region }) => (region === null ? [] : [region])),
  );
  return firms.filter(
    (firm) =>
      words.every((word) => firm.words.includes(` ${stem(word)}`)) &&
      (inTown(firm) || (firm.region !== null && around.has(firm.region))) &&
      (!wish.web || firm.domain !== null),
  );
}

/** Words are looked for by their beginning: "joinery" finds "joineries". */
const stem = (word: string) => (word.length > 5 ? word.slice(0, -2) : word);
