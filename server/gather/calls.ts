import type { AroundAnswer, LookAnswer, LookValue } from '../../contract/gather-views.ts';
import { cleanedPage } from '../../core/gather/clean.ts';
import type { FieldRule } from '../../core/gather/field-rule.ts';
import { nextAddress, nextRule, wholeAddress, type NextRule } from '../../core/gather/follow.ts';
import {
  formsOf,
  requestOf,
  StepTrouble,
  stepWords,
  type PageRequest,
  type Step,
} from '../../core/gather/forms.ts';
import { guessAnother, guessDetail, guessRow } from '../../core/gather/guess.ts';
import { learn, learnDetail, readDetail, readRows, type Lesson } from '../../core/gather/lesson.ts';
import { parsePage, type Page } from '../../core/gather/page.ts';
import { fieldGuess, rowsAround, rowsLike } from '../../core/gather/pointed.ts';
import { pagesOfSite, siteFacts, type SiteFact } from '../../core/gather/read-site.ts';
import { refusal, type RecordValues } from '../../core/gather/records.ts';
import type { Search } from '../../core/gather/words-places.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { siteSignatures } from './signatures.ts';
import { htmlOf } from '../tables/gather/gatherers.ts';
import { sheetOf, type SheetFormat } from './sheet.ts';
import { examplesOf, type GatherSpec } from './spec.ts';

/** What the thread of gatherers is asked: all that reads a page. */

/** Pages and lessons that are kept as they were read. */
const KEPT = 12;

/** One page of results as a run takes it. */
export interface ReadPage {
  rows: { node: number; values: RecordValues }[];
  adverts: number[];
  /** Whole addresses. */
  next: string | null;
}

class Kept<V> {
  private readonly held = new Map<string, V>();

  of(key: string, make: () => V): V {
    const found = this.held.get(key) ?? make();
    this.held.delete(key);
    this.held.set(key, found);
    if (this.held.size > KEPT) this.held.delete(this.held.keys().next().value!);
    return found;
  }
}

