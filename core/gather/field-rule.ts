import { labelWithin, type Cell } from './cells.ts';
import { labelIn, type Shape } from './shape.ts';
import { taken, takesFor, type Take } from './take.ts';

/** A value pointed at in a row. */
export interface Pointed {
  cell: Cell;
  /** The part of it that was marked; null where all of it is meant. */
  wanted: string | null;
  /** All cells of its row. */
  cells: readonly Cell[];
  /** The other values that were pointed at in its row. */
  others: readonly { field: string; cell: Cell }[];
}

/** How the cell of a field is told from the others of a row, learned from where it was pointed at. */
export interface FieldRule {
  field: string;
  source: string;
  take: Take;
  /** What its cell must have. */
  key: Feature | null;
  /** Whether the key singles it out, so that what it looks like does not matter. */
  single: boolean;
  shapes: ReadonlySet<Shape>;
  labels: ReadonlySet<string>;
  /** Words that stand before values of many rows, its own or others'. */
  known: ReadonlySet<string>;
  /** What else speaks for a cell, and how much. */
  weights: ReadonlyMap<Feature, number>;
  most: number;
  /** Fields that stand before it, and behind. */
  before: ReadonlySet<string>;
  after: ReadonlySet<string>;
}

/** `m` what it is called by, `l` the label before it, `w` the label within it, `q` its path of tags, `i` its place, `s` its shape. */
type Feature = `${'m' | 'l' | 'w' | 'q' | 'i' | 's'}:${string}`;

/** How far a feature of a kind can be trusted to mean the field, rather than to happen to be there. */
const TRUST = { m: 1, l: 0.95, w: 0.95, q: 0.8, s: 0.5, i: 0.35 } as const;
/** What stands before a value may be another value; a path that tells as much is trusted more. */
const UNCLEAR_LABEL = 0.75;
const trustOf = (feature: Feature) =>
  feature.startsWith('l:') && !isClearLabel(feature.slice(2))
    ? UNCLEAR_LABEL
    : TRUST[feature[0] as keyof typeof TRUST];

function featuresOf(cell: Cell): Feature[] {
  const within = labelWithin(cell.text);
  return [
    ...cell.marks.map((mark): Feature => `m:${mark}`),
    ...(cell.label ? ([`l:${cell.label}`] as const) : []),
    ...(within ? ([`w:${within}`] as const) : []),
    // A text beside elements stands where a text alone would.
    `q:${cell.path.endsWith('>#') ? cell.path.slice(0, -2) : cell.path}`,
    `i:${cell.index}`,
    `s:${cell.shape}`,
  ];
}

/** Shapes that say what a value is. */
const SPEAKS: ReadonlySet<Shape> = new Set(['phone', 'mail', 'web', 'postcode', 'address', 'place', 'date']);
/** Shapes that one field is written in, now in the one, now in the other. */
const ALIKE: readonly (readonly Shape[])[] = [
  ['phone', 'number'],
  ['postcode', 'number', 'place'],
  ['address', 'place', 'street'],
  ['words', 'street', 'place'],
  ['web', 'words'],
];
const fits = (wanted: ReadonlySet<Shape>, shape: Shape) =>
  wanted.has(shape) || ALIKE.some((group) => group.includes(shape) && group.some((one) => wanted.has(one)));

/**
 * The rule of a field from the places that were pointed at.
 * @param rows cells of all rows of the look that are known by now
 */
