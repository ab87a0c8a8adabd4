import type { Field } from '../fields/field.ts';
import { BRAND_PARTIES } from '../fields/brands.ts';
import { PARTY_COLUMNS } from '../fields/deals.ts';
import { fieldOf, fileColumns } from '../fields/registry.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { CURRENCIES } from '../money/rates.ts';
import { yearOf } from '../dates.ts';
import { registeredDomain } from '../match/identifiers.ts';
import { domainOf } from '../text/domain.ts';
import { turnedName } from '../people/name-parts.ts';
import type { AddressStanding } from '../people/standing.ts';
import { readTitle, type TitleRead } from '../people/titles.ts';
import { CellError } from '../values/cell.ts';
import { plainWord, relatedValue } from '../values/category-words.ts';
import { readDate, readYear } from '../values/date.ts';
import { readCurrency, readFigure, readQuantity } from '../values/figures.ts';
import { readMail, readPhone } from '../values/identifiers.ts';
import { readNumber } from '../values/number.ts';
import { countryOfTown, placeOf, readCountry, readDegrees } from '../values/place.ts';
import { ColumnReader, type CellProblem, type CellWatcher } from './column-reader.ts';
import { readFlag, readShares, readValues } from './lists-in-cells.ts';
import type { Mapping } from './mapping.ts';
import { readParties } from './party-words.ts';
import { readBasis, withEnds } from './told-basis.ts';
import type { CompanyReference, Party, RelatedRecord } from './related.ts';

const NOTHING_TOLD: TitleRead = { department: null, level: null };

/** The subjects whose records can be read from a file. */
export const READ_SUBJECTS = ['sites', 'people', 'events', 'deals', 'brands'] as const;
export type ReadSubject = (typeof READ_SUBJECTS)[number];

export interface RelatedReader {
  /** `left` has the cells that were not understood and count as empty; `problems` what refuses the row. */
  read(
    cells: readonly string[],
  ): { related: RelatedRecord; left: CellProblem[] } | { problems: CellProblem[] };
}

/** Of subjects with companies in roles, which of them a row must name one. */
const PARTIES_WANTED: Readonly<Record<string, string>> = {
  deals: 'a target, buyer, investor or adviser',
  brands: 'an owner or a reseller',
};

/**
 * A reader of the rows of a file of sites, people, events, deals or brands. A row that names no company, or that has a cell that cannot
 * be read, is refused; of people without a company the domain of their mail address says which it is.
 * @param isFree says of a domain that anybody has mail there, which says nothing of a company
 */
