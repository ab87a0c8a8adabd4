import { fold } from '../core/text/fold.ts';
import type { Chance } from './random.ts';
import type { Sector } from './sector.ts';

/** Families of languages, in the order of `Sector.trade`. */
const FAMILY: Record<string, number> = {
  CZ: 0,
  SK: 0,
  PL: 0,
  SI: 0,
  HR: 0,
  BG: 0,
  RS: 0,
  UA: 0,
  DE: 1,
  AT: 1,
  CH: 1,
  LU: 1,
  NL: 1,
  BE: 1,
  SE: 2,
  NO: 2,
  DK: 2,
  FI: 2,
  IS: 2,
  FR: 3,
  IT: 3,
  ES: 3,
  PT: 3,
  RO: 3,
  MX: 3,
  BR: 3,
  GB: 4,
  IE: 4,
  US: 4,
  CA: 4,
  AU: 4,
  NZ: 4,
  ZA: 4,
  MT: 4,
  CY: 4,
};

const SYLLABLES: [string[], string[], string[]][] = [
  [
    [
      'Kos',
      'Tra',
      'Dro',
      'Vel',
      'Zar',
      'Mi',
      'Bre',
      'Ost',
      'Hru',
      'Pla',
      'Ska',
      'Li',
      'Rad',
      'Vo',
      'Če',
      'Ži',
      'Mor',
      'Pe',
    ],
    ['ta', 'ro', 'vi', 'li', 'ne', 'zo', 'my', 'bě', 'do', 'ka', 'ra', 'ši'],
    ['va', 'vec', 'nik', 'sko', 'lin', 'dín', 'sz', 'ná', 'rek', 'mil', 'vice', 'tov'],
  ],
  [
    [
      'Van',
      'Hel',
      'Brand',
      'Quel',
      'Per',
      'Has',
      'Stein',
      'Rau',
      'Wol',
      'Tarn',
      'Eich',
      'Mor',
      'Ler',
      'Fal',
      'Gru',
      'Zeh',
      'Ohl',
    ],
    ['der', 'le', 'ne', 'er', 'ho', 'wi', 'ke', 'ra', 'mer', 'go'],
    ['brugg', 'stall', 'grund', 'walde', 'beck', 'lohn', 'mark', 'feld', 'rel', 'hagen', 'dorn', 'sass'],
  ],
  [
    ['Sol', 'Vin', 'Hav', 'Eld', 'Kal', 'Nor', 'Tuo', 'Rø', 'Lin', 'Bjer', 'Ask', 'Mie', 'Sör'],
    ['da', 'ne', 'vi', 'ma', 'ste', 'ri', 'gå', 'lo'],
    ['vik', 'lund', 'stad', 'holm', 'nen', 'mäki', 'gaard', 'rud', 'feld', 'sen'],
  ],
  [
    ['Mar', 'Bel', 'Cor', 'Val', 'Ser', 'Tor', 'Lam', 'Gri', 'Fon', 'Ver', 'Pal', 'Ron', 'Del'],
    ['de', 'li', 'ta', 'ri', 'mo', 've', 'ga', 'no'],
    ['tello', 'rana', 'vaux', 'neuil', 'sola', 'cino', 'dura', 'menta', 'gnac', 'ria'],
  ],
  [
    ['Ash', 'Ten', 'Wick', 'Har', 'Thorn', 'Bex', 'Cal', 'Dun', 'Fen', 'Lark', 'Ox', 'Stan', 'Wey'],
    ['er', 'en', 'ing', 'le', 'ow', 'ar'],
    ['combe', 'ford', 'holt', 'mere', 'stead', 'wick', 'bourne', 'low', 'ham', 'field'],
  ],
  [
    ['Ke', 'Sza', 'Ta', 'Bo', 'Vil', 'Rau', 'Ma', 'Lau', 'Gy', 'Ne', 'Põ', 'Da'],
    ['re', 'li', 'va', 'do', 'ti', 'ro', 'ga'],
    ['falva', 'mets', 'nis', 'lai', 'kas', 'hely', 'pils', 'saare', 'tai', 'var'],
  ],
];

