import { scaleTo } from './amounts.ts';
import { Basis, type RangeColumn, type SmallNumbers } from './columns.ts';

/**
 * By record, the sum of a figure over all records of its group; of one without group its own. Only single figures add up,
 * reported or estimated, money in euros; NaN where no record of the group has one. `groups` has 0 where there is no group.
 */
export function groupSums(groups: SmallNumbers, column: RangeColumn): Float64Array {
  const size = groups.length;
  const { low, basis } = column;
  const scale = scaleTo(column, 'EUR');
  const value = (r: number) =>
    basis[r] === Basis.Reported || basis[r] === Basis.Estimate ? scale(low[r]!, r) : NaN;
  const sums = new Map<number, number>();
  for (let r = 0; r < size; r++) {
    const own = value(r);
    if (groups[r] !== 0 && !Number.isNaN(own)) sums.set(groups[r]!, (sums.get(groups[r]!) ?? 0) + own);
  }
  return Float64Array.from({ length: size }, (_, r) =>
    groups[r] === 0 ? value(r) : (sums.get(groups[r]!) ?? NaN),
  );
}
