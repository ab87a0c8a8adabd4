/** File columns of which one is enough to look for a company by. */
export const KNOWN_BY: readonly string[] = ['name', 'registration', 'web', 'mail', 'phone', 'company-key'];

/** File columns that tell which company a row is of; the others of a file are carried along with it. */
export const TELLING: ReadonlySet<string> = new Set([
  'name',
  'legal-form',
  'registration',
  'country',
  'region',
  'town',
  'postcode',
  'street',
  'street-number',
  'phone',
  'mail',
  'web',
  'headcount',
  'company-key',
]);
