import type { Field } from '../fields/field.ts';
import { PARTY_COLUMNS } from '../fields/deals.ts';
import { fieldOf, fileColumns } from '../fields/registry.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { CURRENCIES } from '../money/rates.ts';
import { yearOf } from '../dates.ts';
import { domainOf } from '../text/domain.ts';
import { fold } from '../text/fold.ts';
import { CellError, readCount, readDate, readNumber, readQuantity } from './cells.ts';
import { ColumnReader, type CellProblem } from './column-reader.ts';
import { readFlag } from './lists-in-cells.ts';
import type { Mapping } from './mapping.ts';
import type { CompanyReference, Party, RelatedRecord } from './related.ts';

/** The subjects whose records can be read from a file. */
export const READ_SUBJECTS = ['sites', 'people', 'events', 'deals'] as const;
export type ReadSubject = (typeof READ_SUBJECTS)[number];

export interface RelatedReader {
  read(cells: readonly string[]): { related: RelatedRecord } | { problems: CellProblem[] };
}

/** A reader of the rows of a file of sites, people, events or deals. A row that names no company, or that has a cell that cannot be read, is refused. */
export function relatedReader(
  subject: ReadSubject,
  header: readonly string[],
  mapping: Mapping,
  places: Gazetteer,
): RelatedReader {
  const labels = new Map(fileColumns(subject).map((column) => [column.id, column.label]));
  const columns = new ColumnReader(header, mapping.columns, labels);
  const country = columns.column('company-country', (cell) => countryOf(cell, places));
  const company = {
    number: columns.plain('company-number'),
    domain: columns.column('company-domain', (cell) => {
      const domain = domainOf(cell);
      if (!domain) throw new CellError('a domain or web address such as foo.example');
      return domain;
    }),
    name: columns.plain('company-name'),
  };
  const reference = (): CompanyReference => ({
    number: company.number(),
    domain: company.domain(),
    name: company.name(),
    country: country() ?? mapping.country,
  });
  const date = (id: string) => columns.column(id, (cell) => readDate(cell, mapping));
  const choice = (id: string) => {
    const field = fieldOf(subject, id)!;
    return columns.column(id, (cell) => choiceOf(field, cell));
  };
  const make = { sites, people, events, deals }[subject];
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
        problems.push({ column: 'the row', value: '', rule: 'a target, buyer, investor or adviser' });
      if (related.record.name === '')
        problems.push({ column: labels.get('name')!, value: '', rule: 'a name' });
      return problems.length ? { problems } : { related };
    },
  };

  function sites(): () => RelatedRecord {
    const name = columns.plain('name');
    const kind = choice('kind');
    const head = columns.column('head', readFlag);
    const own = columns.column('country', (cell) => countryOf(cell, places));
    const [town, street, postcode, phone] = ['town', 'street', 'postcode', 'phone'].map((id) =>
      columns.plain(id),
    );
    const degrees = (id: string, most: number) =>
      columns.column(id, (cell) => {
        const value = readNumber(cell, { ...mapping, decimal: cell.includes(',') ? ',' : '.' });
        if (Math.abs(value) > most) throw new CellError(`degrees from -${most} to ${most}`);
        return value;
      });
    const [lat, lon] = [degrees('latitude', 90), degrees('longitude', 180)];
    const headcount = columns.column('headcount', readCount);
    const checked = date('checked');
    return () => {
      const of = reference();
      const inCountry = own() ?? of.country;
      const written = town!();
      const found = written ? places.townNamed(written, inCountry ? { country: inCountry } : {}) : undefined;
      return {
        subject: 'sites',
        company: of,
        record: {
          name: name(),
          kind: kind(),
          head: head(),
          country: inCountry ?? found?.country ?? null,
          region: found?.region ?? null,
          town: found?.name ?? written,
          postcode: postcode!(),
          street: street!(),
          lat: lat() ?? found?.lat ?? null,
          lon: lon() ?? found?.lon ?? null,
          headcount: headcount(),
          phone: phone!(),
          checkedOn: checked(),
        },
      };
    };
  }

  function people(): () => RelatedRecord {
    const [name, title, mail, phone, earlier] = ['name', 'title', 'mail', 'phone', 'earlier'].map((id) =>
      columns.plain(id),
    );
    const [department, level] = [choice('department'), choice('level')];
    const certainty = columns.column('certainty', (cell) => {
      const value = readNumber(cell.endsWith('%') ? cell.slice(0, -1).trimEnd() : cell, mapping);
      if (value < 0 || value > 100) throw new CellError('a certainty from 0 to 100 %');
      return Math.round(value);
    });
    const [since, checked] = [date('since'), date('checked')];
    return () => ({
      subject: 'people',
      company: reference(),
      record: {
        name: name!() ?? '',
        title: title!(),
        department: department(),
        level: level(),
        sinceOn: since(),
        mail: mail!(),
        certainty: certainty(),
        phone: phone!(),
        earlier: earlier!(),
        checkedOn: checked(),
      },
    });
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
    const amount = columns.column('amount', (cell) => readQuantity(cell, mapping, mapping.revenueUnit));
    const currency = columns.column('amount-currency', (cell) => {
      if (!CURRENCIES.includes(cell.toUpperCase()))
        throw new CellError(`a currency code with rates: ${CURRENCIES.join(', ')}`);
      return cell.toUpperCase();
    });
    const bidders = columns.column('bidders', readCount);
    const parties = PARTY_COLUMNS.map(({ id, role }) => ({ role, read: columns.plain(id) }));
    return () => {
      const day = on();
      const quantity = amount();
      const money = currency() ?? mapping.currency;
      const found = parties.flatMap(({ role, read: cell }): Party[] =>
        (cell() ?? '')
          .split(';')
          .map((one) => one.trim())
          .filter(Boolean)
          .map((one) => ({ role, reference: partyOf(one, mapping.country) })),
      );
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
            currency: money,
            year: day === null ? mapping.year : yearOf(day),
          },
          bidders: bidders(),
        },
      };
    };
  }
}

function named({ number, domain, name }: CompanyReference): boolean {
  return number !== null || domain !== null || name !== null;
}

/** A party as a file writes it: a registration number, a domain or a name. */
function partyOf(text: string, country: string | null): CompanyReference {
  const domain = domainOf(text);
  if (domain) return { number: null, domain, name: null, country };
  const number = /^(?:([A-Z]{2})[\s-]?)?(\d[\d\s.-]{4,})$/.exec(text);
  if (number) return { number: number[2]!, domain: null, name: null, country: number[1] ?? country };
  return { number: null, domain: null, name: text, country };
}

function countryOf(cell: string, places: Gazetteer): string {
  const found = places.countryNamed(cell);
  if (!found) throw new CellError('a country, as a name or an ISO code of two letters');
  return found.code;
}

/** A value of a category by key or label. */
function choiceOf(field: Field, cell: string): string {
  const plain = (text: string) =>
    fold(text)
      .replace(/[\s_-]+/g, ' ')
      .trim();
  const found = field.values!.find(
    ({ key, label }) => plain(key) === plain(cell) || plain(label) === plain(cell),
  );
  if (!found) throw new CellError(`one of ${field.values!.map(({ label }) => label).join(', ')}`);
  return found.key;
}
