import { cellAt, cellsOf, type Cell } from './cells.ts';
import { findValues, learnField, type FieldRule, type Pointed } from './field-rule.ts';
import {
  apart,
  LIKE,
  likelyRows,
  likenessTo,
  lookOf,
  refined,
  rowHolds,
  type LikelyRow,
  type Look,
} from './look.ts';
import type { Page, PageElement } from './page.ts';
import { buildOf, rowOf, runFrom, type Row } from './row.ts';
import { sourceFor, type Take } from './take.ts';

/** A value pointed at in a row, and what it is. */
export interface TaughtField {
  field: string;
  /** Number of the element or text on the page. */
  node: number;
  /** "text" or the attribute it stands in; chosen by what it holds where left out. */
  source?: string;
  /** The part of its words that is meant; all where left out. */
  part?: string;
}

/** A row or an advert that somebody pointed at. */
export interface Example {
  /** Name of the page. */
  page: string;
  node: number;
  as: 'row' | 'advert';
  fields: TaughtField[];
}

/** Rows of one build with the rules of their fields. */
export interface TaughtLook {
  look: Look;
  rules: readonly FieldRule[];
  /** Which of the examples are of it, by their place. */
  examples: readonly number[];
}

/** What was learned from examples; it reads pages. */
export interface Lesson {
  looks: readonly TaughtLook[];
  adverts: readonly AdvertMark[];
  /** Words by which what looks like a row says itself that it is an advert. */
  saidBy: readonly string[];
  /** Fields that a row must have; a row without one is not understood. */
  needs: readonly string[];
}

/** What sets an advert apart from the rows that are built like it. */
interface AdvertMark {
  look: Look;
  /** Features that it has and no example of a row. */
  own: ReadonlySet<string>;
  /** Features that all examples of rows have, and it has not. */
  lacks: ReadonlySet<string>;
}

export interface ReadRow {
  /** Number of its element. */
  node: number;
  /** Numbers of all its nodes at the top. */
  nodes: number[];
  /** The place of its look. */
  look: number;
  values: { field: string; value: string; node: number; source: string; take: Take; sure: number }[];
  /** How surely it is a row, from 0 to 1. */
  sure: number;
}

export interface PageReading {
  rows: ReadRow[];
  /** Numbers of elements that are somewhat like a row, and are taken for none. */
  perhaps: number[];
  /** Numbers of the elements that were set aside. */
  adverts: number[];
}

/** Below this an example is of another look than those before it. */
const SAME_LOOK = 0.55;
/** Rows of which the cells are learned from. */
const ENOUGH = 80;

/**
 * Learns from examples how the rows of a directory are told from the rest of its pages, and their fields within them.
 * An example that a look does not cover begins another look; the rules of its fields are taken over from the first where
 * nobody has pointed at them.
 * @param pages the pages that examples are of, by name, and others of the kind
 */