const FORMS: Record<string, [string, string]> = {
  CZ: ['s.r.o.', 'a.s.'],
  SK: ['s.r.o.', 'a.s.'],
  PL: ['Sp. z o.o.', 'S.A.'],
  DE: ['GmbH', 'AG'],
  AT: ['GmbH', 'AG'],
  CH: ['GmbH', 'AG'],
  LU: ['S.à r.l.', 'S.A.'],
  NL: ['B.V.', 'N.V.'],
  BE: ['BV', 'NV'],
  SE: ['AB', 'AB (publ)'],
  NO: ['AS', 'ASA'],
  DK: ['ApS', 'A/S'],
  FI: ['Oy', 'Oyj'],
  IS: ['ehf.', 'hf.'],
  FR: ['SARL', 'SAS'],
  IT: ['S.r.l.', 'S.p.A.'],
  ES: ['S.L.', 'S.A.'],
  PT: ['Lda.', 'S.A.'],
  RO: ['S.R.L.', 'S.A.'],
  GB: ['Ltd', 'PLC'],
  IE: ['Ltd', 'DAC'],
  US: ['LLC', 'Inc.'],
  CA: ['Ltd.', 'Inc.'],
  AU: ['Pty Ltd', 'Ltd'],
  NZ: ['Ltd', 'Ltd'],
  ZA: ['(Pty) Ltd', 'Ltd'],
  MT: ['Ltd', 'PLC'],
  CY: ['Ltd', 'PLC'],
  HU: ['Kft.', 'Zrt.'],
  HR: ['d.o.o.', 'd.d.'],
  SI: ['d.o.o.', 'd.d.'],
  RS: ['d.o.o.', 'a.d.'],
  BG: ['OOD', 'AD'],
  EE: ['OÜ', 'AS'],
  LV: ['SIA', 'AS'],
  LT: ['UAB', 'AB'],
  GR: ['E.P.E.', 'A.E.'],
  TR: ['Ltd. Şti.', 'A.Ş.'],
  UA: ['TOV', 'PAT'],
  MX: ['S. de R.L.', 'S.A.'],
  BR: ['Ltda.', 'S.A.'],
  JP: ['GK', 'KK'],
  KR: ['Co., Ltd.', 'Co., Ltd.'],
};

const STREETS: Record<string, string[]> = {
  CZ: ['Nábřežní', 'Průmyslová', 'Lesní', 'Polní', 'Nádražní', 'Mlýnská', 'Hutní'],
  SK: ['Priemyselná', 'Lesná', 'Poľná', 'Staničná', 'Mlynská', 'Hutnícka'],
  PL: ['ul. Przemysłowa', 'ul. Leśna', 'ul. Polna', 'ul. Młyńska', 'ul. Dworcowa', 'ul. Hutnicza'],
  SI: ['Industrijska cesta', 'Gozdna ulica', 'Mlinska pot', 'Obrtna cesta'],
  HR: ['Industrijska ulica', 'Šumska ulica', 'Mlinska ulica', 'Obrtnička ulica'],
  DE: [
    'Industriestraße',
    'Am Mühlbach',
    'Gewerbepark',
    'Bahnhofstraße',
    'Lindenweg',
    'Hafenweg',
    'Werkstraße',
    'Waldstraße',
  ],
  NL: ['Industrieweg', 'Molenstraat', 'Havenkade', 'Stationsweg', 'Ambachtslaan'],
  SE: ['Industrivägen', 'Skogsvägen', 'Kvarngatan', 'Stationsgatan', 'Hamngatan'],
  DK: ['Industrivej', 'Havnegade', 'Skovvej', 'Møllevej', 'Stationsvej'],
  NO: ['Industriveien', 'Havnegata', 'Skogveien', 'Mølleveien', 'Storgata'],
  FI: ['Teollisuuskatu', 'Metsätie', 'Myllykatu', 'Asemakatu', 'Satamakatu'],
  FR: ['Rue du Moulin', 'Rue des Ateliers', 'Zone Artisanale', 'Rue de la Gare', 'Chemin du Bois'],
  IT: ['Via dell’Industria', 'Via del Mulino', 'Via Stazione', 'Via del Bosco', 'Via degli Artigiani'],
  ES: ['Calle del Molino', 'Calle de la Industria', 'Calle Mayor', 'Calle del Río', 'Avenida de la Estación'],
  PT: ['Rua do Moinho', 'Rua da Indústria', 'Rua da Estação', 'Avenida do Porto'],
  RO: ['Strada Morii', 'Strada Industriei', 'Strada Gării', 'Strada Pădurii'],
  GB: [
    'Mill Lane',
    'Station Road',
    'Foundry Street',
    'Quay Road',
    'Orchard Way',
    'Trading Estate',
    'High Street',
  ],
  HU: ['Ipari utca', 'Malom utca', 'Erdő utca', 'Állomás utca'],
  EE: ['Tööstuse', 'Metsa', 'Veski', 'Jaama', 'Sadama'],
  LV: ['Rūpniecības iela', 'Meža iela', 'Dzirnavu iela', 'Stacijas iela'],
  LT: ['Pramonės g.', 'Miško g.', 'Malūno g.', 'Stoties g.'],
};

