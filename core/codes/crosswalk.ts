import { Pass, type CodeTree, type Scheme } from './tree.ts';

/** How two codes of different schemes overlap: whole, one within the other, in part, or in part and not proved. */
export type LinkKind = 'exact' | 'part-of' | 'covers' | 'partial' | 'unproved';

export interface CodeLink {
  from: Scheme;
  code: string;
  to: Scheme;
  target: string;
  kind: LinkKind;
}

/** A code of another scheme that shares activities with one. `sure` only where all of the code's activities lie in it. */
export interface Kin {
  scheme: Scheme;
  code: string;
  kind: LinkKind | 'chain';
  sure: boolean;
}

/**
 * Links between the schemes. Tables join NACE 2.1, NACE 2 and ISIC 4 with each other, ISIC 4 with NAICS 2022, and
 * NAICS 2022 with SIC 1987; all other pairs are reached by chains of tables, which make a link
 * possible and never sure, since each step may widen.
 */
export class Crosswalk {
  private readonly links = new Map<string, CodeLink[]>();
  private readonly leaves = new Map<string, LeafTargets>();
  private readonly saying = new Map<string, number[][]>();
  private readonly joined = new Map<Scheme, Set<Scheme>>();
  private readonly trees: ReadonlyMap<Scheme, CodeTree>;

  constructor(trees: ReadonlyMap<Scheme, CodeTree>, links: Iterable<CodeLink>) {
    this.trees = trees;
    for (const link of links) {
      const key = `${link.from} ${link.code} ${link.to}`;
      const known = this.links.get(key);
      if (known) known.push(link);
      else this.links.set(key, [link]);
      if (!this.joined.has(link.from)) this.joined.set(link.from, new Set());
      this.joined.get(link.from)!.add(link.to);
    }
  }

  /** Schemes in between on the shortest way of tables from one scheme to another, both ends included; null where there is none. */
  private way(from: Scheme, to: Scheme): Scheme[] | null {
    const ways: Scheme[][] = [[from]];
    const seen = new Set([from]);
    for (const way of ways) {
      const last = way.at(-1)!;
      if (last === to) return way;
      for (const next of this.joined.get(last) ?? [])
        if (!seen.has(next)) {
          seen.add(next);
          ways.push([...way, next]);
        }
    }
    return null;
  }

  /** Codes of `to` that share activities with a code of `from`, by tables alone or by a chain of them. */
  targets(from: Scheme, code: string, to: Scheme): { codes: CodeLink[]; chained: boolean } {
    const way = this.way(from, to);
    if (!way || way.length === 1) return { codes: [], chained: false };
    let codes = [code];
    let last: CodeLink[] = [];
    for (let i = 1; i < way.length; i++) {
      const found = new Map<string, CodeLink>();
      for (const one of codes)
        for (const link of this.links.get(`${way[i - 1]} ${one} ${way[i]}`) ?? [])
          if (!found.has(link.target)) found.set(link.target, link);
      last = [...found.values()];
      codes = last.map((link) => link.target);
    }
    return { codes: last, chained: way.length > 2 };
  }

  /** The kin of a code in all other schemes, by scheme, sure ones first. */
  kinOf(scheme: Scheme, code: string): Kin[] {
    return [...this.trees.keys()]
      .filter((other) => other !== scheme)
      .flatMap((other) => {
        const { codes, chained } = this.targets(scheme, code, other);
        return codes
          .map(({ target, kind }): Kin => ({
            scheme: other,
            code: target,
            kind: chained ? 'chain' : kind,
            sure: !chained && (kind === 'exact' || kind === 'part-of'),
          }))
          .sort((a, b) => Number(b.sure) - Number(a.sure));
      });
  }