export function learn(pages: ReadonlyMap<string, Page>, examples: readonly Example[]): Lesson {
  const rows = examples.map((example) => exampleRow(pages.get(example.page)!, example));
  const groups = groupsOf(rows, examples);
  const adverts = examples.flatMap((example, i) =>
    example.as === 'advert'
      ? [
          advertMark(
            rows[i]!,
            rows.filter((_, j) => examples[j]!.as === 'row'),
          ),
        ]
      : [],
  );
  const bare = groups.map(({ look, of }): TaughtLook => ({ look, rules: [], examples: of }));
  const spoken = rows.filter((_, i) => examples[i]!.as === 'row').map(buildOf);
  const saidBy = ADVERT_WORDS.filter((word) => !spoken.some((build) => build.has(word)));
  const first: Lesson = { looks: bare, adverts, saidBy, needs: [] };
  // Once with what the examples say, and once more with what the rows found share.
  const found = [...pages.values()].flatMap((page) => sortOut(page, first).rows);
  const looks = bare.map((one, i) => ({
    ...one,
    look: refined(
      one.look,
      found.filter((row) => row.at === i),
    ),
  }));
  const second: Lesson = { looks, adverts, saidBy, needs: [] };
  const again = [...pages.values()].flatMap((page) => sortOut(page, second).rows);
  const cells = looks.map((_, i) =>
    again
      .filter((row) => row.at === i)
      .slice(0, ENOUGH)
      .map(cellsOf),
  );
  const taught = looks.map((one, i) => ({
    ...one,
    rules: rulesOf(
      one.examples.map((at) => ({ row: rows[at]!, example: examples[at]! })),
      cells[i]!,
    ),
  }));
  const whole = taught.map((one, i) => ({
    ...one,
    rules: [
      ...one.rules,
      ...takenOver(
        one.rules,
        taught.flatMap((other) => other.rules),
        cells[i]!,
      ),
    ],
  }));
  const needs = whole.some(({ rules }) => rules.some(({ field }) => field === 'name')) ? ['name'] : [];
  return { looks: whole, adverts, saidBy, needs };
}

/** The row that an example means: its element, or a run of neighbours where a field lies behind it. */
function exampleRow(page: Page, { node, fields }: Example): Row {
  const first = elementAt(page, node);
  const own = rowOf(page, first);
  const outside = fields.some((field) => !rowHolds(own, field.node, page));
  return outside && first.parent ? runFrom(page, first, (other) => other.tag === first.tag) : own;
}

export const elementAt = (page: Page, id: number): PageElement => {
  const node = page.nodes[id]!;
  return node.kind === 'element' ? node : node.parent;
};

interface Group {
  look: Look;
  of: number[];
}

function groupsOf(rows: readonly Row[], examples: readonly Example[]): Group[] {
  const groups: Group[] = [];
  rows.forEach((row, i) => {
    if (examples[i]!.as !== 'row') return;
    const runs = row.nodes.length > 1;
    const build = buildOf(row);
    const home = groups.find(
      ({ look }) => look.tag === row.first.tag && look.runs === runs && likenessTo(look, build) >= SAME_LOOK,
    );
    if (home) {
      home.of.push(i);
      home.look = lookOf(
        home.of.map((at) => rows[at]!),
        runs,
      );
    } else groups.push({ look: lookOf([row], runs), of: [i] });
  });
  return groups;
}

function advertMark(advert: Row, examples: readonly Row[]): AdvertMark {
  const runs = examples.some(({ nodes }) => nodes.length > 1);
  const row =
    runs && advert.first.parent
      ? runFrom(advert.page, advert.first, (other) => other.tag === advert.first.tag)
      : advert;
  const build = buildOf(row);
  const builds = examples.map(buildOf);
  const shared = builds.length
    ? [...builds[0]!].filter((feature) => builds.every((own) => own.has(feature)))
    : [];
  return {
    look: lookOf([row], row.nodes.length > 1),
    own: new Set([...build].filter((feature) => !builds.some((own) => own.has(feature)))),
    lacks: new Set(shared.filter((feature) => !build.has(feature) && !feature.startsWith('x:'))),
  };
}

/** What adverts say of themselves, in the languages of the gazetteer's countries, as features of a build. */
const ADVERT_WORDS =
  'ad|ads|advert|advertisement|sponsored|promoted|anzeige|werbung|gesponsert|reklama|inzerce|sponzorovano|ogloszenie|sponsorowane|annonce|publicite|sponsorise|anuncio|patrocinado|pubblicita|sponsorizzato|advertentie|gesponsord|annons|sponsrad|annonse|sponset|mainos|sponsoroitu|hirdetes|szponzoralt|oglas|publicitate'
    .split('|')
    .map((word) => `x:${word}`);

/** How alike to an advert that no row is built like something is, to be one. */
const CLEARLY_ADVERT = 0.62;