export function gatherCalls(db: Db, universe: Db) {
  const keys = () => universe.prepare<[], string>('SELECT key FROM technology').pluck().all();
  const pages = new Kept<Page>();
  const lessons = new Kept<Lesson>();
  const details = new Kept<FieldRule[]>();
  const page = (id: number) => pages.of(String(id), () => parsePage(htmlOf(db, id).html));
  /** @throws Problem where an example points at what the page does not have */
  const nodeOf = (id: number, node: number) => {
    if (page(id).nodes[node] === undefined)
      throw new Problem('unknown-node', `Page ${id} has no element ${node}.`, {
        field: 'node',
        value: node,
        rule: `a number below ${page(id).nodes.length}`,
      });
    return node;
  };
  const lessonOf = (spec: GatherSpec) => {
    const examples = examplesOf(spec);
    spec.examples.forEach((one) =>
      [one.node, ...one.fields.map(({ node }) => node)].forEach((node) => nodeOf(one.page, node)),
    );
    return lessons.of(JSON.stringify(examples), () =>
      learn(new Map(spec.examples.map((one) => [String(one.page), page(one.page)])), examples),
    );
  };
  const detailRules = ({ detail }: GatherSpec) =>
    detail === null
      ? []
      : details.of(JSON.stringify(detail), () => {
          detail.fields.forEach(({ node }) => nodeOf(detail.page, node));
          return learnDetail(page(detail.page), detail.fields);
        });
  const nextOf = ({ next }: GatherSpec): NextRule | null | 'none' => {
    if (next.how === 'none') return 'none';
    if (next.how === 'usual' || next.page === undefined || next.node === undefined) return null;
    return nextRule(page(next.page), nodeOf(next.page, next.node));
  };
  const onward = (spec: GatherSpec, read: Page, url: string, nth: number) => {
    const rule = nextOf(spec);
    const address = rule === 'none' ? null : nextAddress(read, rule, nth);
    return address === null ? null : wholeAddress(address, url);
  };

  return {
    /** What a page comes to with what is taught. @throws Problem */
    look(id: number, spec: GatherSpec): LookAnswer {
      const read = page(id);
      const { url } = htmlOf(db, id);
      const lesson = lessonOf(spec);
      const { rows, adverts, perhaps } = readRows(read, lesson);
      const values = rows.map((row) => valuesOf(row.values, url));
      return {
        rows: rows.map(({ node, nodes, look, sure, values: found }) => ({
          ...{ node, nodes, look, sure },
          values: found.map(({ field, value, node: at }): LookValue => ({
            field,
            value: plainValue(field, value, url),
            node: at,
          })),
          example: exampleAt(spec, id, node),
        })),
        adverts,
        perhaps,
        looks: lesson.looks.map((_, i) => rows.filter(({ look }) => look === i).length),
        sure: rows.length ? rows.reduce((sum, { sure }) => sum + sure, 0) / rows.length : null,
        lacking: values.filter((one) => refusal(one, spec.needs) !== null).length,
        next: onward(spec, read, url, 1),
        forms: formsOf(read),
        guess: guessDetail(read),
        detail: readDetail(read, detailRules(spec)).map(({ field, value }) => ({ field, value, node: -1 })),
        cut: read.cut,
      };
    },

    /** What may be meant by a place on a page. @throws Problem */
    around(id: number, node: number, rows: readonly number[]): AroundAnswer {
      const read = page(id);
      nodeOf(id, node);
      const { choices, best } = rowsAround(read, node, rows);
      const rule = nextRule(read, node);
      const next = rule === null ? null : nextAddress(read, rule, 1);
      const row = choices[best]?.node;
      const { url } = htmlOf(db, id);
      const fields = row === undefined ? [] : guessRow(read, row, url);
      return {
        ...{ choices, best, fields },
        another: row === undefined ? null : guessAnother(read, rowsLike(read, row), fields, url),
        ...fieldGuess(read, choices[best]?.node ?? node, node),
        next: next === null ? null : wholeAddress(next, url),
      };
    },

    /** A page as it is safely shown. */
    shown(id: number) {
      return cleanedPage(page(id));
    },

    /** One page of results. @throws Problem */
    read(html: string, url: string, nth: number, spec: GatherSpec): ReadPage {
      const lesson = lessonOf(spec);
      const read = parsePage(html);
      const { rows, adverts } = readRows(read, lesson);
      return {
        rows: rows.map(({ node, values }) => ({ node, values: valuesOf(values, url) })),
        adverts,
        next: onward(spec, read, url, nth),
      };
    },

    /** What a page of a company's site says, and the pages that it leads to. */
    site(html: string, url: string): { facts: SiteFact[]; pages: string[] } {
      const read = parsePage(html);
      const signatures = siteSignatures();
      return { facts: siteFacts(read, signatures, keys()), pages: pagesOfSite(read, url, signatures) };
    },

    /** A file of a run's records. */
    sheet(run: string, format: SheetFormat): Promise<Uint8Array> {
      return sheetOf(db, run, format);
    },

    /** What the page of one company says. */
    detail(html: string, spec: GatherSpec): RecordValues {
      const found = readDetail(parsePage(html), detailRules(spec));
      return Object.fromEntries(found.map(({ field, value }) => [field, plainValue(field, value, '')]));
    },

    /** What steps on a page lead to; null where none of them sends anything. @throws Problem naming the step that cannot be done */
    steps(
      html: string,
      url: string,
      steps: readonly Step[],
      search: Search,
    ): { request: PageRequest; rest: Step[] } | null {
      try {
        return requestOf(parsePage(html), url, steps, search);
      } catch (error) {
        if (!(error instanceof StepTrouble)) throw error;
        throw new Problem(
          'step-not-done',
          `“${stepWords(steps[error.step]!)}” cannot be done: ${error.message}`,
          {
            field: 'spec.steps',
            rule: 'boxes, choices and buttons as the page calls them',
          },
        );
      }
    },
  };
}

export type GatherCalls = ReturnType<typeof gatherCalls>;

function exampleAt({ examples }: GatherSpec, page: number, node: number): number | null {
  const at = examples.findIndex((one) => one.page === page && one.node === node);
  return at < 0 ? null : at;
}

function valuesOf(values: readonly { field: string; value: string }[], url: string): RecordValues {
  const all: RecordValues = {};
  for (const { field, value } of values) {
    const plain = plainValue(field, value, url);
    if (plain !== '') all[field] = plain;
  }
  return all;
}

/** A value as it is kept: on one line, addresses whole and without what only a link needs. */
function plainValue(field: string, value: string, url: string): string {
  if (field === 'page') return url === '' ? value : (wholeAddress(value, url) ?? '');
  return value
    .replace(/^(?:mailto:|tel:)/i, '')
    .replace(/\s+/g, ' ')
    .trim();
}
