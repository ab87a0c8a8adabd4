/** Positions in the order of a tape, from and to, both included. */
export type Run = readonly [from: number, to: number];

/** Some, by key and as runs of the order at hand. */
export interface SomePicks {
  mode: 'some';
  /** With the position each had when it was picked. */
  keys: ReadonlyMap<string, number>;
  /** Ascending and apart. They hold for the tape and order in which they were picked, and end with them. */
  runs: readonly Run[];
  /** Rows of runs that were let go again. */
  except: ReadonlyMap<string, number>;
}

/** Which rows are picked: some, or all of the tape but some. */
export type Picks = SomePicks | { mode: 'all'; except: ReadonlySet<string> };

export const NO_PICKS: SomePicks = { mode: 'some', keys: new Map(), runs: [], except: new Map() };

export interface PickedRow {
  key: string;
  at: number;
}

export function isPicked(picks: Picks, key: string, at: number): boolean {
  if (picks.mode === 'all') return !picks.except.has(key);
  return picks.keys.has(key) || (inRuns(picks.runs, at) && !picks.except.has(key));
}

/** How many are picked, of a tape of `total`; those by key may no longer pass it. */
export function pickedCount(picks: Picks, total: number): number {
  if (picks.mode === 'all') return Math.max(0, total - picks.except.size);
  const inRun = picks.runs.reduce((sum, [from, to]) => sum + Math.min(to, total - 1) - from + 1, 0);
  return picks.keys.size + inRun - picks.except.size;
}

/** The picks with some rows picked or let go. */
export function withPicked(picks: Picks, rows: Iterable<PickedRow>, picked: boolean): Picks {
  if (picks.mode === 'all') {
    const except = new Set(picks.except);
    for (const { key } of rows) {
      if (picked) except.delete(key);
      else except.add(key);
    }
    return { mode: 'all', except };
  }
  const keys = new Map(picks.keys);
  const except = new Map(picks.except);
  for (const { key, at } of rows) {
    const within = inRuns(picks.runs, at);
    if (picked) {
      if (within) except.delete(key);
      else keys.set(key, at);
    } else {
      keys.delete(key);
      if (within) except.set(key, at);
    }
  }
  return { ...picks, keys, except };
}

/** The picks with a whole run of the order picked or let go, whatever its length. */
export function withRun(picks: SomePicks, run: Run, picked: boolean): SomePicks {
  const outside = (rows: ReadonlyMap<string, number>) =>
    new Map([...rows].filter(([, at]) => at < run[0] || at > run[1]));
  return {
    mode: 'some',
    keys: outside(picks.keys),
    runs: picked ? joined([...picks.runs, run]) : picks.runs.flatMap((own) => without(own, run)),
    except: outside(picks.except),
  };
}

/** Whether the picks hold for one order alone, so that they end with it. */
export function endsWithOrder(picks: Picks): boolean {
  return picks.mode === 'all' ? false : picks.runs.length > 0;
}

/** The part of a request that says what is picked; empty for all of the tape. */
export function picksBody(picks: Picks): { keys?: string[]; ranges?: Run[]; except?: string[] } {
  const except = picks.mode === 'all' ? [...picks.except] : [...picks.except.keys()];
  return {
    ...(picks.mode === 'some' && (picks.keys.size || picks.runs.length)
      ? { keys: [...picks.keys.keys()], ranges: [...picks.runs] }
      : {}),
    ...(except.length ? { except } : {}),
  };
}

function inRuns(runs: readonly Run[], at: number): boolean {
  return runs.some(([from, to]) => at >= from && at <= to);
}

function joined(runs: readonly Run[]): Run[] {
  const found: [number, number][] = [];
  for (const [from, to] of [...runs].sort((a, b) => a[0] - b[0])) {
    const last = found.at(-1);
    if (last && from <= last[1] + 1) last[1] = Math.max(last[1], to);
    else found.push([from, to]);
  }
  return found;
}

function without([from, to]: Run, [a, b]: Run): Run[] {
  const parts: Run[] = [
    [from, Math.min(to, a - 1)],
    [Math.max(from, b + 1), to],
  ];
  return parts.filter(([start, end]) => start <= end);
}