/** Rows of a page with their look, and the adverts among all that looks like one. */
function sortOut(page: Page, { looks, adverts, saidBy }: Pick<Lesson, 'looks' | 'adverts' | 'saidBy'>) {
  const candidates: (LikelyRow & { at: number; build: Set<string> })[] = [
    ...looks.flatMap(({ look }, at) =>
      likelyRows(page, look).map((row) => ({ ...row, at, build: buildOf(row) })),
    ),
    ...adverts.flatMap(({ look }) =>
      likelyRows(page, look, CLEARLY_ADVERT).map((row) => ({ ...row, at: -1, build: buildOf(row) })),
    ),
  ];
  const recurring = recurringOf(candidates.map(({ build }) => build));
  const isAdvert = ({ build, at }: { build: ReadonlySet<string>; at: number }) =>
    saidBy.some((word) => build.has(word)) ||
    adverts.some((mark) => fitsAdvert(mark, build, recurring, at === -1));
  // What lies at one place as a row and as an advert is decided by what sets adverts apart, not by likeness.
  const judged = apart(
    candidates.map((row) => ({ ...row, advert: isAdvert(row) })).filter((row) => row.advert || row.at !== -1),
  );
  return {
    rows: judged.filter(({ advert }) => !advert),
    adverts: judged.filter(({ advert }) => advert),
  };
}

/** Features that more than one candidate has: what only one has is its own words. */
function recurringOf(builds: readonly ReadonlySet<string>[]): Set<string> {
  const seen = new Set<string>();
  const again = new Set<string>();
  for (const build of builds)
    for (const feature of build)
      if (seen.has(feature)) again.add(feature);
      else seen.add(feature);
  return again;
}

function fitsAdvert(
  { own, lacks }: AdvertMark,
  build: ReadonlySet<string>,
  recurring: ReadonlySet<string>,
  onlyAdvert: boolean,
): boolean {
  const shared = [...own].filter((feature) => recurring.has(feature));
  const marks = shared.length ? shared : [...own];
  const has = marks.filter((feature) => build.has(feature)).length / Math.max(1, marks.length);
  const rowLike = lacks.size ? [...lacks].filter((feature) => build.has(feature)).length / lacks.size : null;
  if (marks.length === 0) return rowLike !== null && rowLike < 0.5;
  if (onlyAdvert && rowLike !== null && rowLike > has) return false;
  return has > 0.5 || (has === 0.5 && (rowLike ?? 0) < has);
}

function rulesOf(
  of: readonly { row: Row; example: Example }[],
  cells: readonly (readonly Cell[])[],
): FieldRule[] {
  const pointed = new Map<string, Pointed[]>();
  for (const { row, example } of of) {
    const own = cellsOf(row);
    const found = example.fields.flatMap((taught) => {
      const cell = cellOfTaught(row.page, own, taught);
      return cell ? [{ field: taught.field, cell, wanted: taught.part ?? null }] : [];
    });
    for (const { field, cell, wanted } of found) {
      const others = found.filter((other) => other.field !== field);
      const list = pointed.get(field) ?? [];
      if (list.length && list[0]!.cell.source !== cell.source) continue;
      list.push({ cell, wanted, cells: own, others });
      pointed.set(field, list);
    }
  }
  return [...pointed].map(([field, list]) => learnField(field, list, cells));
}

function cellOfTaught(page: Page, cells: readonly Cell[], { field, node, source }: TaughtField): Cell | null {
  const at = page.nodes[node]!;
  const text = cellAt(cells, at, 'text');
  const of = source ?? sourceFor(field, text?.text ?? '', addressesAt(cells, page, node));
  return of === 'text' ? text : (cellAt(cells, at, of) ?? text);
}

/** Addresses that an element, what it lies in or what lies in it leads to. */
function addressesAt(cells: readonly Cell[], page: Page, node: number): Cell[] {
  const cell = cellAt(cells, page.nodes[node]!, 'href');
  return cell ? [cell] : [];
}