/** Whose streets a country borrows. */
const STREETS_LIKE: Record<string, string> = {
  AT: 'DE',
  CH: 'DE',
  LU: 'FR',
  BE: 'NL',
  MX: 'ES',
  BR: 'PT',
  IS: 'NO',
  RS: 'HR',
  BG: 'HR',
  UA: 'PL',
};

/** Which word of a family's trade words a country takes; the last one where there are fewer. */
const VARIANT: Record<string, number> = {
  PL: 1,
  UA: 1,
  DK: 1,
  NO: 1,
  FI: 2,
  IT: 1,
  RO: 1,
  ES: 2,
  PT: 2,
  MX: 2,
  BR: 2,
  EE: 1,
  LV: 1,
  LT: 2,
};

export function familyOf(country: string): number {
  return FAMILY[country] ?? 5;
}

/** A made-up proper name of two or three syllables. */
export function properName(chance: Chance, country: string): string {
  const [first, middle, last] = SYLLABLES[familyOf(country)]!;
  return chance.pick(first) + (chance.in(0.45) ? chance.pick(middle) : '') + chance.pick(last);
}

/** A made-up company name without its legal form. */
export function companyName(chance: Chance, country: string, sector: Sector): string {
  const proper = properName(chance, country);
  const words = sector.trade[familyOf(country)]!;
  const trade = words[Math.min(VARIANT[country] ?? 0, words.length - 1)]!;
  if (chance.in(0.12)) return `${proper} & ${properName(chance, country)} ${trade}`;
  if (chance.in(0.15)) return proper;
  return chance.in(0.78) ? `${proper} ${trade}` : `${trade} ${proper}`;
}

export function legalForm(chance: Chance, country: string, headcount: number): string {
  const [limited, stock] = FORMS[country] ?? ['Ltd', 'Ltd'];
  return chance.in(headcount > 150 ? 0.5 : 0.07) ? stock : limited;
}

export function street(chance: Chance, country: string): string {
  const name = chance.pick(STREETS[country] ?? STREETS[STREETS_LIKE[country] ?? 'GB']!);
  const number = chance.whole(1, 180);
  return /^(Rue|Zone|Chemin|Mill|Station Road|Foundry|Quay|Orchard|Trading|High)/.test(name)
    ? `${number} ${name}`
    : `${name} ${number}`;
}

/** A web address under the reserved ending .example. */
export function domain(name: string): string {
  return `${fold(name)
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')}.example`;
}

/** A telephone number set aside for fiction where the country has some, else one whose subscriber number cannot exist. */
export function phone(chance: Chance, country: string, dialling: string): string {
  switch (country) {
    case 'GB':
      return `+44 1632 960${chance.figures(3)}`;
    case 'US':
    case 'CA':
      return `+1 ${chance.whole(2, 9)}${chance.figures(2)} 555 01${chance.figures(2)}`;
    case 'FR':
      return `+33 1 99 00 ${chance.figures(2)} ${chance.figures(2)}`;
    case 'DE':
      return `+49 30 23125 ${chance.figures(3)}`;
    default:
      return `${dialling} 000 ${chance.figures(3)} ${chance.figures(3)}`;
  }
}

/** The same name as another clerk would write it: accents lost, a letter changed, the legal form elsewhere. */
export function misspelt(chance: Chance, name: string): string {
  const way = chance.whole(0, 2);
  if (way === 0) return name.normalize('NFD').replace(/[\u0300-\u036f]/g, '');
  // eslint-disable-next-line regexp/no-super-linear-move -- names are short
  if (way === 1) return name.replace(/([a-z])\1?([a-z])(?=[a-z]*$)/, '$2$1');
  return name.toUpperCase();
}
