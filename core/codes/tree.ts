/** Industry classification schemes as trees over flat arrays. */

export const SCHEMES = {
  'nace-2.1': 'NACE 2.1',
  'nace-2': 'NACE 2',
  'isic-4': 'ISIC 4',
  'naics-2022': 'NAICS 2022',
  'sic-1987': 'SIC 1987',
} as const;

export type Scheme = keyof typeof SCHEMES;

/** True for the key of a scheme that Just Tally ships. */
export function isScheme(text: unknown): text is Scheme {
  return typeof text === 'string' && Object.hasOwn(SCHEMES, text);
}

/** A scheme by its name or key, case and punctuation aside; undefined where there is none. */
export function schemeNamed(text: string): Scheme | undefined {
  const plain = (one: string) => one.toLowerCase().replace(/[^a-z0-9]/g, '');
  return (Object.keys(SCHEMES) as Scheme[]).find((key) =>
    [key, SCHEMES[key]].some((one) => plain(one) === plain(text)),
  );
}

export interface CodeRow {
  code: string;
  level: number;
  parent: string;
  title: string;
}

/** What a code says about a test on codes: it passes, it fails, or it is too coarse to tell. */
export const enum Pass {
  No = 0,
  Yes = 1,
  Unknown = 2,
}

/**
 * One scheme. Nodes are numbered in tree order, so the codes below node `n` are the contiguous
 * run `n + 1 … end[n] - 1`:
 *
 *     C(0) ─ 16(1) ─ 16.1(2) ─ 16.11(3)
 *                  └ 16.2(4) ─ 16.21(5)      end[1] = 6
 */
export class CodeTree {
  readonly scheme: Scheme;
  readonly codes: string[] = [];
  readonly titles: string[] = [];
  readonly levels: Uint8Array;
  /** Parent node, or -1 at the top. */
  readonly parents: Int32Array;
  /** One past the last node below this one. */
  readonly ends: Int32Array;
  private readonly nodeOfCode = new Map<string, number>();

  constructor(scheme: Scheme, rows: CodeRow[]) {
    this.scheme = scheme;
    this.levels = new Uint8Array(rows.length);
    this.parents = new Int32Array(rows.length);
    this.ends = new Int32Array(rows.length);
    const below = new Map<string, CodeRow[]>();
    for (const row of rows) below.set(row.parent, [...(below.get(row.parent) ?? []), row]);
    this.append(below, '', -1);
    if (this.codes.length !== rows.length)
      throw new Error(
        `${scheme}: ${rows.length - this.codes.length} codes hang on a parent that is not there.`,
      );
  }

  private append(below: Map<string, CodeRow[]>, parent: string, parentNode: number): void {
    for (const row of below.get(parent) ?? []) {
      const node = this.codes.push(row.code) - 1;
      this.titles.push(row.title);
      this.levels[node] = row.level;
      this.parents[node] = parentNode;
      this.nodeOfCode.set(row.code, node);
      this.append(below, row.code, node);
      this.ends[node] = this.codes.length;
    }
  }

  get size(): number {
    return this.codes.length;
  }

  /** The node of a code as written in the scheme, or -1. */
  nodeOf(code: string): number {
    return this.nodeOfCode.get(code) ?? -1;
  }

  /** The node of a code as people write it: spaces, missing dots and lost leading letters forgiven; -1 where there is none. */
  nodeOfLoose(text: string): number {
    const tight = text.trim().toUpperCase().replace(/\s+/g, '');
    const exact = this.nodeOf(tight);
    if (exact >= 0) return exact;
    const figures = tight.replace(/^[A-Z](?=\d)/, '').replace(/[.\-/]/g, '');
    if (!/^\d{1,6}$/.test(figures)) return -1;
    const dotted =
      this.scheme.startsWith('nace') && figures.length > 2
        ? `${figures.slice(0, 2)}.${figures.slice(2)}`
        : figures;
    return this.nodeOf(dotted);
  }

  isLeaf(node: number): boolean {
    return this.ends[node] === node + 1;
  }

  /** The node that a node is the only one right below, so that both say the same; -1 where it has others beside it. */
  onlyChildOf(node: number): number {
    const parent = this.parents[node]!;
    return parent === node - 1 && parent >= 0 && this.ends[parent] === this.ends[node] ? parent : -1;
  }

  /**
   * What every code of the scheme says to "any of these, except those". A code stands for one of
   * the lowest codes below it, not known which: it passes if all of them pass, fails if none does,
   * and is unknown if some do (25 where 25.51 is asked).
   */
  passOf(any: readonly string[], except: readonly string[]): Uint8Array {
    const picked = this.covered(any);
    const left = this.covered(except);
    const pass = new Uint8Array(this.size);
    for (let node = this.size - 1; node >= 0; node--) {
      if (this.isLeaf(node)) pass[node] = picked[node]! && !left[node]! ? Pass.Yes : Pass.No;
      else pass[node] = this.joinedPass(node, pass);
    }
    return pass;
  }

  /** What a code with others below it says, from what those say: the same if they all say it, else unknown. */
  joinedPass(node: number, pass: Uint8Array): Pass {
    let child = node + 1;
    const state: Pass = pass[child]!;
    for (child = this.ends[child]!; child < this.ends[node]!; child = this.ends[child]!)
      if (pass[child] !== state) return Pass.Unknown;
    return state;
  }

  private covered(codes: readonly string[]): Uint8Array {
    const covered = new Uint8Array(this.size);
    for (const code of codes) {
      const node = this.nodeOf(code);
      if (node < 0) throw new RangeError(`${SCHEMES[this.scheme]} has no code "${code}".`);
      covered.fill(1, node, this.ends[node]);
    }
    return covered;
  }
}

/** Reads a table of codes: tab-separated, columns code, level, parent, title, one header row. */
export function readCodeTable(scheme: Scheme, tsv: string): CodeTree {
  const rows = tsv.split('\n').slice(1).filter(Boolean);
  return new CodeTree(
    scheme,
    rows.map((row) => {
      const [code, level, parent, title] = row.split('\t');
      return { code: code!, level: Number(level), parent: parent!, title: title! };
    }),
  );
}
