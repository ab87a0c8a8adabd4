import { fold } from '../text/fold.ts';
import { comparedNumber, fullPhone, registeredDomain } from './identifiers.ts';
import { formKind } from './legal-forms.ts';
import { nameParts } from './names.ts';

/** What a record says by which a company is known again. Null is unknown. */
export interface Firm {
  /** The key of the company here, of a file that was written here. */
  key?: string;
  name: string | null;
  legalForm: string | null;
  registration: string | null;
  country: string | null;
  web: string | null;
  mail: string | null;
  phone: string | null;
  street: string | null;
  postcode: string | null;
  town: string | null;
  lat: number | null;
  lon: number | null;
  headcount: number | null;
}

/** A firm made ready to be compared with many. */
export interface ReadyFirm extends Pick<Firm, 'country' | 'lat' | 'lon' | 'headcount'> {
  words: readonly string[];
  form: string | null;
  number: string | null;
  domains: readonly string[];
  phone: string | null;
  /** Folded words of the street without its number, and the number of the house. */
  street: string | null;
  house: string | null;
  postcode: string | null;
  town: string | null;
}

/** Words for "street" that are left out or written short as people like. */
const STREET_WORDS =
  /\b(?:street|str|strasse|straat|st|road|rd|avenue|ave|av|rue|via|ulica|ulice|ul|ulitsa|calle|rua|strada|gata|gatan|gade|vej|vei|veien|vagen|utca|u|tee|iela|gatve|g)\b/g;

/** Makes a firm ready; `isFree` says of a domain that anybody has mail there. */
export function readyFirm(firm: Firm, isFree: (domain: string) => boolean): ReadyFirm {
  const { words, form } = nameParts(firm.name ?? '');
  const domains = [registeredDomain(firm.web, isFree), registeredDomain(firm.mail, isFree)];
  const street = firm.street === null ? null : streetParts(firm.street);
  return {
    country: firm.country,
    lat: firm.lat,
    lon: firm.lon,
    headcount: firm.headcount,
    words,
    form: formKind(firm.legalForm) ?? form,
    number: comparedNumber(firm.registration, firm.country),
    domains: [...new Set(domains.filter((domain) => domain !== null))],
    phone: fullPhone(firm.phone, firm.country),
    street: street?.name || null,
    house: street?.house ?? null,
    postcode: firm.postcode === null ? null : fold(firm.postcode).replace(/[^a-z0-9]/g, '') || null,
    town: firm.town === null ? null : plainTown(firm.town),
  };
}

/** "Lipová 18/3" and "18 Lipova ul." → name "lipova", house "18" */
export function streetParts(street: string): { name: string; house: string | null } {
  const plain = fold(street);
  const house = /\b\d{1,5}\b/.exec(plain)?.[0] ?? null;
  const name = plain
    .replace(/strasse\b/g, 'str')
    .replace(/(?<=[a-z]{3})str\b/g, '')
    .replace(STREET_WORDS, ' ')
    .replace(/\b\d{1,5}[a-z]?\b/g, ' ')
    .replace(/[^a-z]+/g, ' ')
    .trim();
  return { name, house };
}

/** A town without its district: "Praha 4" and "Brno (město)" → "praha", "brno". */
export function plainTown(town: string): string {
  const known = TOWNS.get(town);
  if (known !== undefined) return known;
  const plain = fold(town)
    .split('(')[0]!
    .replace(/[\d-]+/g, ' ')
    .replace(/[^a-z]+/g, ' ')
    .trim();
  if (TOWNS.size >= MOST_TOWNS) TOWNS.clear();
  TOWNS.set(town, plain);
  return plain;
}

/** Towns come again and again. */
const TOWNS = new Map<string, string>();
const MOST_TOWNS = 50_000;
