import { domainOf } from '../text/domain.ts';
import { CellError } from '../values/cell.ts';
import type { CompanyReference, Party } from './related.ts';

/**
 * The companies of a deal or brand in one cell, each with its role and all that finds it again:
 *
 *     target: CZ 01234567, alder.example (Alder Works s.r.o.); investor: (Somebody Elsewhere)
 */

/** One company in a role, as the cell has it. */
export function partyWords(role: string, { number, domain, name, country }: CompanyReference): string {
  const plain = (text: string) => text.replaceAll(';', ',');
  const numbered = [country, number && plain(number)].filter(Boolean).join(' ');
  const found = [numbered, domain].filter(Boolean).join(', ');
  return `${role}: ${[found, name && `(${plain(name)})`].filter(Boolean).join(' ')}`;
}

/** The companies of a cell, in the roles that there are. @throws CellError */
export function readParties(cell: string, roles: ReadonlySet<string>): Party[] {
  return cell
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)
    .map((one) => readParty(one, roles));
}

function readParty(text: string, roles: ReadonlySet<string>): Party {
  const colon = text.indexOf(':');
  const role = text.slice(0, colon).trim();
  if (colon < 0 || !roles.has(role))
    throw new CellError(
      `a role and what its company is found by, such as ${[...roles][0]}: CZ 01234567 (Name)`,
    );
  const rest = text.slice(colon + 1).trim();
  const bracket = rest.endsWith(')') ? rest.indexOf('(') : -1;
  const reference: CompanyReference = {
    number: null,
    domain: null,
    name: bracket < 0 ? null : rest.slice(bracket + 1, -1),
    country: null,
  };
  const found = bracket < 0 ? rest : rest.slice(0, bracket);
  for (const part of found.split(',').map((one) => one.trim())) {
    if (part === '') continue;
    const domain = domainOf(part);
    const numbered = /^([A-Z]{2})(?: (.+))?$/.exec(part);
    if (numbered) {
      reference.country = numbered[1]!;
      reference.number = numbered[2] ?? null;
    } else if (domain) reference.domain = domain;
    else reference.number = part;
  }
  return { role, reference };
}
