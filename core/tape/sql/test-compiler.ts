import { Pass, SCHEMES, type Scheme } from '../../codes/tree.ts';
import { parseSpan, sinceDay, spanStart, yearOf } from '../../dates.ts';
import type { Field, Store } from '../../fields/field.ts';
import { fieldOf, subjectOf } from '../../fields/registry.ts';
import { limitsIn, type Limits } from '../../money/limits.ts';
import { RATE_YEARS } from '../../money/rates.ts';
import { recordsOf, type Bits } from '../../tally/bits.ts';
import { groupsOf, keyOf, ownTest } from '../../tally/evaluate.ts';
import { atAnySite } from '../any-site.ts';
import { daysOf } from '../dates.ts';
import type { Lookup } from '../lookup.ts';
import { isHas, isBlock, isLive, type Leaf, type Line } from '../nodes.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FieldLine,
  FlagTest,
  ListTest,
  MoneyTest,
  NumberTest,
  PeersTest,
  PlaceTest,
  RankTest,
  RecordTest,
  TextTest,
} from '../nodes.ts';
import { parseWords, type WordsQuery } from '../words-query.ts';
import { hasSql } from './has.ts';
import { listMembers, unsureMembers } from './list-members.ts';
import { placeSql } from './place.ts';
import { rankSql } from './rank.ts';
import { between, compared, either, end, type End } from './ranges.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';
import { termText } from './words-column.ts';

/** Where words are searched. */
export type WordsIn = 'name' | 'description' | 'both';

/** Tables of what was done with records, and the column of each that says to whom or by what. */
const LEDGERS = {
  handed: { table: 'handed_over', key: 'receiver' },
  joined: { table: 'joined_tape', key: 'tape' },
} as const;

