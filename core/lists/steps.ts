/**
 * Names of the steps of a list's roll, as lines and addresses say them: "origin-3" for all that an origin named,
 * "again-3" for those of them that were on the list already, "taken-5" for those taken off at once.
 */
export type StepKind = 'origin' | 'again' | 'taken';

export interface Step {
  kind: StepKind;
  /** Number of the origin, or of the taking off. */
  id: number;
}

const STEP = /^(origin|again|taken)-(\d{1,15})$/;

export function isStep(text: string): boolean {
  return STEP.test(text);
}

/** @throws Error where it is none; texts from outside are checked by `isStep` */
export function readStep(text: string): Step {
  const found = STEP.exec(text);
  if (!found) throw new Error(`"${text}" is no step of a roll.`);
  return { kind: found[1] as StepKind, id: Number(found[2]) };
}

export function writeStep(kind: StepKind, id: number): string {
  return `${kind}-${id}`;
}
