import { rolled, type Roll } from '../lists/roll.ts';

/** What of an export goes out and what stays off, each record at the first step that takes it off. */
export interface GoingFigures {
  /** Of the tape, or of what was picked. */
  of: number;
  picked: boolean;
  /** By suppression list; `along` ones go out all the same. */
  off: readonly { list: string; name: string; count: number; along: boolean }[];
  handed: { to: string | null; days: number | null; count: number } | null;
  lacking: readonly { field: string; label: string; count: number }[];
  /** Without an address, or without a place on the map, where the file needs one. */
  unreachable: { what: 'address' | 'point'; count: number } | null;
  notDrawn: { size: number; count: number } | null;
}

const OUT_OF_REACH = { address: 'No postal address', point: 'Not on the map' } as const;

/** The roll of an export before it is made. Steps are named "chosen", "off-" and the list, "handed", "lacking-" and the field, "unreachable" and "not-drawn". */
export function exportRoll({ of, picked, off, handed, lacking, unreachable, notDrawn }: GoingFigures): Roll {
  return rolled([
    { step: 'chosen', label: picked ? 'Picked' : 'All that pass', note: '', delta: of },
    ...off
      .filter(({ along }) => !along)
      .map(({ list, name, count }) => ({
        step: `off-${list}`,
        label: `On ${name}`,
        note: 'suppression list',
        delta: -count,
      })),
    ...(handed === null
      ? []
      : [
          {
            step: 'handed',
            label: handed.to === null ? 'Handed over before' : `${handed.to} has them`,
            note: handed.days === null ? 'at any time' : `in the past ${handed.days} days`,
            delta: -handed.count,
          },
        ]),
    ...lacking.map(({ field, label, count }) => ({
      step: `lacking-${field}`,
      label: `No ${label.toLowerCase()}`,
      note: 'asked of every row',
      delta: -count,
    })),
    ...(unreachable === null
      ? []
      : [
          {
            step: 'unreachable',
            label: OUT_OF_REACH[unreachable.what],
            note: 'the file needs one',
            delta: -unreachable.count,
          },
        ]),
    ...(notDrawn === null
      ? []
      : [
          {
            step: 'not-drawn',
            label: 'Not drawn',
            note: `a sample of ${notDrawn.size}`,
            delta: -notDrawn.count,
          },
        ]),
  ]);
}
