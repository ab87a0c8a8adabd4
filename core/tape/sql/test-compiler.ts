import { Pass, SCHEMES, type Scheme } from '../../codes/tree.ts';
import { parseSpan, spanStart, yearOf } from '../../dates.ts';
import type { Field, Store } from '../../fields/field.ts';
import { fieldOf } from '../../fields/registry.ts';
import { euroLimits, type EuroLimits } from '../../money/limits.ts';
import { groupsOf, keyOf, ownTest } from '../../tally/evaluate.ts';
import { daysOf } from '../dates.ts';
import type { Lookup } from '../lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FieldLine,
  FlagTest,
  ListTest,
  MoneyTest,
  NumberTest,
  PlaceTest,
  RankTest,
  TextTest,
} from '../nodes.ts';
import { parseWords, type WordsQuery } from '../words-query.ts';
import { placeSql } from './place.ts';
import { rankSql } from './rank.ts';
import { between, compared, either, end, type End } from './ranges.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';

/** Where words are searched. */
export type WordsIn = 'name' | 'description' | 'both';

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
    const test = this.plain(field, line);
    return line.fresh ? filled('CASE WHEN @ THEN @ END', this.fresh(field, line.fresh), test) : test;
  }

  /** The test without its freshness. */
  private plain(field: Field, line: FieldLine): Sql {
    const estimates = line.estimates === true;
    switch (field.kind) {
      case 'codes':
        return this.codes(line.test as CodesTest);
      case 'place':
        return placeSql(line.test as PlaceTest, this.lookup, this.least);
      case 'number':
        return this.number(field, ownTest(field, line.test as NumberTest, this.lookup), estimates);
      case 'money':
        return this.money(field, line.test as MoneyTest, estimates);
      case 'category':
        return this.category(field, line.test as CategoryTest);
      case 'flag':
        return sql(`c.${columnIn(field)} = ?`, Number((line.test as FlagTest).is));
      case 'keyed':
      case 'growth':
        return measure(field, keyOf(line.test), line.test as NumberTest);
      case 'rank':
        return rankSql(line.test as RankTest, estimates);
      case 'list':
        return this.list(line.test as ListTest);
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

  /** Whether a value is no older than a span; a value of a year is as old as the end of that year. */
  private fresh(field: Field, span: string): Sql {
    const since = spanStart(this.lookup.asOf, parseSpan(span)!);
    if (field.dated === 'year')
      return sql(`c.${(field.store as { stem: string }).stem}_year >= ?`, yearOf(since));
    return sql(`c.${columnIn(fieldOf(field.subject, field.dated!)!)} >= ?`, since);
  }

  private codes({ scheme, any, except, rank, kin }: CodesTest): Sql {
    const tree = this.lookup.codes(scheme);
    const pass = tree.passOf(any, except ?? []);
    const main = rank === 'main' ? ' AND rank = 0' : '';
    const having = (condition: Sql) =>
      filled(`c.id IN (SELECT company_id FROM company_code WHERE @${main})`, condition);
    const saying = (one: Scheme, passes: Uint8Array, state: Pass) =>
      filled(
        '(scheme = @ AND code IN (@))',
        sql('?', one),
        listed(this.lookup.codes(one).codes.filter((_, node) => passes[node] === state)),
      );
    const own = (state: Pass) => having(saying(scheme, pass, state));
    const coded = having(sql('scheme = ?', scheme));
    const undecided = 'CASE WHEN @ THEN TRUE WHEN NOT @ OR @ THEN NULL ELSE FALSE END';
    if (!kin) return filled(undecided, own(Pass.Yes), coded, own(Pass.Unknown));
    const others = (Object.keys(SCHEMES) as Scheme[]).filter((one) => one !== scheme);
    const passes = others.map((one) => this.lookup.crosswalk().passIn(one, scheme, pass, kin === 'possible'));
    const anyOther = (state: Pass) =>
      having(
        filled(
          '(@)',
          joined(
            others.map((one, i) => saying(one, passes[i]!, state)),
            ' OR ',
          ),
        ),
      );
    return filled(
      `CASE WHEN @ THEN TRUE WHEN NOT @ OR @ THEN ${undecided} ELSE FALSE END`,
      own(Pass.Yes),
      coded,
      own(Pass.Unknown),
      anyOther(Pass.Yes),
      having(sql('scheme <> ?', scheme)),
      anyOther(Pass.Unknown),
    );
  }

  private list({ any, verdict }: ListTest): Sql {
    return filled(
      'c.key IN (SELECT m.company FROM list_member m WHERE m.list IN (@) AND m.verdict IN (@))',
      listed(any),
      listed(verdict ?? ['in']),
    );
  }

  private number(field: Field, test: NumberTest, estimates: boolean): Sql {
    const [from, to] = [end(test.from), end(test.to)];
    if (field.store.at === 'column') return between(`c.${columnIn(field)}`, from, to);
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

  private category(field: Field, { any, all, seen }: CategoryTest): Sql {
    if (field.store.at === 'column') return filled(`c.${field.store.column} IN (@)`, listed(any!));
    const { table, value, known, seen: day } = field.store as Extract<Store, { at: 'many' }>;
    const groups = groupsOf(this.lookup, field.id);
    const membersOf = (key: string) => groups.get(key) ?? [key];
    const since = seen === undefined ? null : spanStart(this.lookup.asOf, parseSpan(seen)!);
    const having = (keys: string[], more: Sql) =>
      filled(`c.id IN (SELECT company_id FROM ${table} WHERE ${value} IN (@)@)`, listed(keys), more);
    const held = (all ? all.map(membersOf) : [any!.flatMap(membersOf)]).map((keys) =>
      since === null
        ? having(keys, sql(''))
        : filled(
            'CASE WHEN @ THEN TRUE WHEN @ THEN NULL ELSE FALSE END',
            having(keys, sql(` AND ${day} >= ?`, since)),
            having(keys, sql(` AND ${day} IS NULL`)),
          ),
    );
    const every = filled('(@)', joined(held, ' AND '));
    return known ? filled(`CASE WHEN c.${known} IS NOT NULL THEN @ END`, every) : every;
  }

  private date(field: Field, test: DateTest): Sql {
    const { from, to } = daysOf(test, this.lookup.asOf);
    return between(`c.${columnIn(field)}`, end(from), end(to));
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

function columnIn(field: Field): string {
  return (field.store as { column: string }).column;
}

/** The number under a key; where it has none, what that means: 0 for a company that has others, or null. */
function measure({ store }: Field, key: string, test: NumberTest): Sql {
  const { measure: name, absent } = store as Extract<Store, { at: 'keyed' }>;
  const within = between('m.value', end(test.from), end(test.to));
  const rows = (more: Sql) =>
    filled('c.id IN (SELECT m.company_id FROM company_measure m WHERE m.measure = @@)', sql('?', name), more);
  const under = sql(' AND m.key = ?', key);
  const absentPasses =
    absent !== null && absent >= (test.from ?? -Infinity) && absent <= (test.to ?? Infinity);
  return filled(
    'CASE WHEN @ THEN TRUE WHEN @ THEN FALSE@ END',
    rows(filled('@ AND @', under, within)),
    rows(under),
    absent === null ? sql('') : filled(` WHEN @ THEN ${absentPasses ? 'TRUE' : 'FALSE'}`, rows(sql(''))),
  );
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
