import { SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { OFFERS } from '../fields/companies/making.ts';
import { fileColumns } from '../fields/registry.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { CURRENCIES } from '../money/rates.ts';
import { REASONS, type Reason } from '../tally/columns.ts';
import { fold } from '../text/fold.ts';
import { CellError, readCount, readDate, readNumber, readQuantity, readYear } from './cells.ts';
import { ColumnReader, type CellProblem } from './column-reader.ts';
import type { Mapping } from './mapping.ts';
import {
  readDepartments,
  readFlag,
  readHistory,
  readMonths,
  readTechnologies,
  readValues,
} from './lists-in-cells.ts';
import type { CompanyRecord, Money } from './record.ts';

export interface RowReader {
  read(cells: readonly string[]): { record: CompanyRecord } | { problems: CellProblem[] };
}

const STATUS_WORDS: Record<string, CompanyRecord['status']> = {
  active: 'active',
  aktiv: 'active',
  aktivni: 'active',
  aktywna: 'active',
  yes: 'active',
  dormant: 'dormant',
  inactive: 'dormant',
  ruhend: 'dormant',
  closed: 'closed',
  dissolved: 'closed',
  liquidated: 'closed',
  erloschen: 'closed',
  zanikla: 'closed',
};

const OWNERSHIP_WORDS: Record<string, CompanyRecord['ownership']> = {
  independent: 'independent',
  subsidiary: 'subsidiary',
  top: 'top',
  'top company': 'top',
  'top of a group': 'top',
};

const LISTING_WORDS: Record<string, CompanyRecord['listing']> = {
  listed: 'listed',
  private: 'private',
  'public body': 'public-body',
  'public-body': 'public-body',
};

/** A reader of the rows of one file. It reads the same cells as the same record each time, or says what is wrong with them. */
export function rowReader(
  header: readonly string[],
  mapping: Mapping,
  trees: ReadonlyMap<Scheme, CodeTree>,
  places: Gazetteer,
  asOf: number,
): RowReader {
  const labels = new Map(fileColumns('companies').map((column) => [column.id, column.label]));
  const columns = new ColumnReader(header, mapping.columns, labels);
  const column = columns.column.bind(columns);
  const tree = trees.get(mapping.scheme)!;

  const plain = (id: string) => column(id, (cell) => cell);
  const coordinate = (id: string, most: number) =>
    column(id, (cell) => {
      const value = readNumber(
        cell,
        cell.includes('.') && !cell.includes(',') ? { ...mapping, decimal: '.' } : mapping,
      );
      if (Math.abs(value) > most) throw new CellError(`degrees from -${most} to ${most}`);
      return value;
    });
  const oneOfColumn = <T>(id: string, meanings: Record<string, T>, rule: string) =>
    column(
      id,
      remembered((cell) => oneOf(meanings[fold(cell)], rule)),
    );
  /** A figure of money with its currency, year and reason, each in a column of its own. */
  const money = (id: 'revenue' | 'profit' | 'assets', belowZero: boolean) => {
    let currency = mapping.currency;
    const amount = column(id, (cell) =>
      readQuantity(
        /[a-z]{3}/i.test(cell) ? cell.replace(new RegExp(`\\s*${currency}\\s*`, 'i'), '') : cell,
        mapping,
        mapping.revenueUnit,
        belowZero,
      ),
    );
    const readCurrency = column(
      `${id}-currency`,
      remembered((cell) => {
        if (!CURRENCIES.includes(cell.toUpperCase()))
          throw new CellError(`a currency code with rates: ${CURRENCIES.join(', ')}`);
        return cell.toUpperCase();
      }),
    );
    const readValueYear = column(`${id}-year`, readYear);
    const why = column(`${id}-unknown`, reason);
    return (): { value: Money | null; why: Reason | null } => {
      const year = readValueYear() ?? mapping.year;
      currency = readCurrency() ?? mapping.currency;
      const quantity = amount();
      return { value: quantity && { ...quantity, currency, year }, why: why() };
    };
  };
  const codes = remembered((cell) => readCodes(cell, tree, mapping.scheme));
  const placed = new Map<string, ReturnType<typeof placeOf>>();
  const place = (region: string | null, town: string | null, country: string | null) => {
    const key = `${region}\u001f${town}\u001f${country}`;
    let found = placed.get(key);
    if (!found) {
      if (placed.size >= MOST_REMEMBERED) placed.clear();
      placed.set(key, (found = placeOf(region, town, country, places)));
    }
    return found;
  };

  const nameAt = mapping.columns.indexOf('name');
  const read = {
    name: plain('name'),
    legalForm: plain('legal-form'),
    registration: plain('registration'),
    status: column(
      'status',
      remembered((cell) => oneOf(STATUS_WORDS[fold(cell)], 'active, dormant or closed')),
    ),
    country: column(
      'country',
      remembered((cell) => {
        const found = places.countryNamed(cell);
        if (!found) throw new CellError('a country, as a name or an ISO code of two letters');
        return found.code;
      }),
    ),
    region: plain('region'),
    town: plain('town'),
    postcode: plain('postcode'),
    street: plain('street'),
    lat: coordinate('latitude', 90),
    lon: coordinate('longitude', 180),
    phone: plain('phone'),
    mail: plain('mail'),
    web: column('web', (cell) =>
      cell.includes('/') ? cell.replace(/^https?:\/\//i, '').replace(/\/$/, '') : cell,
    ),
    description: plain('description'),
    founded: column('founded', readYear),
    mainCode: column('main-code', codes),
    otherCodes: column('other-codes', codes),
    headcount: column('headcount', (cell) => readQuantity(cell, mapping)),
    headcountYear: column('headcount-year', readYear),
    headcountWhy: column('headcount-unknown', reason),
    ownership: oneOfColumn('ownership', OWNERSHIP_WORDS, 'independent, subsidiary or top'),
    group: plain('group'),
    listing: oneOfColumn('listing', LISTING_WORDS, 'listed, private or public body'),
    ticker: plain('ticker'),
    certificates: column('certificates', remembered(readValues)),
    dwelling: column('dwelling', readFlag),
    followers: column('followers', readCount),
    siteAnswers: column('site-answers', readFlag),
    siteCheckedOn: column('site-checked', (cell) => readDate(cell, mapping)),
    headcountHistory: column('headcount-history', readHistory),
    revenueHistory: column('revenue-history', readHistory),
    revenueMonths: column('revenue-months', readMonths),
    departments: column('departments', readDepartments),
    technologies: column('technologies', readTechnologies),
    offers: column(
      'offers',
      remembered((cell) =>
        readValues(cell).map((offer) =>
          oneOf(
            OFFERS.find((one) => one === fold(offer).replaceAll(' ', '-')),
            `none, or some of ${OFFERS.join(', ')}`,
          ),
        ),
      ),
    ),
    surveyedOn: column('surveyed', (cell) => readDate(cell, mapping)),
    checkedOn: column('checked', (cell) => readDate(cell, mapping)),
    checkedHow: column(
      'checked-how',
      remembered((cell) =>
        oneOf(
          (['phone', 'register', 'web'] as const).find((how) => how === fold(cell)),
          'phone, register or web',
        ),
      ),
    ),
  };
  const readRevenue = money('revenue', false);
  const readProfit = money('profit', true);
  const readAssets = money('assets', false);

  const readRecord = (): CompanyRecord => {
    const country = read.country() ?? mapping.country;
    const town = place(read.region(), read.town(), country);
    const [lat, lon] = [read.lat(), read.lon()];
    const revenue = readRevenue();
    const profit = readProfit();
    const assets = readAssets();
    const technologies = read.technologies() ?? [];
    const offers = read.offers() ?? [];
    return {
      name: read.name() ?? '',
      legalForm: read.legalForm(),
      registration: read.registration(),
      status: read.status(),
      country,
      region: town.region,
      town: town.town,
      postcode: read.postcode(),
      street: read.street(),
      lat: lat ?? town.lat,
      lon: lon ?? town.lon,
      phone: read.phone(),
      mail: read.mail(),
      web: read.web(),
      description: read.description(),
      founded: read.founded(),
      codes: [
        ...(read.mainCode() ?? []).map((code, i) => ({ scheme: mapping.scheme, code, main: i === 0 })),
        ...(read.otherCodes() ?? []).map((code) => ({ scheme: mapping.scheme, code, main: false })),
      ],
      headcount: read.headcount(),
      headcountYear: read.headcountYear(),
      headcountWhy: read.headcountWhy(),
      revenue: revenue.value,
      revenueWhy: revenue.why,
      profit: profit.value,
      profitWhy: profit.why,
      assets: assets.value,
      assetsWhy: assets.why,
      headcountHistory: read.headcountHistory() ?? [],
      revenueHistory: read.revenueHistory() ?? [],
      revenueMonths: read.revenueMonths(),
      departments: read.departments(),
      ownership: read.ownership(),
      group: read.group(),
      listing: read.listing(),
      ticker: read.ticker(),
      certificates: read.certificates(),
      dwelling: read.dwelling(),
      followers: read.followers(),
      siteAnswers: read.siteAnswers(),
      siteCheckedOn: read.siteCheckedOn(),
      technologies,
      offers,
      surveyedOn: read.surveyedOn() ?? (technologies.length || offers.length ? asOf : null),
      checkedOn: read.checkedOn(),
      checkedHow: read.checkedHow(),
    };
  };

  return {
    read(cells) {
      if (cells.length > header.length && cells.slice(header.length).some((cell) => cell !== ''))
        return {
          problems: [
            {
              column: 'row',
              value: `${cells.length} cells`,
              rule: `at most ${header.length} cells, as the header has`,
            },
          ],
        };
      columns.begin(cells);
      const record = readRecord();
      const { problems } = columns;
      if (record.name === '' && !problems.some((one) => one.column === header[nameAt]))
        problems.push({
          column: header[nameAt] ?? 'Company',
          value: '',
          rule: 'a name; a row without one cannot be loaded',
        });
      return problems.length ? { problems } : { record };
    },
  };
}

/** Different cells of a column whose reading is kept. */
const MOST_REMEMBERED = 65_536;

/** The same reader, which reads equal cells once: for columns that repeat a few values. */
function remembered<T>(reader: (cell: string) => T): (cell: string) => T {
  const known = new Map<string, T>();
  return (cell) => {
    let value = known.get(cell);
    if (value === undefined) {
      value = reader(cell);
      if (known.size >= MOST_REMEMBERED) known.clear();
      known.set(cell, value);
    }
    return value;
  };
}

function placeOf(region: string | null, town: string | null, country: string | null, places: Gazetteer) {
  const regionKey = region === null ? null : (places.regionNamed(region, country ?? undefined)?.key ?? null);
  const found =
    town === null
      ? undefined
      : (places.townNamed(town, { country: country ?? undefined, region: regionKey ?? undefined }) ??
        undefined);
  if (found && country)
    return { region: found.region || regionKey, town: found.name, lat: found.lat, lon: found.lon };
  return { region: regionKey, town, lat: null, lon: null };
}

function readCodes(cell: string, tree: CodeTree, scheme: Scheme): string[] {
  return cell
    .split(/[,;|\s]+/)
    .filter(Boolean)
    .map((written) => {
      const node = tree.nodeOfLoose(written);
      if (node < 0) throw new CellError(`a code of ${SCHEMES[scheme]}; “${written}” is none`);
      return tree.codes[node]!;
    });
}

function oneOf<T>(value: T | null | undefined, rule: string): T {
  if (value === null || value === undefined) throw new CellError(rule);
  return value;
}

function reason(cell: string): Reason {
  return oneOf(
    REASONS.find((one) => one === cell.toLowerCase()),
    `one of ${REASONS.join(', ')}`,
  );
}
