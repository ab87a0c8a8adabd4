import type { CountryGroup } from '../../core/geo/country-groups.ts';
import type { RightPersonChoice } from '../../core/people/functions.ts';
import { noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { ManyColumn, Members } from '../../core/tally/columns.ts';
import type { Choice } from '../../core/tape/lookup.ts';
import { asOfDay } from '../days.ts';
import type { Db } from '../db/open.ts';
import { contactCompanies } from '../tables/contacts.ts';
import { contactsRevision, factsRevision, ownGroups, ownRightPeople } from '../tables/facts.ts';
import { allReceivers, handoverRevision } from '../tables/handover/ledger.ts';
import { listsRevision } from '../tables/lists/changes.ts';
import { allLists } from '../tables/lists/list-rows.ts';
import type { Revision } from '../tables/revision.ts';
import { readSettings } from '../tables/workspace.ts';
import { joinableTapes, joinedRevision } from '../tables/runs/joined.ts';
import { LedgerRecords } from './ledger-records.ts';
import { ListAddresses, type KeptByAddress } from './list-addresses.ts';
import { ListMembers, NO_MEMBERS, type MemberCells } from './list-members.ts';
import type { Records } from './records.ts';

/** A list as tapes name it. */
export interface ListChoice extends Choice {
  subject: string;
  suppression: 'members' | 'groups' | null;
}

/** What tapes rest on of the user's own, as a counting thread uses it. */
export interface WorkspaceFacts {
  /** Day from which "past 12 months" counts back. */
  asOf: number;
  /** The currency of amounts typed without one. */
  currency: string;
  countryGroups: readonly CountryGroup[];
  rightPeople: readonly RightPersonChoice[];
  lists: readonly ListChoice[];
  members: ReadonlyMap<string, Members>;
  /** By suppression list, where it has addresses. */
  keptByAddress: ReadonlyMap<string, KeptByAddress>;
  cells: MemberCells;
  /** Companies where someone in the address book works; null where there is no address book. */
  known: Bits | null;
  /** Whom exports went to, and by subject which records each was given. */
  receivers: readonly Choice[];
  handed: ReadonlyMap<string, ManyColumn>;
  /** Saved tapes that have run, and by subject which records joined each. */
  joinable: readonly Choice[];
  joined: ReadonlyMap<string, ManyColumn>;
}

export const NO_FACTS: WorkspaceFacts = {
  asOf: 0,
  currency: 'EUR',
  countryGroups: [],
  rightPeople: [],
  lists: [],
  members: new Map(),
  keptByAddress: new Map(),
  cells: NO_MEMBERS,
  known: null,
  receivers: [],
  handed: new Map(),
  joinable: [],
  joined: new Map(),
};

/** Reads the user's settings, lists and groups whenever they changed, and of lists those members alone that did. */
export class FactsReader {
  private readonly workspace: Db;
  private readonly lists: Db;
  private readonly handover: Db;
  private readonly companies: Records;
  private readonly now: () => Date;
  private readonly members: ListMembers;
  private readonly addressed: ListAddresses;
  private readonly runs: Db;
  private readonly handed: LedgerRecords;
  private readonly joined: LedgerRecords;
  private revision = -1;
  private listsRevision = -1;
  private handedRevision = -1;
  private joinedRevision = -1;
  private asOf = NaN;
  private known: { revision: number; companies: Bits } | null = null;

  /**
   * `records` are those of the universe by subject, and `shown` says of which, where `lists` has its database attached as `u`;
   * `now` says what time it is.
   */
  constructor(
    workspace: Db,
    lists: Db,
    handover: Db,
    runs: Db,
    records: ReadonlyMap<string, Records>,
    now: () => Date = () => new Date(),
    shown: Revision | null = null,
  ) {
    this.workspace = workspace;
    this.lists = lists;
    this.companies = records.get('companies')!;
    this.now = now;
    this.members = new ListMembers(lists, records, shown);
    this.addressed = new ListAddresses(lists, records);
    this.handover = handover;
    this.handed = new LedgerRecords(
      {
        db: handover,
        rows: 'SELECT key, day FROM handed_over WHERE subject = ? AND receiver = ?',
        keys: () => allReceivers(handover),
      },
      records,
    );
    this.runs = runs;
    this.joined = new LedgerRecords(
      {
        db: runs,
        rows: 'SELECT key, day FROM joined_tape WHERE subject = ? AND tape = ?',
        keys: () => joinableTapes(runs),
      },
      records,
    );
  }

  /** What there is now; null where that is what was read last. A day that has ended is a change where the as-of date is today. */
  changed(): WorkspaceFacts | null {
    const revision = factsRevision(this.workspace);
    const ofLists = listsRevision(this.lists);
    const settings = readSettings(this.workspace);
    const asOf = asOfDay(settings, this.now());
    const ofHanded = handoverRevision(this.handover);
    const ofJoined = joinedRevision(this.runs);
    if (
      revision === this.revision &&
      ofLists === this.listsRevision &&
      ofHanded === this.handedRevision &&
      ofJoined === this.joinedRevision &&
      asOf === this.asOf
    )
      return null;
    this.handedRevision = ofHanded;
    this.joinedRevision = ofJoined;
    this.revision = revision;
    this.listsRevision = ofLists;
    this.asOf = asOf;
    const lists = allLists(this.lists);
    return {
      asOf,
      currency: settings.currency,
      countryGroups: ownGroups(this.workspace),
      rightPeople: ownRightPeople(this.workspace),
      lists: lists.map(({ key, name, subject, suppression }) => ({ key, label: name, subject, suppression })),
      members: this.members.of(lists),
      keptByAddress: this.addressed.of(),
      cells: this.members,
      known: this.knownNow(),
      receivers: allReceivers(this.handover).map(({ key, name }) => ({ key, label: name })),
      handed: this.handed.columns(ofHanded),
      joinable: joinableTapes(this.runs).map(({ key, name }) => ({ key, label: name })),
      joined: this.joined.columns(ofJoined),
    };
  }

  private knownNow(): Bits {
    const revision = contactsRevision(this.workspace);
    if (this.known?.revision !== revision) {
      const companies = noBits(this.companies.ids.length);
      for (const company of contactCompanies(this.workspace)) {
        const record = this.companies.byKey(company);
        if (record !== undefined) setBit(companies, record);
      }
      this.known = { revision, companies };
    }
    return this.known.companies;
  }
}

/** Whether nothing that tapes name means anything else, but for members of lists. */
export function isSameButMembers(one: WorkspaceFacts, other: WorkspaceFacts): boolean {
  const named = (facts: WorkspaceFacts) => {
    const { asOf, currency, countryGroups, rightPeople, lists, receivers, joinable } = facts;
    return JSON.stringify([asOf, currency, countryGroups, rightPeople, lists, receivers, joinable]);
  };
  return (
    one.known === other.known &&
    one.handed === other.handed &&
    one.joined === other.joined &&
    named(one) === named(other)
  );
}

/** Whether the text of a tape or a line may speak of a list. */
export function namesLists(text: string): boolean {
  return text.includes('list');
}
