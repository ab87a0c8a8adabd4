import { words } from '../companies/making.ts';
import { REGISTRATION_HEADINGS } from '../file-headings.ts';
import type { Field, FileColumn, PartySays, Store } from '../field.ts';

/** What a maker of fields may be told beyond the usual. */
interface More {
  section?: Field['section'];
  openers?: string;
  headings?: string;
  width?: number;
  store?: Store;
  values?: Field['values'];
  dated?: string;
  ordered?: true;
  bars?: readonly number[];
  unit?: string;
  /** False where the field is no column. */
  column?: false;
}

/** Short forms for the fields of one subject below companies. */
export function fieldsOf(subject: string, dated?: string) {
  const make = (kind: Field['kind'], numeric: boolean, store: (id: string) => Store, sortable = true) =>
    function field(id: string, label: string, meaning: string, more: More = {}): Field {
      const openers = kind === 'label' ? [] : words(more.openers ?? label.toLowerCase());
      const age = more.dated ?? (kind === 'date' || kind === 'label' ? undefined : dated);
      return {
        id,
        subject,
        section: more.section ?? 'what',
        kind,
        label,
        meaning,
        store: more.store ?? store(id),
        openers,
        column:
          more.column === false
            ? null
            : {
                heading: label,
                width: more.width ?? (numeric ? 92 : 130),
                ...(numeric ? { numeric } : {}),
                ...(sortable ? {} : { sortable }),
              },
        files: more.headings === undefined ? [] : fileOf(id, label, more.headings),
        ...(more.values ? { values: more.values } : {}),
        ...(more.ordered ? { ordered: true as const } : {}),
        ...(more.bars ? { bars: more.bars } : {}),
        ...(more.unit ? { unit: more.unit } : {}),
        ...(age === undefined || age === id ? {} : { dated: age }),
      };
    };
  const columnOf = (id: string): Store => ({ at: 'column', column: id.replaceAll('-', '_') });
  const date = make('date', false, (id) => ({ at: 'column', column: `${id.replaceAll('-', '_')}_on` }));
  return {
    label: make('label', false, columnOf),
    category: make('category', false, columnOf),
    flag: make('flag', false, columnOf),
    number: make('number', true, columnOf),
    date,
    text: make('text', false, (id) => ({ at: 'text', column: id })),
    place: make('place', false, () => ({ at: 'place' })),
    source: make('category', false, () => ({ at: 'column', column: 'source' }))(
      'source',
      'Source',
      'The source that the record is from.',
      {
        section: 'standing',
      },
    ),
    checked: date('checked', 'Checked', 'The day the record was last checked.', {
      section: 'standing',
      openers: 'checked, last checked',
      headings: 'checked, last checked, verified, updated',
    }),
    parties: make('label', false, () => ({ at: 'parties' })),
  };
}

/** What finds the one company of a record again in another universe, as columns. */
export function companyColumnsOf(subject: string): Field[] {
  const { parties } = fieldsOf(subject);
  const says = (says: PartySays): More => ({ section: 'standing', store: { at: 'parties', says } });
  return [
    parties('company-number', 'Company number', 'The number of its company in the register.', {
      ...says('number'),
      width: 128,
    }),
    parties('company-domain', 'Company domain', 'The domain of its company.', {
      ...says('domain'),
      width: 150,
    }),
    parties('company-country', 'Company country', 'The country of its company.', {
      ...says('country'),
      width: 120,
    }),
  ];
}

/** The companies of a record with roles, and what finds each again in another universe, in one column. */
export function allParties(subject: string): Field {
  return fieldsOf(subject).parties(
    'parties',
    'Parties',
    'All its companies by role, with number, domain and name.',
    {
      section: 'standing',
      store: { at: 'parties', says: 'all' },
      width: 320,
      headings: 'parties',
    },
  );
}

/** Latitude and longitude as columns, for records with a place. */
export function degreesOf(subject: string): Field[] {
  const degrees = (id: string, label: string, column: string): Field => ({
    ...{ id, subject, section: 'where', kind: 'label', label },
    meaning: `${label} of its place, in degrees; of a town where no street is known.`,
    store: { at: 'column', column },
    openers: [],
    column: { heading: label, width: 92, numeric: true },
    files: [],
  });
  return [degrees('latitude', 'Latitude', 'lat'), degrees('longitude', 'Longitude', 'lon')];
}

export const choices = (keys: string): NonNullable<Field['values']> =>
  words(keys).map((key) => ({ key, label: key.replaceAll('-', ' ') }));

function fileOf(id: string, label: string, headings: string): FileColumn[] {
  return [{ id, label, headings: words(headings) }];
}

/** The column of a file that was written here and comes back: which company a row is of, whatever else it says. */
export const COMPANY_KEY_COLUMN: FileColumn = {
  id: 'company-key',
  label: 'Company key',
  headings: words('company key'),
};

/** Columns of a file that say which company a row belongs to, tried in this order. */
export const COMPANY_COLUMNS: readonly FileColumn[] = [
  COMPANY_KEY_COLUMN,
  {
    id: 'company-number',
    label: 'Company: registration number',
    headings: ['company registration', ...REGISTRATION_HEADINGS],
  },
  {
    id: 'company-domain',
    label: 'Company: domain',
    headings: words('company domain, domain, website, web, company web, company website, url, homepage'),
  },
  {
    id: 'company-name',
    label: 'Company: name',
    headings: words(
      'company, company name, firm, firma, employer, organisation, organization, entreprise, name of company, account, account name, unternehmen, firmenname, arbeitgeber, nazev firmy, spolecnost, zamestnavatel, nazov firmy, spolocnost, nazwa firmy, przedsiebiorstwo, pracodawca, societe, raison sociale, azienda, ragione sociale, societa, empresa, razon social, cegnev, ceg, bedrijf, bedrijfsnaam, foretag, virksomhed, bedrift',
    ),
  },
  {
    id: 'company-country',
    label: 'Company: country',
    headings: words(
      'company country, country, land, pays, kraj, zeme, country code, paese, pais, panstwo, krajina, orszag, maa, tara',
    ),
  },
];
