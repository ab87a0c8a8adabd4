import { addBits, noBits, type Bits } from '../../core/tally/bits.ts';
import type { CategoryColumn, Universe } from '../../core/tally/columns.ts';
import { hangingOnSome, withGroups } from '../../core/tally/kept-off.ts';
import { addMembers } from '../../core/tally/members.ts';
import { VERDICTS } from '../../core/tape/nodes.ts';
import type { ListChoice, WorkspaceFacts } from './workspace-facts.ts';

/** What suppression lists keep off exports: their members, where a list says so the groups of these, and what hangs on one of them. */
export class KeptOff {
  private readonly lists: readonly ListChoice[];
  private readonly members: WorkspaceFacts['members'];
  private readonly universes: ReadonlyMap<string, Universe>;
  private readonly found: Map<string, Bits | null>;

  /** What an earlier one found stays where its lists have the same members still, over the same records. */
  constructor(
    { lists, members }: WorkspaceFacts,
    universes: ReadonlyMap<string, Universe>,
    earlier: KeptOff | undefined,
  ) {
    this.lists = lists.filter(({ suppression }) => suppression !== null);
    this.members = members;
    this.universes = universes;
    this.found = earlier && this.isLike(earlier) ? earlier.found : new Map<string, Bits | null>();
  }

  private isLike(other: KeptOff): boolean {
    const said = (one: KeptOff) => JSON.stringify(one.lists);
    return (
      said(this) === said(other) &&
      this.lists.every(({ key }) => this.members.get(key) === other.members.get(key))
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
    const own = this.ownOf(list);
    if (!own || list.subject === subject) return own;
    if (list.subject !== 'companies') return null;
    const relation = this.universes.get('companies')!.relations?.get(subject);
    const links = relation?.links.get('');
    return links ? hangingOnSome(links, own) : null;
  }

  private ownOf({ key, subject, suppression }: ListChoice): Bits | null {
    return this.once(key, () => {
      const universe = this.universes.get(subject);
      const members = this.members.get(key);
      if (!universe || !members) return null;
      const own = noBits(universe.size);
      addMembers(own, members, VERDICTS);
      const groups = universe.columns.get('group') as CategoryColumn | undefined;
      return suppression === 'groups' && groups ? withGroups(own, groups.values) : own;
    });
  }

  private once(name: string, make: () => Bits | null): Bits | null {
    let found = this.found.get(name);
    if (found === undefined) this.found.set(name, (found = make()));
    return found;
  }
}
