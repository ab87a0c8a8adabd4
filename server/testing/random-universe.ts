import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CompanyRecord } from '../../core/records/record.ts';
import { noBits, setBit } from '../../core/tally/bits.ts';
import { handedColumn, type HandedTo } from '../../core/tally/handed.ts';
import { VERDICTS } from '../../core/tape/nodes.ts';
import {
  HALLS,
  LISTS,
  OUT_REASONS,
  RECEIVERS,
  SOURCES,
  TAGS,
  TAPES,
  TECHNOLOGIES,
} from '../../core/testing/any-record.ts';
import { DEAL_SOURCES, type AnyRelated } from '../../core/testing/any-related.ts';
import { listsMigrations } from '../db/lists-schema.ts';
import { openUniverse, type Db } from '../db/open.ts';
import { ListMembers } from '../engine/list-members.ts';
import type { ReferenceData } from '../engine/universe-lookup.ts';
import type { WorkspaceFacts } from '../engine/workspace-facts.ts';
import { relate } from '../load/relate.ts';
import { loadReferenceData } from '../reference.ts';
import { RELATED_TABLES, relatedWriter } from '../tables/related.ts';
import { carry } from '../tables/lists/carried.ts';
import { addOrigin } from '../tables/lists/origins.ts';
import { nextRevision } from '../tables/revision.ts';
import { companyParts, companyWriter, LIST_TABLES } from '../tables/company.ts';
import { addSource } from '../tables/source.ts';

/** 2026-09-30 */
export const AS_OF = 20_726;

const GROUPED = ['rutavel', 'planodor'];
const NOTHING_RELATED: AnyRelated = { sites: [], people: [], events: [], deals: [], brands: [], covered: [] };