export function learnField(
  field: string,
  pointed: readonly Pointed[],
  rows: readonly (readonly Cell[])[],
): FieldRule {
  const source = pointed[0]!.cell.source;
  const same = (cells: readonly Cell[]) => cells.filter((cell) => cell.source === source);
  const shared = pointed
    .map(({ cell }) => featuresOf(cell))
    .reduce((all, own) => all.filter((feature) => own.includes(feature)));
  const population = rows.length ? rows : pointed.map(({ cells }) => cells);
  const known = knownLabels(population);
  const values = new Set(pointed.flatMap(({ others }) => others.map(({ cell }) => cell.text)));
  const isLabel = (feature: Feature) =>
    feature[0] !== 'l' || (known.has(feature.slice(2)) && !isValueOf(feature, values));

  const gains = new Map<Feature, number>();
  for (const feature of new Set(shared)) {
    if (!isLabel(feature)) continue;
    const gain = pointed.reduce((sum, { cells }) => {
      const all = same(cells);
      const having = all.filter((cell) => featuresOf(cell).includes(feature)).length;
      return sum + Math.log2((all.length + 1) / Math.max(1, having));
    }, 0);
    gains.set(feature, gain / pointed.length);
  }

  const shapes = new Set(pointed.map(({ cell }) => cell.shape));
  let key: { feature: Feature; worth: number } | null = null;
  for (const [feature, gain] of gains) {
    if (feature[0] === 's') continue;
    const { share, purity } = howCommon(feature, source, population, shapes);
    const worth = gain * Math.sqrt(share) * purity * trustOf(feature);
    if (worth > (key?.worth ?? 0)) key = { feature, worth };
  }
  const single =
    key !== null &&
    trustOf(key.feature) >= 0.95 &&
    pointed.every(
      ({ cells }) => same(cells).filter((cell) => featuresOf(cell).includes(key.feature)).length === 1,
    );
  const own = new Set(pointed.map(({ cell }) => `l:${cell.label}` as const));
  if (
    key !== null &&
    !own.has(key.feature as `l:${string}`) &&
    !isLabelled(key.feature, own, source, population)
  )
    own.forEach((label) => gains.delete(label));
  const weights = new Map([...gains].map(([feature, gain]) => [feature, gain * trustOf(feature)]));
  return {
    field,
    source,
    take: takeOf(field, pointed),
    key: key?.feature ?? null,
    single,
    shapes,
    labels: new Set(pointed.map(({ cell }) => cell.label).filter((label) => weights.has(`l:${label}`))),
    known,
    weights,
    most: [...weights.values()].reduce((sum, weight) => sum + weight, 0),
    before: sides(pointed, (own, other) => other.node < own.node),
    after: sides(pointed, (own, other) => other.node > own.node),
  };
}

function takeOf(field: string, pointed: readonly Pointed[]): Take {
  const [first, ...others] = pointed.map(({ cell, wanted }) => takesFor(field, cell.text, wanted));
  return first!.find((take) => others.every((own) => own.includes(take))) ?? first![0] ?? 'whole';
}

/** A text that was pointed at as a value is no label of the next. */
const isValueOf = (feature: Feature, values: ReadonlySet<string>) =>
  [...values].some((value) => labelIn(value) === feature.slice(2));

/** Words before values that many rows share. */
function knownLabels(rows: readonly (readonly Cell[])[]): Set<string> {
  const counts = new Map<string, number>();
  for (const cells of rows)
    for (const label of new Set(cells.map((cell) => cell.label).filter(Boolean)))
      counts.set(label, (counts.get(label) ?? 0) + 1);
  const least = rows.length < 4 ? 1 : Math.max(2, 0.15 * rows.length);
  return new Set([...counts].filter(([, count]) => count >= least).map(([label]) => label));
}

/** In how many rows a feature is found, and how many of those cells look like the ones pointed at. */
function howCommon(
  feature: Feature,
  source: string,
  rows: readonly (readonly Cell[])[],
  shapes: ReadonlySet<Shape>,
): { share: number; purity: number } {
  let [found, alike, all] = [0, 0, 0];
  for (const cells of rows) {
    const having = cells.filter((cell) => cell.source === source && featuresOf(cell).includes(feature));
    if (having.length) found++;
    all += having.length;
    alike += having.filter(({ shape }) => fits(shapes, shape)).length;
  }
  return { share: found / Math.max(1, rows.length), purity: all === 0 ? 1 : alike / all };
}

/** Of cells that a key alone finds, so many must have a label of those that are clear for it to be theirs. */
const LABELLED = 0.9;

