import { dayOf } from '../core/dates.ts';
import type { Mapping } from '../core/records/mapping.ts';
import { relate } from '../server/load/relate.ts';
import type { Db } from '../server/db/open.ts';
import { relatedWriter, type Hold, type RelatedWriter } from '../server/tables/related.ts';
import { addSource, setRows } from '../server/tables/source.ts';
import { DEMO_AS_OF } from './days.ts';
import type { MadeRelated } from './related.ts';

/** Sources of what hangs on companies, and the countries of which the demo's files have all. */
const SOURCES = {
  sites: ['premises-file', 'Premises file'],
  people: ['people-directory', 'People directory'],
  events: ['event-log', 'Event log'],
  brands: ['brand-watch', 'Brand watch'],
  deals: ['deal-file', 'Deal file'],
  lookedAt: ['our-deal-book', 'Our own deal book'],
} as const;

const EUROPE =
  'AT BE BG CH CY CZ DE DK EE ES FI FR GB GR HR HU IE IS IT LT LU LV MT NL NO PL PT RO RS SE SI SK'.split(
    ' ',
  );
const COVERED = ['sites', 'events', 'deals'] as const;

/** Writes what hangs on the demo's companies, which are written before it. */
export class DemoRelated {
  private readonly db: Db;
  private readonly writer: RelatedWriter;
  private readonly find;
  private readonly ids: Record<string, number> = {};
  private readonly rows: Record<string, number> = {};

  constructor(db: Db) {
    this.db = db;
    this.writer = relatedWriter(db);
    this.find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    const mapping: Mapping = {
      ...({ columns: [], decimal: '.', dates: 'dmy', scheme: 'nace-2.1', country: null } as const),
      ...{ currency: 'EUR', year: 2025, revenueUnit: 1 },
    };
    for (const [subject, [key, name]] of Object.entries(SOURCES)) {
      const source = addSource(
        db,
        {
          name,
          fileName: null,
          licence: 'made up for the demo',
          asOf: dayOf(DEMO_AS_OF)!,
          header: [],
          mapping,
          subject: subject === 'lookedAt' ? 'deals' : subject,
        },
        key,
      );
      this.ids[subject] = source.id;
      this.rows[subject] = 0;
    }
    const cover = db.prepare('INSERT INTO source_cover (source, subject, country) VALUES (?, ?, ?)');
    for (const subject of COVERED)
      for (const country of EUROPE) cover.run(SOURCES[subject][0], subject, country);
  }

  write(made: readonly MadeRelated[]): void {
    const { writer, rows } = this;
    for (const { company, sites, people, events, brands, deal } of made) {
      const hold: Hold = { id: this.find.get(company) ?? null, reference: null };
      for (const site of sites) writer.site(SOURCES.sites[0], hold, site);
      for (const person of people) writer.person(SOURCES.people[0], hold, person);
      for (const event of events) writer.event(SOURCES.events[0], hold, event);
      for (const { record, parties } of brands) writer.brand(SOURCES.brands[0], this.held(parties), record);
      rows.sites! += sites.length;
      rows.people! += people.length;
      rows.events! += events.length;
      rows.brands! += brands.length;
      if (!deal) continue;
      const sources = [SOURCES.deals[0], ...(deal.lookedAt ? [SOURCES.lookedAt[0]] : [])];
      writer.deal(sources, this.held(deal.parties), deal.record);
      rows.deals!++;
      if (deal.lookedAt) rows.lookedAt!++;
    }
  }

  private held(parties: readonly { company: string; role: string }[]) {
    return parties.map(({ company, role }) => ({
      role,
      id: this.find.get(company) ?? null,
      reference: null,
    }));
  }

  /** What follows from all of it for the companies. */
  end(revision: number): void {
    for (const [subject, count] of Object.entries(this.rows)) setRows(this.db, this.ids[subject]!, count, 0);
    relate(this.db, revision, ['sites', 'people', 'events', 'brands', 'deals']);
  }
}
