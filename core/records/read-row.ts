import { SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { OFFERS } from '../fields/companies/making.ts';
import { fileColumns } from '../fields/registry.ts';
import { addressReader } from './whole-address.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { CURRENCIES } from '../money/rates.ts';
import type { Reason } from '../tally/columns.ts';
import { fold } from '../text/fold.ts';
import { CellError, oneOf } from '../values/cell.ts';
import { inseeBand } from '../values/coded-bands.ts';
import {
  LISTING_WORDS,
  OWNERSHIP_WORDS,
  SITE_WORDS,
  STATUS_WORDS,
  type Meaning,
} from '../values/category-words.ts';
import { readSchemedCodes, type ReadCode } from '../values/codes.ts';
import { readDate, readYear } from '../values/date.ts';
import { readCurrency, readFigure, readQuantity } from '../values/figures.ts';
import { readMail, readPhone, readPostcode, readRegistration, readWeb } from '../values/identifiers.ts';
import { readCount } from '../values/number.ts';
import { readCountry, readDegrees } from '../values/place.ts';
import { ColumnReader, type CellProblem, type CellWatcher } from './column-reader.ts';
import type { Mapping } from './mapping.ts';
import { remembered, rememberedPlaces } from './remembered.ts';
import { schemeSaid } from './scheme-guess.ts';
import { SITE_STATES } from './record.ts';
import {
  readDepartments,
  readFlag,
  readHistory,
  readMonths,
  readTechnologies,
  readValues,
} from './lists-in-cells.ts';
import type { CompanyRecord, Money, Quantity } from './record.ts';
import { readBasis, readReason, withEnds } from './told-basis.ts';

export interface RowReader {
  /** `left` has the cells that were not understood and count as empty; `problems` what refuses the row; `key` names a company of this universe where the file says which. */
  read(
    cells: readonly string[],
  ): { record: CompanyRecord; left: CellProblem[]; key: string | null } | { problems: CellProblem[] };
}

/** A reader of the rows of one file. It reads the same cells as the same record each time, or says what is wrong with them. */
export function rowReader(
  header: readonly string[],
  mapping: Mapping,
  trees: ReadonlyMap<Scheme, CodeTree>,
  places: Gazetteer,
  asOf: number,
  watcher: CellWatcher | null = null,
): RowReader {
  const labels = new Map(fileColumns('companies').map((column) => [column.id, column.label]));
  const columns = new ColumnReader(header, mapping, labels, watcher);
  const column = columns.column.bind(columns);
  const plain = (id: string) => columns.plain(id);
  const date = (id: string) => {
    const style = columns.style(id);
    return column(
      id,
      remembered((cell) => readDate(cell, style)),
    );
  };
  const coordinate = (id: string, most: number) => column(id, (cell) => readDegrees(cell, most));
  const word = <T extends string>(id: string, meaning: Meaning<T>, rule: string) =>
    column(
      id,
      remembered((cell) => oneOf(meaning(cell), rule)),
    );
  const codes = (id: string) => {
    const { scheme: usual = mapping.scheme, figures } = columns.style(id);
    const inScheme = new Map<Scheme, (cell: string) => readonly ReadCode[]>();
    return column(id, (cell) => {
      const scheme = ownScheme ?? usual;
      let read = inScheme.get(scheme);
      if (!read)
        inScheme.set(
          scheme,
          (read = remembered((text) =>
            readSchemedCodes(text, scheme, trees, scheme === usual ? figures : 0),
          )),
        );
      return read(cell);
    });
  };
  const basis = (id: string) => column(id, remembered(readBasis));
  const headcountFigure = (id: string) => {
    const style = { ...columns.style(id), people: true };
    const { bands } = style;
    return column(
      id,
      remembered((cell) => (bands ? readCodedBand(cell) : readQuantity(cell, style))),
    );
  };
  /** A figure of money with its currency, year and reason, each in a column of its own. */
  const money = (id: 'revenue' | 'profit' | 'assets', belowZero: boolean) => {
    const parts = ['', '-from', '-to', '-currency', '-year', '-basis', '-unknown'];
    if (!columns.hasAny(...parts.map((part) => id + part))) return () => NO_MONEY;
    const figure = (of: string) => {
      const own = columns.style(of);
      const { currency = mapping.currency, unit = mapping.revenueUnit } = own;
      const style = { ...own, currency, unit, belowZero, currencies: CURRENCIES };
      const read = column(of, (cell) => readFigure(cell, style));
      return () => {
        const found = read();
        return found && { ...found, otherwise: currency };
      };
    };
    const [amount, from, to] = [figure(id), figure(`${id}-from`), figure(`${id}-to`)];
    const readOwnCurrency = column(`${id}-currency`, remembered(readCurrency));
    const readValueYear = column(`${id}-year`, remembered(readYear));
    const readBasis = basis(`${id}-basis`);
    const why = column(`${id}-unknown`, readReason);
    const ofHeading = [id, `${id}-from`, `${id}-to`].map((of) => columns.style(of).year).find(Boolean);
    return (): { value: Money | null; why: Reason | null } => {
      const [found, low, high] = [amount(), from(), to()];
      const [year, named, told] = [
        readValueYear() ?? ofHeading ?? mapping.year,
        readOwnCurrency(),
        readBasis(),
      ];
      const quantity = withEnds(found?.quantity ?? null, low?.quantity, high?.quantity, told);
      const written = found ?? low ?? high;
      const currency = written?.currency ?? named ?? written?.otherwise ?? mapping.currency;
      return { value: quantity && { ...quantity, currency, year }, why: why() ?? told?.why ?? null };
    };
  };
  const placeFound = rememberedPlaces(places);
  const place = (...said: Parameters<typeof placeFound>) => {
    const found = placeFound(...said);
    if (found.doubt) columns.leaveUnused(found.doubt.of, found.doubt.rule);
    return found;
  };

  const nameAt = mapping.columns.indexOf('name');
  const read = {
    key: plain('company-key'),
    name: plain('name'),
    legalForm: plain('legal-form'),
    registration: column('registration', (cell) => readRegistration(cell, country)),
    status: word('status', STATUS_WORDS, 'active, dormant or closed'),
    country: column(
      'country',
      remembered((cell) => readCountry(cell, places)),
    ),
    region: plain('region'),
    postcode: column('postcode', (cell) => readPostcode(cell, country)),
    lat: coordinate('latitude', 90),
    lon: coordinate('longitude', 180),
    phone: column('phone', (cell) => readPhone(cell, places.country(country ?? '')?.dialling ?? null)),
    mail: column('mail', readMail),
    web: column('web', readWeb),
    description: plain('description'),
    founded: column('founded', remembered(readYear)),
    scheme: column(
      'main-scheme',
      remembered((cell) => oneOf(schemeSaid(cell), `one of ${Object.values(SCHEMES).join(', ')}`)),
    ),
    mainCode: codes('main-code'),
    otherCodes: codes('other-codes'),
    headcount: headcountFigure('headcount'),
    headcountFrom: headcountFigure('headcount-from'),
    headcountTo: headcountFigure('headcount-to'),
    headcountBasis: basis('headcount-basis'),
    headcountYear: column('headcount-year', remembered(readYear)),
    headcountWhy: column('headcount-unknown', readReason),
    ownership: word('ownership', OWNERSHIP_WORDS, 'independent, subsidiary or top'),
    group: plain('group'),
    listing: word('listing', LISTING_WORDS, 'listed, private or public body'),
    ticker: plain('ticker'),
    certificates: column('certificates', remembered(readValues)),
    dwelling: column('dwelling', readFlag),
    followers: column('followers', readCount),
    siteAnswers: column('site-answers', readFlag),
    siteState: word('site-state', SITE_WORDS, SITE_STATES.join(', ')),
    siteMovedTo: column('site-moved-to', readWeb),
    siteCheckedOn: date('site-checked'),
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
    surveyedOn: date('surveyed'),
    checkedOn: date('checked'),
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
  const readAddress = addressReader(columns, read.postcode, places);
  const headcountOfHeading =
    ['headcount', 'headcount-from', 'headcount-to'].map((of) => columns.style(of).year).find(Boolean) ?? null;
  const readRevenue = money('revenue', false);
  const readProfit = money('profit', true);
  const readAssets = money('assets', false);

  /** Country of the row that is being read, and the scheme of its codes where the row says it. */
  let country: string | null = null;
  let ownScheme: Scheme | null = null;
  const readRecord = (): CompanyRecord => {
    country = read.country() ?? mapping.country;
    const address = readAddress(country);
    country = address.country;
    ownScheme = read.scheme();
    const { postcode } = address;
    const town = place(read.region() ?? address.region, address.town, country, postcode);
    // A postcode that lost its nought is mended as its country writes it, which only the region may tell.
    const isLate = country === null && town.country !== null;
    country = town.country;
    const headcountTold = read.headcountBasis();
    const own = [read.lat(), read.lon()];
    // In the Gulf of Guinea are those of which nothing is known.
    const [lat, lon] = own.every((one) => one === 0) ? [null, null] : own;
    const revenue = readRevenue();
    const profit = readProfit();
    const assets = readAssets();
    const technologies = read.technologies() ?? [];
    const offers = read.offers() ?? [];
    const [siteAnswers, siteState] = [read.siteAnswers(), read.siteState()];
    return {
      name: read.name() ?? '',
      legalForm: read.legalForm(),
      registration: read.registration(),
      status: read.status(),
      country,
      region: town.region,
      town: town.town,
      postcode: isLate && postcode !== null ? readPostcode(postcode, country) : postcode,
      street: address.street,
      lat: lat ?? town.lat,
      lon: lon ?? town.lon,
      phone: read.phone(),
      mail: read.mail(),
      web: read.web(),
      description: read.description(),
      founded: read.founded(),
      codes: codesOf(read.mainCode() ?? [], read.otherCodes() ?? []),
      headcount: withEnds(read.headcount(), read.headcountFrom(), read.headcountTo(), headcountTold),
      headcountYear: read.headcountYear() ?? headcountOfHeading,
      headcountWhy: read.headcountWhy() ?? headcountTold?.why ?? null,
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
      siteAnswers: siteAnswers ?? (siteState && siteState !== 'dead'),
      siteState: siteState ?? (siteAnswers === null ? null : siteAnswers ? 'works' : 'dead'),
      siteMovedTo: read.siteMovedTo(),
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
      return problems.length ? { problems } : { record, left: columns.left, key: read.key() };
    },
  };
}

/** A headcount by a code of the French register. @throws CellError */
function readCodedBand(cell: string): Quantity | null {
  const band = inseeBand(cell);
  if (band === undefined)
    throw new CellError('a code of the classes of staff of the French register, such as 12');
  return band === null ? null : readQuantity(band, { decimal: '.' });
}

const NO_MONEY = { value: null, why: null };

/** The first of the main column is the main code; a column of all codes has it too, and it counts once. Another scheme may have a main one of its own. */
function codesOf(main: readonly ReadCode[], others: readonly ReadCode[]): CompanyRecord['codes'] {
  return [
    ...main.map(({ scheme, code }, i) => ({ scheme, code, main: i === 0 })),
    ...others
      .filter(({ scheme, code }) => !main.some((one) => one.code === code && one.scheme === scheme))
      .map(({ scheme, code, main: told }) => ({ scheme, code, main: told && scheme !== main[0]?.scheme })),
  ];
}
