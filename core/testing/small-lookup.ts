import { Crosswalk } from '../codes/crosswalk.ts';
import { CodeTree } from '../codes/tree.ts';
import { READY_GROUPS } from '../geo/country-groups.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { READY_RIGHT_PEOPLE } from '../people/functions.ts';
import type { Lookup } from '../tape/lookup.ts';

/** What a universe has of which tests know every part: one code, one region and its town, a value of each category, a company and a list. */
export const SMALL_LOOKUP: Lookup = {
  codes: (scheme) => new CodeTree(scheme, [{ code: '25', level: 2, parent: '', title: 'Metal' }]),
  findCodes: () => [],
  places: new Gazetteer({
    countries: 'iso2\nCZ\tCZE\t203\tCzechia\tČesko\tCZK\tEurope\tEastern\t+420',
    regions: 'key\nCZ-64\tCZ\tJihomoravský\tSouth Moravia',
    towns: 'id\n1\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.195\t16.608\t380000',
  }),
  choices: ({ id }) =>
    id === 'technology'
      ? [{ key: 'rutavel', label: 'Rutavel' }]
      : id === 'list'
        ? [{ key: 'customers', label: 'Customers' }]
        : [{ key: 'active', label: 'active' }],
  crosswalk: () => new Crosswalk(new Map(), []),
  countryGroups: READY_GROUPS,
  rightPeople: READY_RIGHT_PEOPLE,
  companyName: (key) => (key === 'CZ-1' ? 'Lakovna Orlín' : undefined),
  currencies: ['EUR'],
  currency: 'EUR',
  peers: () => ({ yes: new Uint32Array(1), unknown: new Uint32Array(1), ids: new Uint32Array() }),
  asOf: 20_000,
};