export function relatedReader(
  subject: ReadSubject,
  header: readonly string[],
  mapping: Mapping,
  places: Gazetteer,
  watcher: CellWatcher | null = null,
  isFree: (domain: string) => boolean = () => true,
): RelatedReader {
  const labels = new Map(fileColumns(subject).map((column) => [column.id, column.label]));
  const columns = new ColumnReader(header, mapping, labels, watcher);
  const country = columns.column('company-country', (cell) => readCountry(cell, places));
  const company = {
    key: columns.plain('company-key'),
    number: columns.plain('company-number'),
    domain: columns.column('company-domain', (cell) => {
      const domain = domainOf(cell);
      if (!domain) throw new CellError('a domain or web address such as foo.example');
      return domain;
    }),
    name: columns.plain('company-name'),
  };
  const reference = (): CompanyReference => ({
    ...keyed(company.key()),
    number: company.number(),
    domain: company.domain(),
    name: company.name(),
    country: country() ?? mapping.country,
  });
  const date = (id: string) => {
    const style = columns.style(id);
    return columns.column(id, (cell) => readDate(cell, style));
  };
  const count = (id: string) => {
    const style = { ...columns.style(id), people: true };
    return columns.column(id, (cell) => {
      const { point } = readQuantity(cell, style);
      if (point === null || !Number.isInteger(point)) throw new CellError('a whole number');
      return point;
    });
  };
  const choice = (id: string) => {
    const field = fieldOf(subject, id)!;
    return columns.column(id, (cell) => choiceOf(field, cell));
  };
  const make = { sites, people, events, deals, brands }[subject];
  const read = make();
  return {
    read(cells) {
      columns.begin(cells);
      const related = read();
      const { problems } = columns;
      if ('company' in related && !named(related.company))
        problems.push({
          column: 'the row',
          value: '',
          rule: 'a registration number, domain or name of its company',
        });
      if ('parties' in related && related.parties.length === 0)
        problems.push({ column: 'the row', value: '', rule: PARTIES_WANTED[subject]! });
      if (related.record.name === '')
        problems.push({ column: labels.get('name')!, value: '', rule: 'a name' });
      return problems.length ? { problems } : { related, left: columns.left };
    },
  };

  function sites(): () => RelatedRecord {
    const name = columns.plain('name');
    const kind = choice('kind');
    const head = columns.column('head', readFlag);
    const own = columns.column('country', (cell) => readCountry(cell, places));
    const region = columns.plain('region');
    const [town, street, postcode, phone] = ['town', 'street', 'postcode', 'phone'].map((id) =>
      columns.plain(id),
    );
    const degrees = (id: string, most: number) => columns.column(id, (cell) => readDegrees(cell, most));
    const [lat, lon] = [degrees('latitude', 90), degrees('longitude', 180)];
    const headcount = count('headcount');
    const checked = date('checked');
    return () => {
      const of = reference();
      const inCountry = own() ?? of.country;
      const written = town!();
      const code = postcode!();
      const found = placeOf(region(), written, inCountry ?? countryOfTown(written, places), places, code);
      if (found.doubt) columns.leaveUnused(found.doubt.of, found.doubt.rule);
      return {
        subject: 'sites',
        company: of,
        record: {
          name: name(),
          kind: kind(),
          head: head(),
          country: found.country,
          region: found.region,
          town: found.town,
          postcode: code,
          street: street!(),
          lat: lat() ?? found.lat,
          lon: lon() ?? found.lon,
          headcount: headcount(),
          phone: phone!(),
          checkedOn: checked(),
        },
      };
    };
  }

  function people(): () => RelatedRecord {
    const [name, first, last, title, earlier] = ['name', 'first-name', 'last-name', 'title', 'earlier'].map(
      (id) => columns.plain(id),
    );
    const mail = columns.column('mail', readMail);
    const phone = columns.column('phone', (cell) => readPhone(cell, null));
    const [department, level] = [choice('department'), choice('level')];
    const certainty = columns.column('certainty', (cell) => {
      const value = readNumber(
        cell.endsWith('%') ? cell.slice(0, -1).trimEnd() : cell,
        columns.style('certainty'),
      );
      if (value < 0 || value > 100) throw new CellError('a certainty from 0 to 100 %');
      return Math.round(value);
    });
    const [standing, madeBy] = [choice('address'), columns.plain('made-by')];
    const [since, checked] = [date('since'), date('checked')];
    return () => {
      const told = reference();
      const address = mail();
      const of = named(told) ? told : { ...told, domain: registeredDomain(address, isFree) };
      const full = fullName(name!(), first!(), last!());
      const post = title!();
      const ofTitle = post === null ? NOTHING_TOLD : readTitle(post);
      return {
        subject: 'people',
        company: of,
        record: {
          name: full,
          title: post,
          department: department() ?? ofTitle.department,
          level: level() ?? ofTitle.level,
          sinceOn: since(),
          mail: address,
          certainty: certainty(),
          address: standing() as AddressStanding | null,
          madeBy: madeBy(),
          phone: phone(),
          earlier: earlier!(),
          checkedOn: checked(),
        },
      };
    };
  }

  function events(): () => RelatedRecord {
    const name = columns.plain('name');
    const kind = choice('kind');
    const on = date('date');
    return () => ({
      subject: 'events',
      company: reference(),
      record: { name: name() ?? '', kind: kind(), date: on() },
    });
  }

  function deals(): () => RelatedRecord {
    const name = columns.plain('name');
    const kind = choice('kind');
    const on = date('date');
    const { currency: ofAmounts = mapping.currency } = columns.style('amount');
    const figure = (id: string) => {
      const { unit = mapping.revenueUnit, ...style } = columns.style(id);
      return columns.column(id, (cell) =>
        readFigure(cell, { ...style, unit, currency: ofAmounts, currencies: CURRENCIES }),
      );
    };
    const [amount, from, to] = [figure('amount'), figure('amount-from'), figure('amount-to')];
    const currency = columns.column('amount-currency', readCurrency);
    const [year, told] = [columns.column('amount-year', readYear), columns.column('amount-basis', readBasis)];
    const bidders = count('bidders');
    const parties = partiesOf(PARTY_COLUMNS);
    return () => {
      const day = on();
      const written = amount();
      const named = currency();
      const ownYear = year();
      const [low, high] = [from(), to()];
      const quantity = withEnds(written?.quantity ?? null, low?.quantity, high?.quantity, told());
      const found = parties();
      const target = found.find(({ role }) => role === 'target') ?? found[0];
      return {
        subject: 'deals',
        parties: found,
        record: {
          name:
            name() ??
            (target ? (target.reference.name ?? target.reference.domain ?? target.reference.number!) : ''),
          kind: kind(),
          date: day,
          amount: quantity && {
            ...quantity,
            currency: (written ?? low ?? high)?.currency ?? named ?? ofAmounts,
            year: ownYear ?? (day === null ? mapping.year : yearOf(day)),
          },
          bidders: bidders(),
        },
      };
    };
  }

  function brands(): () => RelatedRecord {
    const name = columns.plain('name');
    const category = choice('category');
    const products = count('products');
    const share = columns.column('share', percent('share'));
    const change = columns.column('products-change', (cell) => {
      const value = readNumber(cell, columns.style('products-change'));
      if (!Number.isInteger(value)) throw new CellError('a whole number');
      return value;
    });
    const countries = columns.column('sold-in', (cell) =>
      readValues(cell).map((one) => readCountry(one, places)),
    );
    const channels = [...channelsOf('channel'), ...channelsOf('channel-change')];
    const checked = date('checked');
    const parties = partiesOf(BRAND_PARTIES);
    return () => ({
      subject: 'brands',
      parties: parties(),
      record: {
        name: name() ?? '',
        category: category(),
        products: products(),
        productsChange: change(),
        productsHistory: null,
        share: share(),
        countries: countries(),
        channels: onlyOnce(channels.flatMap((read) => read())),
        checkedOn: checked(),
      },
    });
  }

  /** Shares by channel: from a column of all of them, and from one for each. */
  function channelsOf(measure: 'channel' | 'channel-change'): (() => Channel[])[] {
    const field = fieldOf('brands', measure)!;
    const all = columns.column(measure, (cell) => readShares(cell, (word) => choiceOf(field, word)));
    return [
      () => (all() ?? []).map(([key, value]): Channel => [measure, key, value]),
      ...field.values!.map(({ key }) => {
        const id = `${measure}-${key}`;
        const read = columns.column(id, percent(id, measure === 'channel' ? 0 : -100));
        return (): Channel[] => {
          const value = read();
          return value === null ? [] : [[measure, key, value]];
        };
      }),
    ];
  }

  function percent(id: string, least = 0): (cell: string) => number {
    return (cell) => {
      const plain = cell.endsWith('%') ? cell.slice(0, -1).trimEnd() : cell;
      const value = readNumber(plain, columns.style(id));
      if (value < least || value > 100) throw new CellError(`a share from ${least} to 100 %`);
      return value;
    };
  }

  /** The companies that some columns name, each in the role of its column; where one column says all of them, just those. */
  function partiesOf(all: readonly { id: string; role: string }[]): () => Party[] {
    const cells = all.map(({ id, role }) => ({ role, read: columns.plain(id) }));
    const roles = new Set(all.map(({ role }) => role));
    const whole = columns.column('parties', (cell) => readParties(cell, roles));
    return () =>
      whole() ??
      cells.flatMap(({ role, read: cell }): Party[] =>
        partiesIn(cell() ?? '', SEVERAL_ROLES.has(role)).map((one) => ({
          role,
          reference: partyOf(one, mapping.country),
        })),
      );
  }
}