/**
 * Compiles the test of a line to a condition on a row, named by its alias, that is true, false or null: SQL's
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
  protected abstract term(term: { words: string[]; prefix: boolean }, where: WordsIn, row: string): Sql;

  /** Whether a text column holds the text put for `?`. */
  protected abstract holds(column: string): string;

  /** A statement with the placeholders of the dialect in place of question marks. */
  prepared(statement: Sql): Sql {
    return statement;
  }

  /** A line's test before *not* and policy; branches of a block with their *not*. */
  test(line: Line, subject: string, row: string): Sql {
    const block = isBlock(line) ? line : atAnySite(line);
    if (block) {
      const branches = block.either.some((one) => !one.parked)
        ? block.either.filter((one) => !one.parked)
        : block.either;
      const tests = branches.map((branch) =>
        filled(branch.not ? '(NOT @)' : '@', this.test(branch, subject, row)),
      );
      return filled('(@)', joined(tests, ' OR '));
    }
    return this.leaf(line as Leaf, subject, row);
  }

  private leaf(line: Leaf, subject: string, row: string): Sql {
    if (isHas(line))
      return hasSql(line, subject, row, (inner, related, alias) => this.together(inner, related, alias));
    const field = fieldOf(subject, line.field)!;
    const test = this.plain(field, line, row);
    return line.fresh ? filled('CASE WHEN @ THEN @ END', this.fresh(field, line.fresh, row), test) : test;
  }

  /** Lines of a has-line as one condition of three values. */
  private together(lines: readonly Line[], subject: string, row: string): Sql {
    const decided = lines.filter(isLive).map((line) => {
      const test = filled(line.not ? '(NOT @)' : '@', this.test(line, subject, row));
      if (!line.unknown) return filled('(@)', test);
      return filled(line.unknown === 'keep' ? '((@) IS NOT FALSE)' : '((@) IS TRUE)', test);
    });
    return decided.length ? joined(decided, ' AND ') : sql('TRUE');
  }

  /** The test without its freshness. */
  private plain(field: Field, line: FieldLine, row: string): Sql {
    const estimates = line.estimates === true;
    switch (field.kind) {
      case 'codes':
        return this.codes(line.test as CodesTest, row);
      case 'place':
        return placeSql(line.test as PlaceTest, this.lookup, this.least, row);
      case 'number':
        return this.number(field, ownTest(field, line.test as NumberTest, this.lookup), estimates, row);
      case 'money':
        return this.money(field, line.test as MoneyTest, estimates, row);
      case 'category':
        return this.category(field, line.test as CategoryTest, row);
      case 'flag':
        if (field.store.at === 'contacts')
          return sql(
            `${row}.key ${(line.test as FlagTest).is ? '' : 'NOT '}IN (SELECT k.company FROM contact k WHERE k.company IS NOT NULL)`,
          );
        return sql(`${row}.${columnIn(field)} = ?`, Number((line.test as FlagTest).is));
      case 'keyed':
      case 'growth':
        return measure(field, keyOf(line.test), line.test as NumberTest, row);
      case 'rank':
        return rankSql(line.test as RankTest, estimates, row);
      case 'list':
        return this.list(line.test as ListTest, row);
      case 'record':
        return filled(`${row}.key IN (@)`, listed((line.test as RecordTest).any));
      case 'peers': {
        const { yes, unknown, ids } = this.lookup.peers(line.test as PeersTest);
        const listed = (bits: Bits) => [...recordsOf(bits)].map((r) => ids[r]).join(',') || 'NULL';
        return sql(
          `CASE WHEN ${row}.id IN (${listed(yes)}) THEN TRUE WHEN ${row}.id IN (${listed(unknown)}) THEN NULL ELSE FALSE END`,
        );
      }
      case 'date':
        return this.date(field, line.test as DateTest, row);
      case 'text': {
        const { text, in: where } = line.test as TextTest;
        if (field.store.at === 'text') {
          const column = `${row}.${field.store.column}_words`;
          return this.words(parseWords(text), (term) => sql(this.holds(column), termText(term)));
        }
        return this.words(parseWords(text), (term) => this.term(term, where ?? 'both', row));
      }
      case 'label':
        throw new Error(`${field.id} cannot be a line.`);
    }
  }

  /** Whether a value is no older than a span; a value of a year is as old as the end of that year. */
  private fresh(field: Field, span: string, row: string): Sql {
    const since = spanStart(this.lookup.asOf, parseSpan(span)!);
    if (field.dated === 'year')
      return sql(`${row}.${(field.store as { stem: string }).stem}_year >= ?`, yearOf(since));
    return sql(`${row}.${columnIn(fieldOf(field.subject, field.dated!)!)} >= ?`, since);
  }

  private codes({ scheme, any, except, rank, kin }: CodesTest, row: string): Sql {
    const tree = this.lookup.codes(scheme);
    const pass = tree.passOf(any, except ?? []);
    const main = rank === 'main' ? ' AND rank = 0' : '';
    const having = (condition: Sql) =>
      filled(`${row}.id IN (SELECT company_id FROM company_code WHERE @${main})`, condition);
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

  private list(test: ListTest, row: string): Sql {
    const yes = filled(`${row}.key IN (@)`, listMembers(test, this.lookup.asOf));
    const unsure = unsureMembers(test, this.lookup.asOf);
    return unsure
      ? filled(`CASE WHEN @ THEN TRUE WHEN ${row}.key IN (@) THEN NULL ELSE FALSE END`, yes, unsure)
      : yes;
  }

  private number(field: Field, test: NumberTest, estimates: boolean, row: string): Sql {
    const [from, to] = [end(test.from), end(test.to)];
    if (field.store.at === 'column') return between(`${row}.${columnIn(field)}`, from, to);
    const stem = `${row}.${(field.store as { stem: string }).stem}`;
    return decided(stem, estimates, from, to);
  }

  /** Limits carried into the currency of each value at the rate of its year; null where there is no rate. */
  private money(field: Field, test: MoneyTest, estimates: boolean, row: string): Sql {
    const stem = `${row}.${(field.store as { stem: string }).stem}`;
    const { currencies } = this.lookup;
    const limit = (open: boolean, end: keyof Limits): End =>
      open
        ? null
        : currencies.length === 0
          ? sql('NULL')
          : filled(
              `CASE ${stem}_currency @ END`,
              joined(
                currencies.map((currency) =>
                  filled('WHEN @ THEN @', sql('?', currency), this.limitByYear(test, currency, end, stem)),
                ),
                ' ',
              ),
            );
    return decided(
      stem,
      estimates,
      limit(test.from === undefined, 'from'),
      limit(test.to === undefined, 'to'),
    );
  }

  /** The limit for values of a currency: the same every year in the test's own, else by the rate of the year. */
  private limitByYear(test: MoneyTest, currency: string, end: keyof Limits, stem: string): Sql {
    const own = limitsIn(test, currency, null);
    if (own) return sql('?', own[end]);
    const years: Sql[] = [];
    for (let year = RATE_YEARS.from; year <= RATE_YEARS.to; year++) {
      const limits = limitsIn(test, currency, year);
      if (limits) years.push(sql('WHEN ? THEN ?', year, limits[end]));
    }
    return years.length ? filled(`CASE ${stem}_year @ END`, joined(years, ' ')) : sql('NULL');
  }

  private category(field: Field, { any, all, seen }: CategoryTest, row: string): Sql {
    if (field.store.at === 'column') return filled(`${row}.${field.store.column} IN (@)`, listed(any!));
    if (field.store.at === 'handed' || field.store.at === 'joined')
      return this.ledger(LEDGERS[field.store.at], field.subject, { any, all, seen }, row);
    const { table, value, known, seen: day } = field.store as Extract<Store, { at: 'many' }>;
    const owner = subjectOf(field.subject).table;
    const groups = groupsOf(this.lookup, field);
    const membersOf = (key: string) => groups.get(key) ?? [key];
    const since = seen === undefined ? null : sinceDay(this.lookup.asOf, seen);
    const having = (keys: string[], more: Sql) =>
      filled(`${row}.id IN (SELECT ${owner}_id FROM ${table} WHERE ${value} IN (@)@)`, listed(keys), more);
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
    return known ? filled(`CASE WHEN ${row}.${known} IS NOT NULL THEN @ END`, every) : every;
  }

  /** Records that a ledger has under some of its keys: who was handed them, or which tape they joined. */
  private ledger(
    { table, key }: (typeof LEDGERS)[keyof typeof LEDGERS],
    subject: string,
    { any, all, seen }: CategoryTest,
    row: string,
  ): Sql {
    const since = seen === undefined ? null : sinceDay(this.lookup.asOf, seen);
    const held = (all ? all.map((key) => [key]) : [any!]).map((keys) =>
      filled(
        `${row}.key IN (SELECT h.key FROM ${table} h WHERE h.subject = @ AND h.${key} IN (@)@)`,
        sql('?', subject),
        listed(keys),
        since === null ? sql('') : sql(' AND h.day >= ?', since),
      ),
    );
    return filled('(@)', joined(held, ' AND '));
  }

  private date(field: Field, test: DateTest, row: string): Sql {
    const { from, to } = daysOf(test, this.lookup.asOf);
    return between(`${row}.${columnIn(field)}`, end(from), end(to));
  }

  private words(query: WordsQuery, term: (term: { words: string[]; prefix: boolean }) => Sql): Sql {
    switch (query.kind) {
      case 'and':
      case 'or':
        return filled(
          '(@)',
          joined(
            query.parts.map((part) => this.words(part, term)),
            query.kind === 'and' ? ' AND ' : ' OR ',
          ),
        );
      case 'not':
        return filled('(NOT @)', this.words(query.part, term));
      case 'term':
        return term(query);
    }
  }
}

function columnIn(field: Field): string {
  return (field.store as { column: string }).column;
}

/** The number under a key; where it has none, what that means: 0 for a company that has others, or null. */
function measure({ store, subject }: Field, key: string, test: NumberTest, row: string): Sql {
  const owner = subjectOf(subject).table;
  const { measure: name, absent, table = `${owner}_measure` } = store as Extract<Store, { at: 'keyed' }>;
  const within = between('m.value', end(test.from), end(test.to));
  const rows = (more: Sql) =>
    filled(`${row}.id IN (SELECT m.${owner}_id FROM ${table} m WHERE m.measure = @@)`, sql('?', name), more);
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
function decided(stem: string, estimates: boolean, from: End, to: End): Sql {
  return filled(
    `CASE WHEN ${stem}_basis = 'estimate' THEN @ WHEN @ THEN TRUE WHEN @ THEN FALSE END`,
    estimates ? between(`${stem}_point`, from, to) : sql('NULL'),
    either(' AND ', compared(`${stem}_low`, '>=', from), compared(`${stem}_high`, '<=', to)),
    either(' OR ', compared(`${stem}_high`, '<', from), compared(`${stem}_low`, '>', to)),
  );
}
