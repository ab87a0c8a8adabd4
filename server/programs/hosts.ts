import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { hostNamed } from '../tables/handover/programs.ts';
import { isPrivateAddress } from './private-addresses.ts';

/** How a name is looked up; tests put their own in its place. */
export type LookUp = (name: string) => Promise<{ address: string; family: number }[]>;

const systemLookUp: LookUp = (name) => lookup(name, { all: true });

/** The address of a webhook as it may be called. @throws Problem where it is no address, or its host is not among those allowed */
export function checkedUrl(db: Db, text: string): URL {
  const refuse = (message: string, rule: string) =>
    new Problem('wrong-url', message, { field: 'url', value: text, rule });
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    throw refuse(`“${text}” is no address.`, 'an address such as https://hooks.example/companies');
  }
  if (url.protocol !== 'https:' && url.protocol !== 'http:')
    throw refuse(`A webhook cannot go to ${url.protocol}`, 'an address that begins with https:// or http://');
  if (url.username || url.password)
    throw refuse(
      'An address of a webhook holds no name and password; the signature says who sends.',
      'an address without name and password',
    );
  if (!hostNamed(db, url.hostname))
    throw refuse(
      `${url.hostname} is not among the hosts that webhooks may go to.`,
      'a host that was allowed under Exports, Other programs',
    );
  return url;
}

/** The one address that a request to a webhook goes to, whatever the name means a moment later. @throws Error where it is private and not allowed to be */
export async function resolved(
  db: Db,
  url: URL,
  lookUp: LookUp = systemLookUp,
): Promise<{ address: string; family: number }> {
  const allowed = hostNamed(db, url.hostname);
  if (!allowed) throw new Error(`${url.hostname} is no longer among the hosts that webhooks may go to.`);
  return resolvedHost(url.hostname, allowed.private, lookUp);
}

/** The address of a host. @throws Error where it is private and may not be */
export async function resolvedHost(
  hostname: string,
  mayBePrivate: boolean,
  lookUp: LookUp = systemLookUp,
): Promise<{ address: string; family: number }> {
  const name = hostname.replace(/^\[|\]$/g, '');
  const found = isIP(name) ? [{ address: name, family: isIP(name) }] : await lookUp(name);
  if (found.length === 0) throw new Error(`${name} has no address.`);
  const inside = found.find(({ address }) => isPrivateAddress(address));
  if (inside && !mayBePrivate)
    throw new Error(
      `${name} is at ${inside.address}, in a private network or on this machine. Allow it as private to go there.`,
    );
  return found[0]!;
}