/** Whether the cells that a key finds are told apart by a label, or all have it. */
function isLabelled(
  key: Feature,
  labels: ReadonlySet<Feature>,
  source: string,
  rows: readonly (readonly Cell[])[],
): boolean {
  let [found, having, inRows] = [0, 0, 0];
  for (const cells of rows) {
    const own = cells.filter((cell) => cell.source === source && featuresOf(cell).includes(key));
    found += own.length;
    if (own.length) inRows++;
    having += own.filter((cell) => labels.has(`l:${cell.label}`)).length;
  }
  // What stands before all of them may be what they have in common, such as the trade that was searched for.
  const clear = [...labels].every((label) => isClearLabel(label.slice(2)));
  return found > 1.2 * inRows || (clear && having >= LABELLED * found);
}

function sides(pointed: readonly Pointed[], is: (own: Cell, other: Cell) => boolean): Set<string> {
  const all = pointed.map(
    ({ cell, others }) => new Set(others.filter((other) => is(cell, other.cell)).map(({ field }) => field)),
  );
  return all.reduce((both, own) => new Set([...both].filter((field) => own.has(field))));
}

/** Costs of standing on the wrong side of a field that is found already. */
const MISPLACED = 1.6;
/** Of all that may speak for a cell, the least that is asked for. */
const LEAST = 0.4;

export interface FoundValue {
  field: string;
  cell: Cell;
  value: string;
  /** From 0 to 1. */
  sure: number;
}

/** The values of a row by the rules of its look. No cell is two fields, unless the rules take different parts of it. */
export function findValues(rules: readonly FieldRule[], cells: readonly Cell[]): FoundValue[] {
  const features = cells.map(featuresOf);
  const found = new Map<string, FoundValue>();
  const used = new Set<string>();
  const inOrder = [...rules].sort((a, b) => Number(b.single) - Number(a.single) || b.most - a.most);
  for (const rule of inOrder) {
    let best: FoundValue | null = null;
    cells.forEach((cell, i) => {
      if (cell.source !== rule.source || !mayBe(rule, cell, features[i]!)) return;
      if (used.has(`${cell.node} ${cell.source} ${rule.take}`)) return;
      let score = features[i]!.reduce((sum, feature) => sum + (rule.weights.get(feature) ?? 0), 0);
      for (const other of found.values())
        if (
          (rule.before.has(other.field) && other.cell.node > cell.node) ||
          (rule.after.has(other.field) && other.cell.node < cell.node)
        )
          score -= MISPLACED;
      const sure = rule.most === 0 ? 1 : score / rule.most;
      if (sure < LEAST || (best !== null && sure <= best.sure)) return;
      const value = taken(rule.take, cell.text);
      if (value !== '') best = { field: rule.field, cell, value, sure };
    });
    if (best === null) continue;
    const { cell } = best as FoundValue;
    found.set(rule.field, best);
    used.add(`${cell.node} ${cell.source} ${rule.take}`);
    // What is one field whole is no other one.
    if (rule.take === 'whole') used.add(`${cell.node} ${cell.source} bare`);
    if (rule.take === 'bare') used.add(`${cell.node} ${cell.source} whole`);
  }
  return rules.flatMap(({ field }) => found.get(field) ?? []);
}

function mayBe(rule: FieldRule, cell: Cell, features: readonly Feature[]): boolean {
  if (rule.key !== null && !features.includes(rule.key)) return false;
  if (rule.labels.size && !rule.labels.has(cell.label)) {
    if (cell.label !== '' && rule.known.has(cell.label)) return false;
    if (![...rule.shapes].every((shape) => SPEAKS.has(shape))) return false;
  }
  // A field without a label of its own is not what stands behind another's.
  if (!rule.labels.size && !rule.single && rule.known.has(cell.label) && isClearLabel(cell.label))
    return false;
  return rule.single || fits(rule.shapes, cell.shape);
}

/** Words that only ever stand before a number or an address. */
const isClearLabel = (label: string) =>
  /^(?:tel|phone|fax|mobil|mail|e-mail|web|www|telefon|tlf|puh)\b/.test(label);
