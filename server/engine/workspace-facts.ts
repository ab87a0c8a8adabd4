import type { CountryGroup } from '../../core/geo/country-groups.ts';
import { noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { Choice } from '../../core/tape/lookup.ts';
import type { ListVerdict } from '../../core/tape/nodes.ts';
import type { Db } from '../db/open.ts';
import { factsRevision, ownGroups } from '../tables/facts.ts';
import { contactCompanies } from '../tables/contacts.ts';
import { allLists, eachMember } from '../tables/lists.ts';

/** What tapes may name of the user's own, as a counting thread uses it. */
export interface WorkspaceFacts {
  countryGroups: readonly CountryGroup[];
  lists: readonly Choice[];
  /** Members of each list that the universe has, by verdict. */
  members: ReadonlyMap<string, Readonly<Record<ListVerdict, Bits>>>;
  /** Companies where someone in the address book works; null where there is no address book. */
  known: Bits | null;
}

export const NO_FACTS: WorkspaceFacts = { countryGroups: [], lists: [], members: new Map(), known: null };

/** Reads the user's lists and groups, anew whenever they changed. */
export class FactsReader {
  private readonly workspace: Db;
  private revision = -1;

  constructor(workspace: Db) {
    this.workspace = workspace;
  }

  /** What there is now; null where that is what was read last. `recordOf` finds the record of a company by key. */
  changed(size: number, recordOf: (key: string) => number | undefined): WorkspaceFacts | null {
    const revision = factsRevision(this.workspace);
    if (revision === this.revision) return null;
    this.revision = revision;
    const lists = allLists(this.workspace).map(({ key, name }) => ({ key, label: name }));
    const members = new Map(
      lists.map(({ key }) => [key, { in: noBits(size), unsure: noBits(size), out: noBits(size) }] as const),
    );
    for (const { list, company, verdict } of eachMember(this.workspace)) {
      const record = recordOf(company);
      if (record !== undefined) setBit(members.get(list)![verdict], record);
    }
    const known = noBits(size);
    for (const company of contactCompanies(this.workspace)) {
      const record = recordOf(company);
      if (record !== undefined) setBit(known, record);
    }
    return { countryGroups: ownGroups(this.workspace), lists, members, known };
  }
}
