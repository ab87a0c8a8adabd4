import type { Cell, CodeCell } from '../cells.ts';
import { fieldOf } from '../fields/registry.ts';
import { isBlock, isHas, isLive, type CodesTest, type FieldLine, type Line } from '../tape/nodes.ts';

/** Why records of a sample passed the lines of a tape, and which of these groups miss most. */

/** A judged record of a sample: whether it fits, and its cells by field. */
export interface JudgedRecord {
  fits: boolean;
  cells: Readonly<Record<string, Cell>>;
}

/** Records that passed a line in one way, such as by an unknown that was kept. */
export interface SurvivorGroup {
  /** Id of the line. */
  line: string;
  label: string;
  how: string;
  judged: number;
  misses: number;
  /** Share of the others that fits, from 0 to 1; null where none is left. */
  without: number | null;
}

/** Groups of fewer say nothing. */
const LEAST = 3;

/** The ways in which judged records passed the lines of a tape, those that miss most first. */
export function survivorGroups(
  lines: readonly Line[],
  subject: string,
  records: readonly JudgedRecord[],
): SurvivorGroup[] {
  const all = records.length;
  const missed = records.filter(({ fits }) => !fits).length;
  const groups = new Map<string, SurvivorGroup>();
  for (const line of lines) {
    if (isBlock(line) || isHas(line) || !isLive(line)) continue;
    const { label } = fieldOf(subject, line.field)!;
    for (const { fits, cells } of records) {
      const how = wayThrough(line, cells[line.field]);
      if (how === null) continue;
      const name = `${line.id} ${how}`;
      const group = groups.get(name) ?? { line: line.id, label, how, judged: 0, misses: 0, without: null };
      group.judged++;
      if (!fits) group.misses++;
      groups.set(name, group);
    }
  }
  return [...groups.values()]
    .filter(({ judged, misses }) => judged >= LEAST && misses > 0 && judged < all)
    .map((group) => ({
      ...group,
      without: 1 - (missed - group.misses) / (all - group.judged),
    }))
    .sort((a, b) => b.misses / b.judged - a.misses / a.judged || b.judged - a.judged);
}

/** How a record passed a line, in words; null where there is no telling one from another. */
function wayThrough(line: FieldLine, cell: Cell | undefined): string | null {
  if (cell === undefined) return null;
  if (cell === null) return 'unknown, kept';
  if (Array.isArray(cell)) {
    const codes = cell as (CodeCell | string)[];
    const any = (line.test as CodesTest).any ?? [];
    const hit = codes.find((one) => typeof one !== 'string' && any.some((code) => one.code.startsWith(code)));
    return hit && typeof hit !== 'string' ? `${hit.code}${hit.main ? '' : ', beside its main code'}` : null;
  }
  if (typeof cell === 'object' && 'basis' in cell) {
    const { basis } = cell;
    return basis === 'band' ? 'in a band' : basis === 'estimate' ? 'on an estimate' : null;
  }
  if (typeof cell === 'object' && 'countryName' in cell) return cell.countryName;
  return typeof cell === 'string' && cell.length <= 40 ? cell : null;
}