/** What a file says of a member: of some nothing under a heading, of some what is no number among numbers. */
function saidOf(i: number): Record<string, string> {
  return {
    Hall: HALLS[i % HALLS.length]!,
    ...(i % 3 === 0 ? { Visits: `${(i % 7) * 2.5}` } : {}),
    ...(i % 4 === 1 ? { Remark: i % 8 === 1 ? 'Pays late, žádné zboží' : 'n/a' } : {}),
  };
}

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
    this.db.exec(`${listsMigrations.join('')}; CREATE TABLE contact (company TEXT);
      CREATE TABLE handed_over (subject TEXT, receiver TEXT, key TEXT, day INTEGER);
      CREATE TABLE joined_tape (subject TEXT, tape TEXT, key TEXT, day INTEGER)`);
    const add = this.db.prepare(
      'INSERT INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)',
    );
    for (const key of TECHNOLOGIES) {
      const group = GROUPED.includes(key) ? 'planning' : null;
      add.run(key, key, group, group);
    }
  }

  /** What receivers were handed. */
  handed: HandedTo[] = [];
  /** Who joined tapes. */
  joined: HandedTo[] = [];

  /** Companies in the address book. */
  contacts: string[] = [];

  fill(
    records: readonly (readonly [CompanyRecord, readonly string[]])[],
    related: AnyRelated = NOTHING_RELATED,
  ): void {
    const own = ['company_source', 'company', 'company_words', 'company_changed'];
    for (const table of [...RELATED_TABLES, ...LIST_TABLES, ...own]) this.db.exec(`DELETE FROM ${table}`);
    const writer = companyWriter(this.db, nextRevision(this.db, 'random'));
    this.db.transaction(() =>
      records.forEach(([record, sources], i) => writer.insert(i + 1, `k${i}`, companyParts(record), sources)),
    )();
    this.relate(records.length, related);
    this.contacts = records.flatMap((_, i) => (i % 4 === 1 ? [`k${i}`] : []));
    this.db.exec('DELETE FROM list; DELETE FROM contact');
    this.fillLists(records.length);
    this.fillLedger(records.length);
    for (const company of this.contacts) this.db.prepare('INSERT INTO contact VALUES (?)').run(company);
  }

  /** A quarter of the companies handed over to each receiver, or joined to each tape, on days in turn; and what changed of some. */
  private fillLedger(companies: number): void {
    this.handed = this.ledger('handed_over', RECEIVERS, companies);
    this.joined = this.ledger('joined_tape', TAPES, companies);
    const changed = this.db.prepare('INSERT INTO company_changed VALUES (?, ?, ?)');
    for (let i = 0; i < companies; i++) {
      if (i % 3 === 0) changed.run(i + 1, 'headcount', AS_OF - (i % 5) * 40);
      if (i % 4 === 0) changed.run(i + 1, 'place', AS_OF - (i % 7) * 20);
    }
  }

  private ledger(table: string, of: readonly string[], companies: number): HandedTo[] {
    this.db.exec(`DELETE FROM ${table}`);
    const hand = this.db.prepare(`INSERT INTO ${table} VALUES ('companies', ?, ?, ?)`);
    return of.map((receiver, nth) => {
      const own = Array.from({ length: companies }, (_, i) => i).filter((i) => (i * 5 + nth) % 4 === 0);
      const days = own.map((i) => AS_OF - (i % 6) * 25);
      own.forEach((i, at) => hand.run(receiver, `k${i}`, days[at]));
      return { receiver, records: Uint32Array.from(own), days: Int32Array.from(days) };
    });
  }

  /** A third of the companies on each list, with verdicts, reasons and tags in turn, some put on by two origins, and some taken off. */
  private fillLists(companies: number): void {
    const list = this.db.prepare(
      `INSERT INTO list (key, name, subject, made_at, changed_at) VALUES (?, ?, 'companies', 0, 0)`,
    );
    const member = this.db.prepare(
      `INSERT INTO list_member (list, key, origins, added_at, verdict, reason, assigned, judged_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    );
    const tag = this.db.prepare('INSERT INTO list_tag (list, key, tag) VALUES (?, ?, ?)');
    const taken = this.db.prepare(
      `INSERT INTO list_taken_member (taken, key, list, origins, added_at, verdict) VALUES (?, ?, ?, '1', 0, 'not-judged')`,
    );
    this.db.transaction(() =>
      LISTS.forEach((key, nth) => {
        list.run(key, key);
        const put: { key: string; cells: Record<string, string> }[] = [];
        this.db
          .prepare(`INSERT INTO list_taken (id, list, how, person, at) VALUES (?, ?, '', '', 0)`)
          .run(nth + 1, key);
        for (let i = 0; i < companies; i++) {
          if ((i * 7 + nth) % 3 === 1) taken.run(nth + 1, `k${i}`, key);
          if ((i * 7 + nth) % 3 !== 0) continue;
          const verdict = VERDICTS[i % VERDICTS.length]!;
          const at = (AS_OF - (i % 5) * 20) * 86_400_000;
          const judgedAt = verdict === 'not-judged' ? null : at;
          const origins = ['1', '1 12', '12', '2 1'][i % 4]!;
          member.run(
            key,
            `k${i}`,
            origins,
            at,
            verdict,
            verdict === 'out' ? OUT_REASONS[i % 2] : null,
            i % 5 ? null : 'Hana',
            judgedAt,
          );
          if (i % 3 === 0) tag.run(key, `k${i}`, TAGS[i % 2]);
          put.push({ key: `k${i}`, cells: saidOf(i) });
        }
        const what = { kind: 'file', what: 'fair.csv', tape: null, asOf: null, person: '' } as const;
        carry(this.db, key, addOrigin(this.db, key, what, null), put);
      }),
    )();
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
      relate(this.db, nextRevision(this.db, 'random'), ['sites', 'people', 'events', 'deals', 'brands']);
    })();
  }

  /** The lists and contacts as counting uses them. */
  facts(): WorkspaceFacts {
    const size = this.db.prepare<[], number>('SELECT count(*) FROM company').pluck().get()!;
    const byKey = (key: string) => Number(key.slice(1));
    const companies = {
      subject: 'companies',
      table: 'company',
      ids: new Uint32Array(size),
      recordOf: new Int32Array(0),
      byKey,
      byKeys: (keys: readonly string[]) => Int32Array.from(keys, byKey),
    };
    const cells = new ListMembers(this.db, new Map([['companies', companies]]));
    const known = noBits(size);
    for (const company of this.contacts) setBit(known, Number(company.slice(1)));
    return {
      asOf: AS_OF,
      currency: 'EUR',
      countryGroups: [],
      rightPeople: [],
      lists: LISTS.map((key) => ({ key, label: key, subject: 'companies', suppression: null })),
      members: cells.of(LISTS.map((key) => ({ key, subject: 'companies', revision: 0 }))),
      keptByAddress: new Map(),
      cells,
      known,
      receivers: RECEIVERS.map((key) => ({ key, label: key })),
      handed: new Map([['companies', handedColumn(this.handed, size)]]),
      joinable: TAPES.map((key) => ({ key, label: key })),
      joined: new Map([['companies', handedColumn(this.joined, size)]]),
    };
  }

  /** The tables of lists and of the ledger with their rows, for other databases to take over. */
  listTables(): { table: string; columns: string[]; rows: (string | number | null)[][] }[] {
    return [
      'list_member',
      'list_tag',
      'list_carried_cell',
      'list_taken_member',
      'handed_over',
      'joined_tape',
    ].map((table) => {
      const all = this.db.prepare<[], (string | number | null)[]>(`SELECT * FROM ${table}`).raw();
      return { table, columns: all.columns().map(({ name }) => name), rows: all.all() };
    });
  }

  close(): void {
    this.db.close();
    rmSync(this.dir, { recursive: true });
  }
}
