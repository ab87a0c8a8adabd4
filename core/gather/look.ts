import { elementsIn, holds, type Page, type PageElement } from './page.ts';
import { buildOf, rowOf, runFrom, trailOf, type Row } from './row.ts';

/**
 * A look: how the rows of one build are told from all else of a page. It is learned from examples, each a row that somebody
 * pointed at, and generalised to what all of them share:
 *
 *     examples ──► features with their share ──► likeness of any element ──► rows
 *                        ▲                                                    │
 *                        └────────── shares among rows that are surely so ────┘
 */
export interface Look {
  tag: string;
  /** Whether a row goes on over the neighbours of its element. */
  runs: boolean;
  /** Features of its rows, and how many of them have it, from 0 to 1. */
  shares: ReadonlyMap<string, number>;
  trails: readonly (readonly string[])[];
  /** Nodes of its examples: the least, and the most. */
  sizes: readonly [number, number];
}

/** An element as likely to be a row as this, of 1, is one. */
export const LIKE = 0.5;
/** Rows as alike as this are taken as if they were examples, to learn which features all rows have. */
const SURE = 0.62;
/** How much a feature weighs that is missing, or is too much, against one that is shared. */
const [MISSING, EXTRA] = [0.45, 0.6];
/** Elements of a page that are compared at most. */
const MOST_COMPARED = 6000;
/** How many times smaller or larger than its examples a row may be. */
const SIZE = 8;

/** Weight of a feature in the build of a row; words say nothing of it. */
const weightOf = (feature: string) => (feature.startsWith('x:') ? 0 : feature.startsWith('t:') ? 1 : 1.5);

export function lookOf(rows: readonly Row[], runs: boolean): Look {
  const sizes = rows.map(sizeOf);
  return {
    tag: rows[0]!.first.tag,
    runs,
    shares: sharesOf(rows.map(buildOf)),
    trails: rows.map(({ first }) => trailOf(first)),
    sizes: [Math.min(...sizes), Math.max(...sizes)],
  };
}

/** The look with the shares that its sure rows have, on the pages it is taught on. */
export function refined(look: Look, rows: readonly (Row & { likeness: number })[]): Look {
  const sure = rows.filter(({ likeness }) => likeness >= SURE);
  if (sure.length < 4) return look;
  const found = sharesOf(sure.map(buildOf));
  const shares = new Map<string, number>();
  for (const [feature, share] of found) if (share > 0.04) shares.set(feature, share);
  // An example's own features stay, however rare.
  for (const [feature, share] of look.shares)
    shares.set(feature, Math.max(shares.get(feature) ?? 0, 0.15 * share));
  return { ...look, shares };
}

function sharesOf(builds: readonly ReadonlySet<string>[]): Map<string, number> {
  const shares = new Map<string, number>();
  for (const build of builds)
    for (const feature of build) shares.set(feature, (shares.get(feature) ?? 0) + 1 / builds.length);
  return shares;
}

const sizeOf = ({ nodes }: Row) =>
  nodes.reduce((sum, node) => sum + (node.kind === 'element' ? node.last - node.id + 1 : 1), 0);

/** How alike the build of a row is to a look's, from 0 to 1. */
export function likenessTo(look: Look, build: ReadonlySet<string>): number {
  let [shared, missing, extra] = [0, 0, 0];
  for (const [feature, share] of look.shares) {
    const weight = weightOf(feature);
    if (build.has(feature)) shared += weight * Math.sqrt(share);
    else missing += weight * share * share;
  }
  for (const feature of build) if (!look.shares.has(feature)) extra += weightOf(feature);
  const all = shared + MISSING * missing + EXTRA * extra;
  // A row of words alone is built of nothing: its place on the page decides.
  return all === 0 ? 1 : shared / all;
}

/** How alike the place of an element is to those of a look's examples, from 0 to 1. */
function placeLikeness(look: Look, element: PageElement): number {
  const trail = trailOf(element);
  return Math.max(...look.trails.map((other) => alikeTrails(trail, other)));
}

/** Steps that two trails share in one order, against the longer one; a step of the same tag with other marks is half of one. */
function alikeTrails(a: readonly string[], b: readonly string[]): number {
  if (a.length > 60 || b.length > 60) return Number(a.length === b.length);
  const worth = (x: string, y: string) => (x === y ? 1 : tagOf(x) === tagOf(y) ? 0.5 : 0);
  let above = new Float64Array(b.length + 1);
  for (const step of a) {
    const row = new Float64Array(b.length + 1);
    b.forEach((other, j) => {
      row[j + 1] = Math.max(above[j]! + worth(step, other), above[j + 1]!, row[j]!);
    });
    above = row;
  }
  return above[b.length]! / Math.max(a.length, b.length);
}

const tagOf = (step: string) => /^[^.[]*/.exec(step)![0];

export interface LikelyRow extends Row {
  likeness: number;
}

/** All that may be a row of a look, however unlikely, without nesting or overlapping ones. */
export function likelyRows(page: Page, look: Look, least = LIKE): LikelyRow[] {
  const found: LikelyRow[] = [];
  let compared = 0;
  for (const element of elementsIn(page, page.root)) {
    if (element.tag !== look.tag || element.parent === null) continue;
    const size = element.last - element.id + 1;
    if (!look.runs && (size > look.sizes[1] * SIZE || size * SIZE < look.sizes[0])) continue;
    const place = placeLikeness(look, element);
    if (place < 0.5) continue;
    if (++compared > MOST_COMPARED) break;
    const row = look.runs
      ? runFrom(page, element, (other) => beginsAnother(look, other))
      : rowOf(page, element);
    const likeness = likenessTo(look, buildOf(row)) * (0.4 + 0.6 * place);
    if (likeness >= least) found.push({ ...row, likeness });
  }
  return apart(found);
}

/** Whether an element begins a row of a look that runs over neighbours. */
function beginsAnother(look: Look, element: PageElement): boolean {
  return element.tag === look.tag;
}

/** Of rows that lie within one another, the likeliest. */
export function apart<R extends LikelyRow>(rows: readonly R[]): R[] {
  const taken: R[] = [];
  const inOrder = [...rows].sort((a, b) => b.likeness - a.likeness || a.first.id - b.first.id);
  const bounds: [number, number][] = [];
  for (const row of inOrder) {
    const [from, to] = extentOf(row);
    if (bounds.some(([a, b]) => from <= b && a <= to)) continue;
    bounds.push([from, to]);
    taken.push(row);
  }
  return taken.sort((a, b) => a.first.id - b.first.id);
}

/** The first and last number of a row's nodes. */
export function extentOf({ first, nodes }: Row): [number, number] {
  const end = nodes[nodes.length - 1]!;
  return [first.id, end.kind === 'element' ? end.last : end.id];
}

/** Whether a row holds a node. */
export const rowHolds = ({ nodes }: Row, id: number, page: Page) =>
  nodes.some((node) => (node.kind === 'element' ? holds(node, page.nodes[id]!) : node.id === id));
