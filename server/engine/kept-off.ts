import { addBits, noBits, type Bits } from '../../core/tally/bits.ts';
import type { CategoryColumn, Universe } from '../../core/tally/columns.ts';
import { hangingOnSome, withGroups } from '../../core/tally/kept-off.ts';
import { addMembers } from '../../core/tally/members.ts';
import { VERDICTS } from '../../core/tape/nodes.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import type { DomainMates } from './domain-mates.ts';
import type { ListChoice, WorkspaceFacts } from './workspace-facts.ts';

/** Of subjects that know several companies each, the role in which one of them is kept off with what it has. */
const OWNED: ReadonlyMap<string, string> = new Map([['brands', 'owner']]);

/**
 * What suppression lists keep off exports: their members, where a list says so the groups of these, whoever has their domain or one
 * of the addresses named, and what hangs on one of the companies. Deals have several parties, and are kept off by name alone.
 */
export class KeptOff {
  private readonly lists: readonly ListChoice[];
  private readonly members: WorkspaceFacts['members'];
  private readonly addressed: WorkspaceFacts['keptByAddress'];
  private readonly universes: ReadonlyMap<string, Universe>;
  private readonly mates: DomainMates;
  private readonly found: Map<string, Bits | null>;

  /** What an earlier one found stays where its lists have the same members still, over the same records. */
  constructor(
    { lists, members, keptByAddress }: WorkspaceFacts,
    universes: ReadonlyMap<string, Universe>,
    mates: DomainMates,
    earlier: KeptOff | undefined,
  ) {
    this.lists = lists.filter(({ suppression }) => suppression !== null);
    this.members = members;
    this.addressed = keptByAddress;
    this.universes = universes;
    this.mates = mates;
    this.found = earlier && this.isLike(earlier) ? earlier.found : new Map<string, Bits | null>();
  }

  private isLike(other: KeptOff): boolean {
    const said = (one: KeptOff) => JSON.stringify(one.lists);
    return (
      said(this) === said(other) &&
      this.lists.every(
        ({ key }) =>
          this.members.get(key) === other.members.get(key) &&
          this.addressed.get(key) === other.addressed.get(key),
      )
    );
  }

  /** The records of a subject that all suppression lists keep off together; null where none does. */
  of(subject: string): Bits | null {
    return this.once(`all ${subject}`, () => {
      let all: Bits | null = null;
      for (const { bits } of this.byList(subject)) {
        if (all) addBits(all, bits);
        else all = bits.slice();
      }
      return all;
    });
  }

  /** The records of a subject that each suppression list keeps off, in the order of their names. */
  byList(subject: string): { list: ListChoice; bits: Bits }[] {
    return this.lists.flatMap((list) => {
      const bits = this.once(`${list.key} ${subject}`, () => this.offOf(list, subject));
      return bits ? [{ list, bits }] : [];
    });
  }

  private offOf(list: ListChoice, subject: string): Bits | null {
    const parts = [this.membersOf(list, subject), this.addressed.get(list.key)?.get(subject) ?? null];
    const companies = subject === 'companies' ? null : this.companiesOf(list);
    if (companies) parts.push(this.hangingOn(companies, subject));
    return parts.reduce((all, bits) => {
      if (!all || !bits) return all ?? bits;
      const both = all.slice();
      addBits(both, bits);
      return both;
    }, null);
  }

  /** What is kept off with some companies: what hangs on them. */
  private hangingOn(companies: Bits, subject: string): Bits | null {
    const { relation } = subjectOf(subject);
    const role = relation!.roles.length === 0 ? '' : OWNED.get(subject);
    const links =
      role === undefined
        ? undefined
        : this.universes.get('companies')!.relations?.get(subject)?.links.get(role);
    return links ? hangingOnSome(links, companies) : null;
  }

  /** The companies that a list keeps off, on which other records hang: its members, and those of its addresses. */
  private companiesOf(list: ListChoice): Bits | null {
    return this.once(`${list.key} companies`, () => this.offOf(list, 'companies'));
  }

  private membersOf({ key, subject: own, suppression }: ListChoice, subject: string): Bits | null {
    if (own !== subject) return null;
    return this.once(key, () => {
      const universe = this.universes.get(subject);
      const members = this.members.get(key);
      if (!universe || !members) return null;
      const bits = noBits(universe.size);
      addMembers(bits, members, VERDICTS);
      if (subject !== 'companies') return bits;
      const groups = universe.columns.get('group') as CategoryColumn | undefined;
      const named = suppression === 'groups' && groups ? withGroups(bits, groups.values) : bits;
      return this.mates.of(named);
    });
  }

  private once(name: string, make: () => Bits | null): Bits | null {
    let found = this.found.get(name);
    if (found === undefined) this.found.set(name, (found = make()));
    return found;
  }
}
