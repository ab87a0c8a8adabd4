import { registrationKey } from '../core/records/record.ts';
import type { EventRecord, PersonRecord, SiteRecord } from '../core/records/related.ts';
import { brandsOf, resells, type MadeBrand } from './brands.ts';
import type { Companies, Truth } from './company.ts';
import { dealOf, type MadeDeal } from './deals.ts';
import { eventsOf } from './happenings.ts';
import { peopleOf } from './people.ts';
import type { Places } from './places.ts';
import { sitesOf } from './premises.ts';
import { Chance } from './random.ts';

/** What hangs on one company, with other companies named by key. */
export interface MadeRelated {
  company: string;
  sites: SiteRecord[];
  people: PersonRecord[];
  events: EventRecord[];
  brands: { record: MadeBrand['record']; parties: { company: string; role: string }[] }[];
  deal: (Pick<MadeDeal, 'record' | 'lookedAt'> & { parties: { company: string; role: string }[] }) | null;
}

/** Sellers of the brands of others that are remembered, so that brands find some among those made before. */
const MOST_SELLERS = 5000;

/** Makes what hangs on companies, each by chances of its own. */
export class RelatedMaker {
  private readonly companies: Companies;
  private readonly places: Places;
  private readonly seed: number;
  private readonly count: number;
  private readonly sellers: number[] = [];
  private made: MadeRelated[] = [];

  constructor(companies: Companies, places: Places, seed: number, count: number) {
    this.companies = companies;
    this.places = places;
    this.seed = seed;
    this.count = count;
  }

  /** Second records of a company have nothing of their own. */
  make(truth: Truth): void {
    if (truth.duplicate) return;
    const chance = (salt: number) => new Chance(this.seed ^ Math.imul(truth.index + 1, salt));
    const people = peopleOf(truth, chance(0x165667b1));
    const deal = dealOf(truth, chance(0x9e3779bb), this.count);
    this.made.push({
      company: keyOf(truth),
      sites: sitesOf(truth, chance(0x2545f491), this.places),
      people: people ?? [],
      events: eventsOf(truth, chance(0x5851f42d)),
      brands: brandsOf(truth, chance(0x14057b7d), this.sellers).map(({ record, resellers }) => ({
        record,
        parties: [{ company: keyOf(truth), role: 'owner' }, ...this.named(resellers)],
      })),
      deal: deal && { record: deal.record, lookedAt: deal.lookedAt, parties: this.named(deal.parties) },
    });
    if (resells(truth)) {
      if (this.sellers.length < MOST_SELLERS) this.sellers.push(truth.index);
      else this.sellers[truth.index % MOST_SELLERS] = truth.index;
    }
  }

  /** What was made since the last time. */
  taken(): MadeRelated[] {
    const taken = this.made;
    this.made = [];
    return taken;
  }

  private named(parties: readonly { index: number; role: string }[]): { company: string; role: string }[] {
    return parties.map(({ index, role }) => ({ company: keyOf(this.companies.first(index)), role }));
  }
}

/** The key that a company's records meet under. */
function keyOf(truth: Truth): string {
  return registrationKey(truth)!;
}
