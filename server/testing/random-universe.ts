import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CompanyRecord } from '../../core/records/record.ts';
import { noBits, setBit } from '../../core/tally/bits.ts';
import type { ListVerdict } from '../../core/tape/nodes.ts';
import { LISTS, SOURCES, TECHNOLOGIES } from '../../core/testing/any-record.ts';
import { DEAL_SOURCES, type AnyRelated } from '../../core/testing/any-related.ts';
import { openUniverse, type Db } from '../db/open.ts';
import type { ReferenceData } from '../engine/universe-lookup.ts';
import type { WorkspaceFacts } from '../engine/workspace-facts.ts';
import { relate } from '../load/relate.ts';
import { loadReferenceData } from '../reference.ts';
import { RELATED_TABLES, relatedWriter } from '../tables/related.ts';
import { nextRevision } from '../tables/revision.ts';
import { companyParts, companyWriter, LIST_TABLES } from '../tables/company.ts';
import { addSource } from '../tables/source.ts';

/** 2026-09-30 */
export const AS_OF = 20_726;

const GROUPED = ['rutavel', 'planodor'];
const VERDICTS = ['in', 'unsure', 'out'] as const;
const NOTHING_RELATED: AnyRelated = { sites: [], people: [], events: [], deals: [], brands: [], covered: [] };

/** A universe on disk that can be filled anew with random companies. */
export class RandomUniverse {
  readonly dir = mkdtempSync(join(tmpdir(), 'just-tally-universe-'));
  readonly db: Db = openUniverse(this.dir);
  readonly reference: ReferenceData;

  constructor() {
    this.reference = loadReferenceData();
    const mapping = {
      columns: [],
      decimal: '.',
      dates: 'dmy',
      scheme: 'nace-2.1',
      country: null,
      currency: 'EUR',
      year: 2025,
      revenueUnit: 1,
    } as const;
    for (const name of SOURCES)
      addSource(
        this.db,
        {
          name,
          fileName: null,
          licence: null,
          asOf: AS_OF,
          header: [],
          mapping: { ...mapping, columns: [] },
        },
        name,
      );
    for (const key of DEAL_SOURCES)
      addSource(
        this.db,
        {
          ...{ name: key, fileName: null, licence: null, asOf: AS_OF, header: [] },
          mapping: { ...mapping, columns: [] },
        },
        key,
      );
    this.db.exec(
      'CREATE TABLE list_member (list TEXT, company TEXT, verdict TEXT); CREATE TABLE contact (company TEXT)',
    );
    const add = this.db.prepare(
      'INSERT INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)',
    );
    for (const key of TECHNOLOGIES) {
      const group = GROUPED.includes(key) ? 'planning' : null;
      add.run(key, key, group, group);
    }
  }

  /** What the workspace would have: members of lists, and companies in the address book. */
  members: [list: string, company: string, verdict: ListVerdict][] = [];
  contacts: string[] = [];

  fill(
    records: readonly (readonly [CompanyRecord, readonly string[]])[],
    related: AnyRelated = NOTHING_RELATED,
  ): void {
    for (const table of [...RELATED_TABLES, ...LIST_TABLES, 'company_source', 'company', 'company_words'])
      this.db.exec(`DELETE FROM ${table}`);
    const writer = companyWriter(this.db, nextRevision(this.db));
    this.db.transaction(() =>
      records.forEach(([record, sources], i) => writer.insert(i + 1, `k${i}`, companyParts(record), sources)),
    )();
    this.relate(records.length, related);
    this.members = records.flatMap((_, i) =>
      LISTS.filter((_list, nth) => (i * 7 + nth) % 3 === 0).map(
        (list) => [list, `k${i}`, VERDICTS[i % 3]!] as [string, string, ListVerdict],
      ),
    );
    this.contacts = records.flatMap((_, i) => (i % 4 === 1 ? [`k${i}`] : []));
    this.db.exec('DELETE FROM list_member; DELETE FROM contact');
    const addMember = this.db.prepare('INSERT INTO list_member VALUES (?, ?, ?)');
    for (const member of this.members) addMember.run(...member);
    for (const company of this.contacts) this.db.prepare('INSERT INTO contact VALUES (?)').run(company);
  }

  private relate(companies: number, { sites, people, events, deals, brands, covered }: AnyRelated): void {
    const hold = (owner: number | null) => ({
      id: owner === null || companies === 0 ? null : 1 + (owner % companies),
      reference: null,
    });
    const held = (parties: readonly { owner: number | null; role: string }[]) =>
      parties.map(({ owner, role }) => ({ role, ...hold(owner) }));
    this.db.transaction(() => {
      const writer = relatedWriter(this.db);
      for (const { owner, record } of sites) writer.site('register', hold(owner), record);
      for (const { owner, record } of people) writer.person('register', hold(owner), record);
      for (const { owner, record } of events) writer.event('register', hold(owner), record);
      for (const { parties, sources, record } of deals) writer.deal(sources, held(parties), record);
      for (const { parties, record } of brands) writer.brand('register', held(parties), record);
      const cover = this.db.prepare('INSERT INTO source_cover (source, subject, country) VALUES (?, ?, ?)');
      for (const { subject, country } of covered) cover.run('register', subject, country);
      relate(this.db, nextRevision(this.db), ['sites', 'people', 'events', 'deals', 'brands']);
    })();
  }

  /** The lists and contacts as counting uses them. */
  facts(): WorkspaceFacts {
    const size = this.db.prepare<[], number>('SELECT count(*) FROM company').pluck().get()!;
    const members = new Map(
      LISTS.map((key) => [key, { in: noBits(size), unsure: noBits(size), out: noBits(size) }] as const),
    );
    for (const [list, company, verdict] of this.members)
      setBit(members.get(list)![verdict], Number(company.slice(1)));
    const known = noBits(size);
    for (const company of this.contacts) setBit(known, Number(company.slice(1)));
    return {
      asOf: AS_OF,
      currency: 'EUR',
      countryGroups: [],
      lists: LISTS.map((key) => ({ key, label: key })),
      members,
      known,
    };
  }

  close(): void {
    this.db.close();
    rmSync(this.dir, { recursive: true });
  }
}
