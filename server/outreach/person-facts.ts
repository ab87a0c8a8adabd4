import { isoOf } from '../../core/dates.ts';
import type { CodeTree } from '../../core/codes/tree.ts';
import type { FactsOfCompany, FactsOfPerson, Happening } from '../../core/outreach/facts.ts';
import { happeningOf } from '../../core/outreach/trigger.ts';
import type { AddressStanding } from '../../core/people/standing.ts';
import type { Db } from '../db/open.ts';

interface PersonRow {
  key: string;
  name: string;
  title: string | null;
  department: string | null;
  level: string | null;
  since_on: number | null;
  earlier: string | null;
  phone: string | null;
  mail: string | null;
  certainty: number | null;
  address: AddressStanding | null;
  made_by: string | null;
  source: string;
  checked_on: number | null;
  company_id: number | null;
}

interface CompanyRow {
  id: number;
  key: string;
  name: string;
  legal_form: string | null;
  town: string | null;
  region: string | null;
  country: string | null;
  headcount_point: number | null;
  revenue_low: number | null;
  revenue_high: number | null;
  revenue_point: number | null;
  revenue_currency: string | null;
  revenue_basis: string | null;
}

interface HappeningRow {
  name: string;
  kind: string | null;
  date_on: number | null;
}

const YEAR_DAYS = 365;
/** Keys looked up at once. */
const KEYS_A_CALL = 5000;

/** Reads from the universe what is known of people while writing to them. */
export class PersonFacts {
  private readonly nace: CodeTree;
  private readonly asOf: () => number;
  private readonly people;
  private readonly company;
  private readonly codes;
  private readonly technologies;
  private readonly event;
  private readonly deal;

  /** `asOf` is the day that a year is counted back from, since 1970. */
  constructor(universe: Db, nace: CodeTree, asOf: () => number) {
    this.nace = nace;
    this.asOf = asOf;
    this.people = universe.prepare<[string], PersonRow>(
      `SELECT p.key, p.name, p.title, p.department, p.level, p.since_on, p.earlier, p.phone, p.mail, p.certainty, p.address, p.made_by,
         COALESCE(s.name, p.source) AS source, p.checked_on, p.company_id
       FROM json_each(?) j JOIN person p ON p.id = j.value LEFT JOIN source s ON s.key = p.source ORDER BY j.rowid`,
    );
    this.company = universe.prepare<[number], CompanyRow>(
      `SELECT id, key, name, legal_form, town, region, country, headcount_point, revenue_low, revenue_high, revenue_point,
         revenue_currency, revenue_basis FROM company WHERE id = ?`,
    );
    this.codes = universe
      .prepare<[number], string>(
        "SELECT code FROM company_code WHERE company_id = ? AND scheme = 'nace-2.1' ORDER BY rank",
      )
      .pluck();
    this.technologies = universe.prepare<[number], { key: string; label: string }>(
      `SELECT t.key, t.label FROM company_technology c JOIN technology t ON t.key = c.technology
       WHERE c.company_id = ? ORDER BY c.last_seen DESC, t.key`,
    );
    this.event = universe.prepare<[number], HappeningRow>(
      "SELECT name, kind, date_on FROM event WHERE company_id = ? AND kind IS NOT 'court' AND kind IS NOT 'reply' ORDER BY date_on DESC, id DESC LIMIT 1",
    );
    this.deal = universe.prepare<[number], HappeningRow>(
      `SELECT d.name, d.kind, d.date_on FROM deal_party p JOIN deal d ON d.id = p.deal_id
       WHERE p.company_id = ? AND p.role = 'target' ORDER BY d.date_on DESC, d.id DESC LIMIT 1`,
    );
  }

  /** By key, those that the universe has. */
  of(keys: readonly string[]): Map<string, FactsOfPerson> {
    const found = new Map<string, FactsOfPerson>();
    const companies = new Map<number, FactsOfCompany | null>();
    for (let from = 0; from < keys.length; from += KEYS_A_CALL)
      for (const row of this.rows(keys.slice(from, from + KEYS_A_CALL))) {
        const { company_id, since_on, checked_on, made_by, ...person } = row;
        let company: FactsOfCompany | null = null;
        if (company_id !== null) {
          if (!companies.has(company_id)) companies.set(company_id, this.companyOf(company_id));
          company = companies.get(company_id)!;
        }
        found.set(row.key, {
          ...person,
          since: day(since_on),
          checked: day(checked_on),
          madeBy: made_by,
          company,
        });
      }
    return found;
  }

  /** The same without what is known of their companies beyond the key: address, name and post as they are now. */
  rows(keys: readonly string[]): PersonRow[] {
    const ids = keys.flatMap((key) => idOf(key) ?? []);
    return this.people.all(JSON.stringify(ids));
  }

  private companyOf(id: number): FactsOfCompany | null {
    const row = this.company.get(id);
    if (!row) return null;
    const { key, name, town, region, country } = row;
    const codes = this.codes.all(id);
    const event = happening(this.event.get(id));
    const deal = happening(this.deal.get(id));
    const known = row.revenue_point !== null || row.revenue_low !== null || row.revenue_high !== null;
    return {
      ...{ key, name, town, region, country, codes },
      legalForm: row.legal_form,
      headcount: row.headcount_point,
      revenue: known
        ? {
            low: row.revenue_low,
            high: row.revenue_high,
            point: row.revenue_point,
            currency: row.revenue_currency,
            basis: row.revenue_basis,
          }
        : null,
      industry: codes[0] === undefined ? null : (this.nace.titles[this.nace.nodeOf(codes[0])] ?? null),
      technologies: this.technologies.all(id),
      ...{ event, deal },
      trigger: happeningOf({ event, deal }, isoOf(this.asOf() - YEAR_DAYS)),
    };
  }
}

/** The number in the key of a person, or null. */
function idOf(key: string): number | null {
  const found = /^person-(\d{1,15})$/.exec(key);
  return found ? Number(found[1]) : null;
}

function happening(row: HappeningRow | undefined): Happening | null {
  return row ? { name: row.name, kind: row.kind, date: day(row.date_on) } : null;
}

function day(on: number | null): string | null {
  return on === null ? null : isoOf(on);
}
