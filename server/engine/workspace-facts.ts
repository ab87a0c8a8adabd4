import type { CountryGroup } from '../../core/geo/country-groups.ts';
import { noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { Choice } from '../../core/tape/lookup.ts';
import type { ListVerdict } from '../../core/tape/nodes.ts';
import { asOfDay } from '../days.ts';
import type { Db } from '../db/open.ts';
import { contactsRevision, factsRevision, ownGroups } from '../tables/facts.ts';
import { contactCompanies } from '../tables/contacts.ts';
import { listRevisions, membersOf } from '../tables/lists.ts';
import { readSettings } from '../tables/workspace.ts';

/** Members of a list that the universe has, by verdict. */
export type Members = Readonly<Record<ListVerdict, Bits>>;

/** What tapes rest on of the user's own, as a counting thread uses it. */
export interface WorkspaceFacts {
  /** Day from which "past 12 months" counts back. */
  asOf: number;
  /** The currency of amounts typed without one. */
  currency: string;
  countryGroups: readonly CountryGroup[];
  lists: readonly Choice[];
  members: ReadonlyMap<string, Members>;
  /** Companies where someone in the address book works; null where there is no address book. */
  known: Bits | null;
}

export const NO_FACTS: WorkspaceFacts = {
  asOf: 0,
  currency: 'EUR',
  countryGroups: [],
  lists: [],
  members: new Map(),
  known: null,
};

/** Reads the user's settings, lists and groups whenever they changed, and of lists those alone that did. */
export class FactsReader {
  private readonly workspace: Db;
  private readonly size: number;
  private readonly recordOf: (key: string) => number | undefined;
  private readonly now: () => Date;
  private revision = -1;
  private asOf = NaN;
  private members = new Map<string, { revision: number; members: Members }>();
  private known: { revision: number; companies: Bits } | null = null;

  /** `size` and `recordOf` are those of the companies of the universe; `now` says what time it is. */
  constructor(
    workspace: Db,
    size: number,
    recordOf: (key: string) => number | undefined,
    now: () => Date = () => new Date(),
  ) {
    this.workspace = workspace;
    this.size = size;
    this.recordOf = recordOf;
    this.now = now;
  }

  /** What there is now; null where that is what was read last. A day that has ended is a change where the as-of date is today. */
  changed(): WorkspaceFacts | null {
    const revision = factsRevision(this.workspace);
    const settings = readSettings(this.workspace);
    const asOf = asOfDay(settings, this.now());
    if (revision === this.revision && asOf === this.asOf) return null;
    this.revision = revision;
    this.asOf = asOf;
    const lists = listRevisions(this.workspace);
    this.members = new Map(lists.map(({ key, revision: own }) => [key, this.membersAt(key, own)]));
    return {
      asOf,
      currency: settings.currency,
      countryGroups: ownGroups(this.workspace),
      lists: lists.map(({ key, name }) => ({ key, label: name })),
      members: new Map([...this.members].map(([key, { members }]) => [key, members])),
      known: this.knownNow(),
    };
  }

  private membersAt(key: string, revision: number): { revision: number; members: Members } {
    const before = this.members.get(key);
    if (before?.revision === revision) return before;
    const members = { in: noBits(this.size), unsure: noBits(this.size), out: noBits(this.size) };
    for (const { company, verdict } of membersOf(this.workspace, key)) {
      const record = this.recordOf(company);
      if (record !== undefined) setBit(members[verdict], record);
    }
    return { revision, members };
  }

  private knownNow(): Bits {
    const revision = contactsRevision(this.workspace);
    if (this.known?.revision !== revision) {
      const companies = noBits(this.size);
      for (const company of contactCompanies(this.workspace)) {
        const record = this.recordOf(company);
        if (record !== undefined) setBit(companies, record);
      }
      this.known = { revision, companies };
    }
    return this.known.companies;
  }
}
