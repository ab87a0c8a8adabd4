import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';
import { parse } from 'tldts';
import { plainRegistration } from '../values/identifiers.ts';

/** Numbers, domains and phones as they are compared between two records. */

/**
 * What stands around the registration number in the VAT number of countries whose VAT number holds it: letters before, and
 * figures behind it. From the European Commission's description of VAT numbers and the national registers'.
 */
const VAT: Readonly<Record<string, RegExp>> = {
  BE: /^BE(\d{9,10})$/,
  CH: /^CHE(\d{9})(?:MWST|TVA|IVA|HR)?$/,
  CZ: /^CZ(\d{8})$/,
  DK: /^DK(\d{8})$/,
  FI: /^FI(\d{8})$/,
  FR: /^FR[A-Z0-9]{2}(\d{9})$/,
  IT: /^IT(\d{11})$/,
  NO: /^(?:NO)?(\d{9})(?:MVA)$/,
  RO: /^RO(\d{2,10})$/,
  SE: /^SE(\d{10})01$/,
};

/** A registration number as it is compared: without spaces, the country's letters and what a VAT number adds; null where nothing is left. */
export function comparedNumber(number: string | null, country: string | null): string | null {
  if (number === null) return null;
  const plain = number.toUpperCase().replace(/[^A-Z0-9]/g, '');
  const forms = country && VAT[country] ? [[country, VAT[country]] as const] : Object.entries(VAT);
  for (const [of, form] of forms) {
    const inside = form.exec(plain)?.[1];
    if (inside) return plainRegistration(inside, of);
  }
  const own = plainRegistration(number, country);
  // Of a number alone nobody can say which company it is, where it has hardly any figures.
  return own.length >= 4 ? own : null;
}

/**
 * The domain that somebody registered, by the public suffix list: "https://shop.foo.co.uk/x" → "foo.co.uk". Null where there is
 * none, and for domains where anybody has a mail box.
 */
export function registeredDomain(text: string | null, isFree: (domain: string) => boolean): string | null {
  if (text === null) return null;
  const { domain } = parse(text.trim().toLowerCase().split('@').at(-1)!, { allowPrivateDomains: true });
  return domain === null || isFree(domain) ? null : domain;
}

/** The part of a domain before its public suffix: "foo" of "foo.co.uk". */
export const domainLabel = (domain: string): string => parse(domain).domainWithoutSuffix ?? domain;

/** A phone number in full (ITU-T E.164), such as "+420000123456"; as figures where its country is not known. Null where it is none. */
export function fullPhone(text: string | null, country: string | null): string | null {
  if (text === null) return null;
  const digits = text.replace(/[^\d+]/g, '');
  if (/^\+\d{7,15}$/.test(digits)) return digits.replace(/^(\+44|\+49|\+43)0/, '$1');
  const parsed = parsePhoneNumberFromString(text, (country ?? undefined) as CountryCode | undefined);
  if (parsed) return parsed.number;
  const figures = digits.replace(/^00/, '').replace(/\D/g, '');
  return figures.length >= 6 ? figures : null;
}
