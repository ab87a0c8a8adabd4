import { Pass } from '../../codes/tree.ts';
import type { Field } from '../../fields/field.ts';
import { fieldOf } from '../../fields/registry.ts';
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
  FieldLine,
  MoneyTest,
  NearTest,
  NumberTest,
  PlaceTest,
  TextTest,
} from '../nodes.ts';
import { parseWords, type WordsQuery } from '../words-query.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';

/** Where words are searched. */
export type WordsIn = 'name' | 'description' | 'both';

/** An end of a range; null where it is open. */
type End = Sql | null;

/**
 * Compiles the test of a line to a condition on `c`, a company, that is true, false or null: SQL's
 * three values are Kleene's. One subclass a dialect fills in what databases spell differently.
 */
export abstract class TestCompiler {
  protected readonly lookup: Lookup;

  constructor(lookup: Lookup) {
    this.lookup = lookup;
  }

  /** The name of the function that gives the lesser of two numbers. It may leave nulls out. */
  protected abstract readonly least: string;

  /** Whether a company's words hold a term. Null where there is no description to look in. */
  protected abstract term(term: { words: string[]; prefix: boolean }, where: WordsIn): Sql;

  /** A statement with the placeholders of the dialect in place of question marks. */
  prepared(statement: Sql): Sql {
    return statement;
  }

  test(line: FieldLine, subject: string): Sql {
    const field = fieldOf(subject, line.field)!;
    const estimates = line.estimates === true;
    switch (field.kind) {
      case 'codes':
        return this.codes(line.test as CodesTest);
      case 'place':
        return this.place(line.test as PlaceTest);
      case 'number':
        return this.number(field, line.test as NumberTest, estimates);
      case 'money':
        return this.money(field, line.test as MoneyTest, estimates);
      case 'category':
        return this.category(field, line.test as CategoryTest);
      case 'date':
        return this.date(field, line.test as DateTest);
      case 'text': {
        const { text, in: where } = line.test as TextTest;
        return this.words(parseWords(text), where ?? 'both');
      }
      case 'label':
        throw new Error(`${field.id} cannot be a line.`);
    }
  }

  private codes({ scheme, any, except, rank }: CodesTest): Sql {
    const tree = this.lookup.codes(scheme);
    const pass = tree.passOf(any, except ?? []);
    const coded = (state?: Pass): Sql => {
      const codes = tree.codes.filter((_, node) => pass[node] === state);
      return filled(
        `c.id IN (SELECT company_id FROM company_code WHERE scheme = @${rank === 'main' ? ' AND rank = 0' : ''}@)`,
        sql('?', scheme),
        state === undefined ? sql('') : filled(' AND code IN (@)', listed(codes)),
      );
    };
    return filled(
      'CASE WHEN @ THEN TRUE WHEN NOT @ OR @ THEN NULL ELSE FALSE END',
      coded(Pass.Yes),
      coded(),
      coded(Pass.Unknown),
    );
  }

  private place({ countries, regions, towns, near }: PlaceTest): Sql {
    const parts: Sql[] = [];
    if (countries) parts.push(filled('c.country IN (@)', listed(countries)));
    if (regions) {
      const within = regions.map((key) => this.lookup.places.region(key)!.country);
      parts.push(placed('c.region', regions, within));
    }
    if (towns) {
      const within = towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
      parts.push(placed(TOWN, towns, within));
    }
    if (near) parts.push(this.near(near));
    return parts.length === 1 ? parts[0]! : filled('(@)', joined(parts, ' OR '));
  }

  private near(test: NearTest): Sql {
    return sql(
      `CASE WHEN c.lat IS NOT NULL AND c.lon IS NOT NULL THEN ${2 * EARTH_KM} * asin(sqrt(${this.least}(1, pow(sin(radians(c.lat - ?) / 2), 2) + cos(radians(?)) * cos(radians(c.lat)) * pow(sin(radians(c.lon - ?) / 2), 2)))) <= ? END`,
      test.lat,
      test.lat,
      test.lon,
      nearKm(test),
    );
  }

