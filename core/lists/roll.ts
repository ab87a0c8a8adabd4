import { writeStep } from './steps.ts';

/** What put a member on a list. */
export const ORIGIN_KINDS = ['tape', 'file', 'hand', 'gatherer', 'list'] as const;
export type OriginKind = (typeof ORIGIN_KINDS)[number];

/** One step of a roll: what it added or took away, and the running total. */
export interface RollStep {
  /** The name of the step, by which its records are found. */
  step: string;
  label: string;
  /** Who and when, or why. */
  note: string;
  /** Below zero where it takes away. */
  delta: number;
  /** What is left after it. */
  total: number;
}

/** The paper of a place: steps that sum to its foot. */
export interface Roll {
  steps: RollStep[];
  foot: number;
}

/** Steps that add up, with their running totals. */
export function rolled(steps: readonly Omit<RollStep, 'total'>[]): Roll {
  let total = 0;
  const done = steps.map((step) => ({ ...step, total: (total += step.delta) }));
  return { steps: done, foot: total };
}

/** An origin of a list with how many it named, and of those how many no origin before it had. */
export interface OriginFigures {
  id: number;
  kind: OriginKind;
  what: string;
  person: string;
  /** ISO day. */
  day: string;
  named: number;
  fresh: number;
}

/** An act that took members off a list. */
export interface TakenFigures {
  id: number;
  how: string;
  person: string;
  day: string;
  count: number;
}

const KIND_WORDS: Record<OriginKind, string> = {
  tape: 'Tape',
  file: 'File',
  hand: 'By hand',
  gatherer: 'Gatherer',
  list: 'List',
};

/** How a list came to its members: each origin, those of them that were there already, and those taken off. */
export function listRoll(origins: readonly OriginFigures[], taken: readonly TakenFigures[]): Roll {
  const by = (person: string, day: string) => [day, person].filter(Boolean).join(', ');
  return rolled([
    ...origins.flatMap(({ id, kind, what, person, day, named, fresh }) => [
      {
        step: writeStep('origin', id),
        label: `${KIND_WORDS[kind]} ${what}`,
        note: by(person, day),
        delta: named,
      },
      ...(named > fresh
        ? [
            {
              step: writeStep('again', id),
              label: 'of these already there',
              note: 'they keep all origins',
              delta: fresh - named,
            },
          ]
        : []),
    ]),
    ...taken.map(({ id, how, person, day, count }) => ({
      step: writeStep('taken', id),
      label: `Taken off ${how}`,
      note: by(person, day),
      delta: -count,
    })),
  ]);
}

/** Figures of origins from how many records have which: numbers by spaces, in their order. */
export function originFigures(
  sets: Iterable<{ origins: string; count: number }>,
): Map<number, { named: number; fresh: number }> {
  const figures = new Map<number, { named: number; fresh: number }>();
  for (const { origins, count } of sets)
    origins.split(' ').forEach((text, at) => {
      const id = Number(text);
      const own = figures.get(id) ?? { named: 0, fresh: 0 };
      own.named += count;
      if (at === 0) own.fresh += count;
      figures.set(id, own);
    });
  return figures;
}
