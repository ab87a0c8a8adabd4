import type { CodeTree, Scheme } from '../codes/tree.ts';
import type { CodeHit } from '../codes/search.ts';
import type { Crosswalk } from '../codes/crosswalk.ts';
import type { CountryGroup } from '../geo/country-groups.ts';
import type { Field } from '../fields/field.ts';
import type { RightPersonChoice } from '../people/functions.ts';
import type { Bits } from '../tally/bits.ts';
import type { PeersTest } from './nodes.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';

/** A value that a category field can have. `group` values (a category of products) stand for all that name them. */
export interface Choice {
  key: string;
  label: string;
  group?: string;
  /** Other names that it is typed by. */
  also?: readonly string[];
}

/** What the universe at hand has: needed to check, word and type a tape. */
export interface Lookup {
  codes(scheme: Scheme): CodeTree;
  findCodes(scheme: Scheme, text: string, limit: number): CodeHit[];
  /** Links between the schemes. */
  crosswalk(): Crosswalk;
  places: Gazetteer;
  /** Groups of countries that a place may name by key: the ready ones and the workspace's own. */
  countryGroups: ReadonlyMap<string, CountryGroup>;
  /** Ranked choices of functions, by key: the ready ones and the workspace's own. */
  rightPeople: ReadonlyMap<string, RightPersonChoice>;
  /** The values of a category field, groups included; sources, technologies and legal forms come from the data. */
  choices(field: Pick<Field, 'subject' | 'id'>): readonly Choice[];
  /** The name of a company by key, or undefined where the universe has none. */
  companyName(key: string): string | undefined;
  /** The companies that a line of peers keeps, surely and possibly, with the id of each record. */
  peers(test: PeersTest): { yes: Bits; unknown: Bits; ids: Uint32Array };
  /** The workspace's own currency, which amounts typed without one are in. */
  currency: string;
  /** The currencies in which amounts of this universe stand. */
  currencies: readonly string[];
  /** Day from which "past 12 months" counts back. */
  asOf: number;
}
