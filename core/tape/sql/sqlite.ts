import { Pass } from '../../codes/tree.ts';
import { fieldOf } from '../../fields/registry.ts';
import type { Field } from '../../fields/field.ts';
import { EARTH_KM } from '../../geo/distance.ts';
import { euroLimits, type EuroLimits } from '../../money/limits.ts';
import { groupsOf } from '../../tally/evaluate.ts';
import { nearKm } from '../../tally/test-place.ts';
import { daysOf } from '../dates.ts';
import type { Lookup } from '../lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  MoneyTest,
  NearTest,
  NumberTest,
  PlaceTest,
  TextTest,
} from '../nodes.ts';
import { ftsTerm, parseWords, type WordsQuery } from '../words-query.ts';
import type { Dialect, Sql } from './dialect.ts';

export const sqliteDialect: Dialect = {
  test(line, subject, lookup) {
    const field = fieldOf(subject, line.field)!;
    switch (field.kind) {
      case 'codes':
        return codes(line.test as CodesTest, lookup);
      case 'place':
        return place(line.test as PlaceTest, lookup);
      case 'number':
        return number(field, line.test as NumberTest, line.estimates === true);
      case 'money':
        return money(field, line.test as MoneyTest, line.estimates === true);
      case 'category':
        return category(field, line.test as CategoryTest, lookup);
      case 'date':
        return date(field, line.test as DateTest, lookup.asOf);
      case 'text':
        return words(parseWords((line.test as TextTest).text), (line.test as TextTest).in ?? 'both');
      case 'label':
        throw new Error(`${field.id} cannot be a line.`);
    }
  },
};

const marks = (values: readonly unknown[]) => values.map(() => '?').join(', ');

function codes(test: CodesTest, lookup: Lookup): Sql {
  const tree = lookup.codes(test.scheme);
  const pass = tree.passOf(test.any, test.except ?? []);
  const with_ = (state: Pass) => tree.codes.filter((_, node) => pass[node] === state);
  const rows = `FROM company_code k WHERE k.company_id = c.id AND k.scheme = ?${test.rank === 'main' ? ' AND k.rank = 0' : ''}`;
  const sure = with_(Pass.Yes);
  const coarse = with_(Pass.Unknown);
  return {
    text: `CASE WHEN EXISTS (SELECT 1 ${rows} AND k.code IN (${marks(sure)})) THEN 1 WHEN NOT EXISTS (SELECT 1 ${rows}) OR EXISTS (SELECT 1 ${rows} AND k.code IN (${marks(coarse)})) THEN NULL ELSE 0 END`,
    values: [test.scheme, ...sure, test.scheme, test.scheme, ...coarse],
  };
}

function place(test: PlaceTest, lookup: Lookup): Sql {
  const parts: Sql[] = [];
  if (test.countries)
    parts.push({ text: `c.country IN (${marks(test.countries)})`, values: [...test.countries] });
  if (test.regions)
    parts.push(
      named(
        'c.region',
        test.regions,
        test.regions.map((key) => lookup.places.region(key)!.country),
      ),
    );
  if (test.towns)
    parts.push(
      named(
        `(c.town || ', ' || COALESCE(c.region, c.country))`,
        test.towns,
        test.towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2)),
      ),
    );
  if (test.near) parts.push(near(test.near));
  return {
    text: `(${parts.map((part) => part.text).join(' OR ')})`,
    values: parts.flatMap((part) => part.values),
  };
}

function named(value: string, keys: readonly string[], countries: readonly string[]): Sql {
  return {
    text: `CASE WHEN ${value} IS NULL AND c.country NOT IN (${marks(countries)}) THEN 0 ELSE ${value} IN (${marks(keys)}) END`,
    values: [...countries, ...keys],
  };
}

function near(test: NearTest): Sql {
  const h = `(pow(sin(radians(c.lat - ?) / 2), 2) + cos(radians(?)) * cos(radians(c.lat)) * pow(sin(radians(c.lon - ?) / 2), 2))`;
  return {
    text: `(2 * ${EARTH_KM} * asin(sqrt(min(1, ${h}))) <= ?)`,
    values: [test.lat, test.lat, test.lon, nearKm(test)],
  };
}

/** An end of a range as SQL with its values; null where it is open. */
type End = Sql | null;

const end = (value: number | undefined | null): End =>
  value === undefined || value === null ? null : { text: '?', values: [value] };