type Channel = readonly [measure: 'channel' | 'channel-change', key: string, value: number];

/** Of figures told twice, in a column of all and in one of their own, the first. */
function onlyOnce(channels: readonly Channel[]): Channel[] {
  const told = new Set<string>();
  return channels.filter(([measure, key]) => {
    const word = `${measure} ${key}`;
    return told.has(word) ? false : told.add(word);
  });
}

/** A name from columns for all of it, the first and the last name; in some languages the word for a name alone means the first. */
function fullName(name: string | null, first: string | null, last: string | null): string {
  if (name !== null && (last === null || first !== null || name.includes(last))) return turnedName(name);
  return [first ?? name, last].filter(Boolean).join(' ');
}

function named({ key, number, domain, name }: CompanyReference): boolean {
  return key !== undefined || number !== null || domain !== null || name !== null;
}

const keyed = (key: string | null): Pick<CompanyReference, 'key'> => (key === null ? {} : { key });

/** Roles in which there are several companies at most times. */
const SEVERAL_ROLES: ReadonlySet<string> = new Set(['investor', 'adviser', 'buy-adviser', 'sell-adviser']);
/** A name of several words, each party of a list by commas has one: the "Inc." and "s.r.o." behind a comma are none. */
const OF_WORDS = /^\p{Lu}[^\s,]* \S/u;

/** The parties in a cell: by semicolons, and by commas where several are usual and each part is a name of several words. */
function partiesIn(cell: string, areSeveral: boolean): string[] {
  return partsBy(cell, ';').flatMap((one) => {
    const byCommas = areSeveral ? partsBy(one, ',') : [];
    return byCommas.length > 1 && byCommas.every((part) => OF_WORDS.test(part)) ? byCommas : [one];
  });
}

const partsBy = (cell: string, by: string): string[] =>
  cell
    .split(by)
    .map((one) => one.trim())
    .filter(Boolean);

/** A party as a file writes it: a registration number, a domain or a name. */
function partyOf(text: string, country: string | null): CompanyReference {
  const domain = domainOf(text);
  if (domain) return { number: null, domain, name: null, country };
  const number = /^(?:([A-Z]{2})[\s-]?)?(\d[\d\s.-]{4,})$/.exec(text);
  if (number) return { number: number[2]!, domain: null, name: null, country: number[1] ?? country };
  return { number: null, domain: null, name: text, country };
}

/** A value of a category by key or label, or by a word for it in another language. */
function choiceOf(field: Field, cell: string): string {
  const found = field.values!.find(({ key, label, also = [] }) =>
    [key, label, ...also].some((word) => plainWord(word) === plainWord(cell)),
  );
  const value = found?.key ?? relatedValue(field.subject, field.id, cell);
  if (value === undefined)
    throw new CellError(`one of ${field.values!.map(({ label }) => label).join(', ')}`);
  return value;
}