  /**
   * What the codes of another scheme say to a test on codes of `scheme`, whose own codes say `pass`:
   * yes where all that a code is linked with passes, no where none of it does, else unknown. Chains
   * never say yes. With `possible`, one link that may pass is a yes.
   */
  passIn(other: Scheme, scheme: Scheme, pass: Uint8Array, possible: boolean): Uint8Array {
    const others = this.trees.get(other)!;
    const { targets, never } = this.leafTargets(other, scheme);
    const found = new Uint8Array(others.size);
    for (let node = others.size - 1; node >= 0; node--)
      found[node] = others.isLeaf(node)
        ? leafPass(targets[node]!, never[node] === 1, pass, possible)
        : others.joinedPass(node, found);
    return found;
  }

  /** By code of another scheme, the codes of `scheme` that it says yes to, as `passIn` has it; worked out once. */
  sayingYes(other: Scheme, scheme: Scheme, possible: boolean): readonly (readonly number[])[] {
    const key = `${other} ${scheme} ${possible}`;
    let found = this.saying.get(key);
    if (!found) {
      const tree = this.trees.get(scheme)!;
      const lists: number[][] = Array.from({ length: this.trees.get(other)!.size }, () => []);
      for (let node = 0; node < tree.size; node++) {
        const pass = tree.passOf([tree.codes[node]!], []);
        this.passIn(other, scheme, pass, possible).forEach((said, code) => {
          if (said === Pass.Yes) lists[code]!.push(node);
        });
      }
      this.saying.set(key, (found = lists));
    }
    return found;
  }

  /** By node of one scheme, the nodes of another that each of its lowest codes is linked with; worked out once. */
  leafTargets(from: Scheme, to: Scheme): LeafTargets {
    const key = `${from} ${to}`;
    let found = this.leaves.get(key);
    if (!found) {
      const tree = this.trees.get(from)!;
      const aim = this.trees.get(to)!;
      const never = new Uint8Array(tree.size);
      const targets = tree.codes.map((code, node) => {
        if (!tree.isLeaf(node)) return [];
        const { codes, chained } = this.targets(from, code, to);
        never[node] = Number(chained || leavesOthersOut(codes));
        return codes.map(({ target }) => aim.nodeOf(target));
      });
      found = { targets, chained: (this.way(from, to)?.length ?? 0) > 2, never };
      this.leaves.set(key, found);
    }
    return found;
  }
}

/** What the lowest codes of one scheme are linked with in another, by node. */
export interface LeafTargets {
  targets: number[][];
  chained: boolean;
  /** 1 where the links never say yes for sure: reached by a chain, or known not to be all there are. */
  never: Uint8Array;
}

/** Whether the one link of a code is of a kind that has others beside it, which are then not in the tables. */
function leavesOthersOut(links: readonly CodeLink[]): boolean {
  return links.length === 1 && links[0]!.kind !== 'exact' && links[0]!.kind !== 'part-of';
}

/** What a code says that is linked with some nodes; `never` where that is never sure. */
function leafPass(targets: readonly number[], never: boolean, pass: Uint8Array, possible: boolean): Pass {
  let yes = 0;
  let no = 0;
  for (const node of targets) {
    if (pass[node] === Pass.Yes) yes++;
    else if (pass[node] === Pass.No) no++;
  }
  if (targets.length === 0) return Pass.Unknown;
  if (no === targets.length) return Pass.No;
  if (possible || (yes === targets.length && !never)) return Pass.Yes;
  return Pass.Unknown;
}

/** Reads a table of links: tab-separated, columns from_scheme, from_code, to_scheme, to_code, kind, one header row. */
export function readCrosswalk(trees: ReadonlyMap<Scheme, CodeTree>, tsv: string): Crosswalk {
  function* links(): Generator<CodeLink> {
    for (const row of tsv.split('\n').slice(1)) {
      if (row === '') continue;
      const [from, code, to, target, kind] = row.split('\t') as [Scheme, string, Scheme, string, LinkKind];
      yield { from, code, to, target, kind };
    }
  }
  return new Crosswalk(trees, links());
}