function number(field: Field, test: NumberTest, estimates: boolean): Sql {
  const [from, to] = [end(test.from), end(test.to)];
  if (field.store.at === 'column') return between(`c.${field.store.column}`, from, to);
  const stem = `c.${(field.store as { stem: string }).stem}`;
  return decided(stem, stem, estimates, from, to);
}

/** Limits in euros at the rate of the value's year. */
function money(field: Field, test: MoneyTest, estimates: boolean): Sql {
  const stem = `c.${(field.store as { stem: string }).stem}`;
  const limits = euroLimits(test);
  const byYear = (open: boolean, of: (one: EuroLimits) => number): End =>
    open
      ? null
      : {
          text: `CASE ${stem}_year ${limits.map(() => 'WHEN ? THEN ?').join(' ')} END`,
          values: limits.flatMap((one) => [one.year, of(one)]),
        };
  return decided(
    `${stem}_eur`,
    stem,
    estimates,
    byYear(test.from === undefined, (one) => one.from),
    byYear(test.to === undefined, (one) => one.to),
  );
}

/** True if the whole value lies within, false if none of it does, else null; an estimate decides by its point. */
function decided(value: string, stem: string, estimates: boolean, from: End, to: End): Sql {
  const point = between(`${value}_point`, from, to);
  const within = joined(' AND ', compare(`${value}_low`, '>=', from), compare(`${value}_high`, '<=', to));
  const outside = joined(' OR ', compare(`${value}_high`, '<', from), compare(`${value}_low`, '>', to));
  return {
    text:
      `CASE WHEN ${stem}_basis = 'estimate' THEN ${estimates ? point.text : 'NULL'}` +
      ` WHEN ${within.text} THEN 1 WHEN ${outside.text} THEN 0 END`,
    values: [...(estimates ? point.values : []), ...within.values, ...outside.values],
  };
}

function between(value: string, from: End, to: End): Sql {
  return joined(' AND ', compare(value, '>=', from), compare(value, '<=', to));
}

function compare(value: string, operator: string, limit: End): End {
  return limit && { text: `${value} ${operator} ${limit.text}`, values: limit.values };
}

function joined(by: ' AND ' | ' OR ', ...parts: End[]): Sql {
  const there = parts.filter((part) => part !== null);
  return {
    text: `(${there.map((part) => part.text).join(by)})`,
    values: there.flatMap((part) => part.values),
  };
}

function category(field: Field, test: CategoryTest, lookup: Lookup): Sql {
  if (field.store.at === 'column')
    return { text: `c.${field.store.column} IN (${marks(test.any!)})`, values: [...test.any!] };
  const { table, value, known } = field.store as { table: string; value: string; known: string | null };
  const groups = groupsOf(lookup, field.id);
  const sets = test.all
    ? test.all.map((key) => groups.get(key) ?? [key])
    : [test.any!.flatMap((key) => groups.get(key) ?? [key])];
  const held = sets
    .map(
      (keys) =>
        `EXISTS (SELECT 1 FROM ${table} v WHERE v.company_id = c.id AND v.${value} IN (${marks(keys)}))`,
    )
    .join(' AND ');
  return {
    text: known ? `CASE WHEN c.${known} IS NULL THEN NULL ELSE ${held} END` : `(${held})`,
    values: sets.flat(),
  };
}

function date(field: Field, test: DateTest, asOf: number): Sql {
  const { from, to } = daysOf(test, asOf);
  return between(`c.${(field.store as { column: string }).column}`, end(from), end(to));
}

function words(query: WordsQuery, where: 'name' | 'description' | 'both'): Sql {
  switch (query.kind) {
    case 'and':
    case 'or': {
      const parts = query.parts.map((part) => words(part, where));
      return {
        text: `(${parts.map((part) => part.text).join(query.kind === 'and' ? ' AND ' : ' OR ')})`,
        values: parts.flatMap((part) => part.values),
      };
    }
    case 'not': {
      const part = words(query.part, where);
      return { text: `(NOT ${part.text})`, values: part.values };
    }
    case 'term':
      return {
        text: `CASE WHEN c.id IN (SELECT rowid FROM company_words WHERE company_words MATCH ?) THEN 1 ${where === 'name' ? '' : 'WHEN c.description IS NULL THEN NULL '}ELSE 0 END`,
        values: [ftsTerm(query, where)],
      };
  }
}