  private number(field: Field, test: NumberTest, estimates: boolean): Sql {
    const [from, to] = [end(test.from), end(test.to)];
    if (field.store.at === 'column') return between(`c.${field.store.column}`, from, to);
    const stem = `c.${(field.store as { stem: string }).stem}`;
    return decided(stem, stem, estimates, from, to);
  }

  /** Limits in euros at the rate of the value's year. */
  private money(field: Field, test: MoneyTest, estimates: boolean): Sql {
    const stem = `c.${(field.store as { stem: string }).stem}`;
    const limits = euroLimits(test);
    const byYear = (open: boolean, of: (one: EuroLimits) => number): End => {
      if (open) return null;
      const [first] = limits;
      if (first && limits.every((one) => of(one) === of(first)) && test.currency === 'EUR')
        return sql('?', of(first));
      return filled(
        `CASE ${stem}_year @ END`,
        joined(
          limits.map((one) => sql('WHEN ? THEN ?', one.year, of(one))),
          ' ',
        ),
      );
    };
    return decided(
      `${stem}_eur`,
      stem,
      estimates,
      byYear(test.from === undefined, (one) => one.from),
      byYear(test.to === undefined, (one) => one.to),
    );
  }

  private category(field: Field, { any, all }: CategoryTest): Sql {
    if (field.store.at === 'column') return filled(`c.${field.store.column} IN (@)`, listed(any!));
    const { table, value, known } = field.store as { table: string; value: string; known: string | null };
    const groups = groupsOf(this.lookup, field.id);
    const membersOf = (key: string) => groups.get(key) ?? [key];
    const held = (all ? all.map(membersOf) : [any!.flatMap(membersOf)]).map((keys) =>
      filled(`c.id IN (SELECT company_id FROM ${table} WHERE ${value} IN (@))`, listed(keys)),
    );
    const every = filled('(@)', joined(held, ' AND '));
    return known ? filled(`CASE WHEN c.${known} IS NOT NULL THEN @ END`, every) : every;
  }

  private date(field: Field, test: DateTest): Sql {
    const { from, to } = daysOf(test, this.lookup.asOf);
    return between(`c.${(field.store as { column: string }).column}`, end(from), end(to));
  }

  private words(query: WordsQuery, where: WordsIn): Sql {
    switch (query.kind) {
      case 'and':
      case 'or':
        return filled(
          '(@)',
          joined(
            query.parts.map((part) => this.words(part, where)),
            query.kind === 'and' ? ' AND ' : ' OR ',
          ),
        );
      case 'not':
        return filled('(NOT @)', this.words(query.part, where));
      case 'term':
        return this.term(query, where);
    }
  }
}

/** The key of a company's town. */
export const TOWN = `(c.town || ', ' || COALESCE(c.region, c.country))`;

/** A place not known is still a no where the country, if known, rules all wanted places out. */
function placed(value: string, keys: readonly string[], countries: readonly string[]): Sql {
  return filled(
    `CASE WHEN ${value} IS NULL AND c.country NOT IN (@) THEN FALSE ELSE ${value} IN (@) END`,
    listed(countries),
    listed(keys),
  );
}

function end(value: number | undefined | null): End {
  return value === undefined || value === null ? null : sql('?', value);
}

/** True if the whole value lies within, false if none of it does, else null; an estimate decides by its point. */
function decided(value: string, stem: string, estimates: boolean, from: End, to: End): Sql {
  return filled(
    `CASE WHEN ${stem}_basis = 'estimate' THEN @ WHEN @ THEN TRUE WHEN @ THEN FALSE END`,
    estimates ? between(`${value}_point`, from, to) : sql('NULL'),
    either(' AND ', compared(`${value}_low`, '>=', from), compared(`${value}_high`, '<=', to)),
    either(' OR ', compared(`${value}_high`, '<', from), compared(`${value}_low`, '>', to)),
  );
}

function between(value: string, from: End, to: End): Sql {
  return either(' AND ', compared(value, '>=', from), compared(value, '<=', to));
}

function compared(value: string, operator: string, limit: End): End {
  return limit && filled(`${value} ${operator} @`, limit);
}

function either(by: ' AND ' | ' OR ', ...ends: End[]): Sql {
  return filled(
    '(@)',
    joined(
      ends.filter((one) => one !== null),
      by,
    ),
  );
}