/** Rules for fields that nobody has pointed at in a look, from those of other looks: by label, by mark, by shape. */
function takenOver(
  own: readonly FieldRule[],
  others: readonly FieldRule[],
  rows: readonly (readonly Cell[])[],
): FieldRule[] {
  const known = new Set(own.map(({ field }) => field));
  const found: FieldRule[] = [];
  for (const rule of others) {
    if (known.has(rule.field)) continue;
    known.add(rule.field);
    const examples = rows.slice(0, 12).flatMap((cells) => {
      const cell = likelyCell(rule, cells);
      return cell ? [{ cell, wanted: null, cells, others: [] }] : [];
    });
    if (examples.length) found.push(learnField(rule.field, examples.slice(0, 1), rows));
  }
  return found;
}

/** The cell of a row of another look that may be a field: by what is written before it, how it is called, what it looks like. */
function likelyCell(rule: FieldRule, cells: readonly Cell[]): Cell | null {
  const same = cells.filter((cell) => cell.source === rule.source);
  const marked = rule.key?.startsWith('m:') ? rule.key.slice(2).replace(/^[a-z0-9]+/, '') : null;
  const speaks = [...rule.shapes].some((shape) =>
    ['phone', 'mail', 'web', 'postcode', 'place', 'address', 'street'].includes(shape),
  );
  return (
    same.find((cell) => rule.labels.has(cell.label)) ??
    (marked ? same.find((cell) => cell.marks.some((mark) => mark.endsWith(marked))) : undefined) ??
    (speaks ? same.find((cell) => rule.shapes.has(cell.shape)) : undefined) ??
    (rule.field === 'name' ? same.find((cell) => cell.shape === 'words') : undefined) ??
    null
  );
}

/** Somewhat as alike as this, something may be a row that one more example would bring. */
const PERHAPS = 0.36;

/** What is somewhat like a row, and lies within none and no advert. */
function perhapsRows(page: Page, { looks }: Lesson, taken: readonly LikelyRow[]): number[] {
  const all = looks.flatMap(({ look }) => likelyRows(page, look, PERHAPS));
  const kept = new Set(taken.map(({ first }) => first.id));
  // What is taken comes first, so that it keeps its place against whatever overlaps it.
  return apart([...taken.map((row) => ({ ...row, likeness: 2 })), ...all])
    .filter(({ first, likeness }) => likeness < LIKE && !kept.has(first.id))
    .map(({ first }) => first.id);
}

/** Reads the rows of a page. */
export function readRows(page: Page, lesson: Lesson): PageReading {
  const { rows, adverts } = sortOut(page, lesson);
  return {
    rows: rows.map((row) => {
      const values = findValues(lesson.looks[row.at]!.rules, cellsOf(row));
      return {
        node: row.first.id,
        nodes: row.nodes.map(({ id }) => id),
        look: row.at,
        values: values.map(({ field, value, cell, sure }) => ({
          ...{ field, value, sure, node: cell.node, source: cell.source },
          take: lesson.looks[row.at]!.rules.find((rule) => rule.field === field)!.take,
        })),
        sure: Math.min(1, row.likeness),
      };
    }),
    adverts: adverts.map(({ first }) => first.id),
    perhaps: perhapsRows(page, lesson, [...rows, ...adverts]),
  };
}

/** The fields of a page that tells of one company alone, learned from one of its kind. */
export function learnDetail(page: Page, fields: readonly TaughtField[]): FieldRule[] {
  const row = rowOf(page, page.root);
  return rulesOf([{ row, example: { page: '', node: page.root.id, as: 'row', fields: [...fields] } }], []);
}

/** What a page that tells of one company says. */
export function readDetail(page: Page, rules: readonly FieldRule[]): { field: string; value: string }[] {
  return findValues(rules, cellsOf(rowOf(page, page.root))).map(({ field, value }) => ({ field, value }));
}
