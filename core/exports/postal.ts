import { ADDRESS_LINES } from './postal-parts.ts';
import addresses from '@fragaria/address-formatter';

/** A postal address in parts, as the universe has them: the number of the house stands in the street. */
export interface PostalAddress {
  /** Who it is for: a person, where there is one. */
  person: string | null;
  organisation: string | null;
  street: string | null;
  postcode: string | null;
  town: string | null;
  /** ISO 3166-1 alpha-2, and the name in English. */
  country: string | null;
  countryName: string | null;
}

/** Whether a letter would arrive: a town, and a street or a postcode. */
export function isPostal({
  street,
  postcode,
  town,
}: Omit<PostalAddress, 'person' | 'organisation'>): boolean {
  return town !== null && (street !== null || postcode !== null);
}

/**
 * An address line by line as its country writes it, by the address formats that OpenCage keeps for OpenStreetMap. The country
 * stands last, in capitals (Universal Postal Union, S42), but for letters within `from`.
 */
export function postalLines(address: PostalAddress, from: string | null = null): string[] {
  const { person, organisation, street, postcode, town, country, countryName } = address;
  const lines: string[] = addresses.format(
    {
      ...(street === null ? {} : { road: street }),
      ...(postcode === null ? {} : { postcode }),
      ...(town === null ? {} : { city: town }),
      ...(country === null ? {} : { countryCode: country }),
    },
    { output: 'array', appendCountry: false },
  );
  const abroad = countryName !== null && country !== from ? [countryName.toUpperCase()] : [];
  const named = [organisation, person].filter((line): line is string => line !== null && line !== '');
  return [...named, ...lines.filter((line) => line.trim() !== ''), ...abroad].slice(0, ADDRESS_LINES);
}
