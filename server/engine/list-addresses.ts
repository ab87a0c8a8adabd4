import { noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { Db } from '../db/open.ts';
import { listsWithAddresses, recordsAt } from '../tables/lists/addresses.ts';
import type { Records } from './records.ts';

/** What the addresses of a suppression list keep off, by subject. */
export type KeptByAddress = ReadonlyMap<string, Bits>;

/** The companies and people that the addresses of suppression lists are of, looked up again only where a list's addresses changed. */
export class ListAddresses {
  private readonly db: Db;
  private readonly records: ReadonlyMap<string, Records>;
  private held = new Map<string, { at: number; kept: KeptByAddress }>();

  /** @param db the lists, where any has addresses with the universe attached as `u` */
  constructor(db: Db, records: ReadonlyMap<string, Records>) {
    this.db = db;
    this.records = records;
  }

  of(): ReadonlyMap<string, KeptByAddress> {
    const now = new Map<string, { at: number; kept: KeptByAddress }>();
    for (const { list, at } of listsWithAddresses(this.db)) {
      const known = this.held.get(list);
      now.set(list, known?.at === at ? known : { at, kept: this.find(list) });
    }
    this.held = now;
    return new Map([...now].map(([list, { kept }]) => [list, kept]));
  }

  private find(list: string): KeptByAddress {
    const found = recordsAt(this.db, list);
    return new Map(
      (['companies', 'people'] as const).flatMap((subject): [string, Bits][] => {
        const records = this.records.get(subject);
        if (!records) return [];
        const bits = noBits(records.ids.length);
        for (const id of found[subject]) {
          const record = records.recordOf[id] ?? -1;
          if (record >= 0) setBit(bits, record);
        }
        return [[subject, bits]];
      }),
    );
  }
}
