import { learnAddresses, makeAddress, type KnownAddress } from '../../core/people/address-model.ts';
import { isGeneral } from '../../core/people/local-parts.ts';
import { namePartsOf } from '../../core/people/name-parts.ts';
import {
  isNoEvidence,
  ofMade,
  ofRecorded,
  type AddressOutcome,
  type AddressStanding,
} from '../../core/people/standing.ts';
import { domainOf } from '../../core/text/domain.ts';
import type { Db } from '../db/open.ts';
import { isFreeMail } from '../free-mail.ts';

interface PersonRow {
  id: number;
  name: string;
  company_id: number | null;
  recorded_mail: string | null;
  stated_certainty: number | null;
  stated_standing: AddressStanding | null;
  stated_made_by: string | null;
  mail: string | null;
  certainty: number | null;
  address: string | null;
  made_by: string | null;
  country: string | null;
  headcount: number | null;
  web: string | null;
}

/**
 * Gives everybody in the universe an address: the recorded one with its standing, else the likeliest by the pattern of the
 * company's mail domain, or of like domains. Runs inside the transaction of a load. Returns how many people it changed.
 */
export function makeAddresses(db: Db): number {
  const people = db
    .prepare<[], PersonRow>(
      `SELECT p.id, p.name, p.company_id, p.recorded_mail, p.stated_certainty, p.stated_standing, p.stated_made_by, p.mail, p.certainty, p.address, p.made_by,
         c.country, c.headcount_point AS headcount, c.web
       FROM person p LEFT JOIN company c ON c.id = p.company_id ORDER BY p.id`,
    )
    .all();
  const outcomes = new Map(
    db.prepare<[], [string, AddressOutcome]>('SELECT mail, outcome FROM mail_outcome').raw().all(),
  );
  const model = learnAddresses(knownOf(people, outcomes));
  const domains = mailDomains(people, outcomes);
  const taken = takenBy(people, outcomes);
  const set = db.prepare('UPDATE person SET mail = ?, certainty = ?, address = ?, made_by = ? WHERE id = ?');
  let changed = 0;
  for (const person of people) {
    const found = addressOf(person);
    if (
      found.mail === person.mail &&
      found.certainty === person.certainty &&
      found.address === person.address &&
      found.made_by === person.made_by
    )
      continue;
    set.run(found.mail, found.certainty, found.address, found.made_by, person.id);
    changed++;
  }
  return changed;

  function addressOf(person: PersonRow): Pick<PersonRow, 'mail' | 'certainty' | 'address' | 'made_by'> {
    const mail = person.recorded_mail;
    if (mail !== null)
      return {
        mail,
        ...ofRecorded(
          mail,
          person.stated_certainty,
          outcomes.get(mail.toLowerCase()),
          person.stated_standing,
        ),
        made_by: person.stated_made_by,
      };
    const domain =
      (person.company_id === null ? undefined : domains.get(person.company_id)) ?? domainOf(person.web);
    const name = namePartsOf(person.name);
    const made =
      domain !== null && name !== null
        ? makeAddress(model, { ...person, name, domain, web: domainOf(person.web) }, taken.get(domain))
        : null;
    if (made) take(`${made.local}@${domain}`, taken);
    if (!made) return { mail: null, certainty: null, address: null, made_by: null };
    const whole = `${made.local}@${domain}`;
    const support = made.known === 0 ? 'none known there' : `${made.follow} of ${made.known} known there`;
    return {
      mail: whole,
      ...ofMade(made.certainty, outcomes.get(whole)),
      made_by: `${made.pattern}, ${support}`,
    };
  }
}

/** The recorded address of somebody, unless its source says that it was made itself. */
function evidenceOf({ recorded_mail, stated_standing }: PersonRow): string | null {
  return isNoEvidence(stated_standing) ? null : recorded_mail;
}

/** Addresses that teach patterns: those of persons, those refuted left out. */
function knownOf(
  people: readonly PersonRow[],
  outcomes: ReadonlyMap<string, AddressOutcome>,
): KnownAddress[] {
  return people.flatMap((person) => {
    const { name, mail, country, headcount, web } = person;
    // One that was made and confirmed is known from then on.
    const known = evidenceOf(person) ?? (mail !== null && outcomes.get(mail) === 'confirmed' ? mail : null);
    const parts = namePartsOf(name);
    if (known === null || parts === null || isGeneral(known)) return [];
    const lower = known.toLowerCase();
    const at = lower.lastIndexOf('@');
    if (outcomes.get(lower) === 'refuted' || isFreeMail(lower.slice(at + 1))) return [];
    return [
      {
        name: parts,
        local: lower.slice(0, at),
        domain: lower.slice(at + 1),
        country,
        headcount,
        web: domainOf(web),
      },
    ];
  });
}

/** The mail domain of each company: the one that most of its known addresses have. */
function mailDomains(
  people: readonly PersonRow[],
  outcomes: ReadonlyMap<string, AddressOutcome>,
): Map<number, string> {
  const counts = new Map<number, Map<string, number>>();
  for (const person of people) {
    const { company_id } = person;
    const known = evidenceOf(person);
    if (company_id === null || known === null) continue;
    if (outcomes.get(known.toLowerCase()) === 'refuted') continue;
    const domain = domainOf(known)!;
    if (isFreeMail(domain)) continue;
    const own = counts.get(company_id) ?? new Map<string, number>();
    counts.set(company_id, own);
    own.set(domain, (own.get(domain) ?? 0) + 1);
  }
  return new Map(
    [...counts].map(([company, own]) => [company, [...own].reduce((a, b) => (b[1] > a[1] ? b : a))[0]]),
  );
}

/** By domain what stands before the @ of addresses that are somebody's already, or that nobody has. */
function takenBy(
  people: readonly PersonRow[],
  outcomes: ReadonlyMap<string, AddressOutcome>,
): Map<string, Set<string>> {
  const taken = new Map<string, Set<string>>();
  for (const { recorded_mail } of people)
    if (recorded_mail !== null) take(recorded_mail.toLowerCase(), taken);
  for (const [mail, outcome] of outcomes) if (outcome === 'refuted') take(mail, taken);
  return taken;
}

function take(mail: string, taken: Map<string, Set<string>>): void {
  const at = mail.lastIndexOf('@');
  const domain = mail.slice(at + 1);
  const own = taken.get(domain) ?? new Set<string>();
  taken.set(domain, own);
  own.add(mail.slice(0, at));
}
