import { IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import type { Accuracy, Holding } from '../core/stats/accuracy.ts';
import type { SurvivorGroup } from '../core/stats/survivors.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { TapeBody } from './tape-body.ts';

/** Requests and answers about spot checks. */

/** Records that one check can hold. */
export const MOST_CHECKED = 1000;

export class CheckBody extends TapeBody {
  @IsInt()
  @Min(1)
  @Max(MOST_CHECKED)
  size = 60;

  /** Draws the same for everybody; chosen where left out. */
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(0xffffffff)
  seed?: number;

  /** Field that it is shared out by: place, or one with a fixed few values. */
  @IsOptional()
  @IsString()
  by?: string;

  /** Percent that are asked to fit. */
  @IsInt()
  @Min(1)
  @Max(99)
  atLeast = 75;
}

export class MoreBody {
  /** How many it shall have. */
  @IsInt()
  @Min(1)
  @Max(MOST_CHECKED)
  size!: number;
}

export class AtLeastBody {
  @IsInt()
  @Min(1)
  @Max(99)
  atLeast!: number;
}

export class FitBody {
  @IsString()
  key!: string;

  /** In: fits; out: does not; unsure: nobody can tell; null: not judged. */
  @IsOptional()
  @IsIn(['in', 'out', 'unsure'])
  verdict!: 'in' | 'out' | 'unsure' | null;

  @IsOptional()
  @IsString()
  @MaxLength(2000)
  note?: string | null;
}

export class ToListBody {
  /** Key of the list whose members take on the verdicts. */
  @IsString()
  list!: string;
}

export interface CheckView {
  id: string;
  tape: Tape;
  subject: string;
  seed: number;
  by: string | null;
  /** How many passed the tape when it was drawn. */
  population: number;
  atLeast: number;
  asOf: string;
  person: string;
  drawnAt: string;
  size: number;
  fit: number;
  misses: number;
  unsure: number;
}

export interface CheckedMember {
  key: string;
  stratum: string;
  verdict: 'in' | 'out' | 'unsure' | null;
  note: string | null;
}

export interface CheckAnswer {
  check: CheckView;
  /** In the order of the draw. */
  members: CheckedMember[];
  strata: { key: string; label: string; size: number }[];
  /** Null before anything is judged. */
  accuracy: Accuracy | null;
  holding: Holding;
  /** About how many more until it is decided; null where that is not to be said. */
  more: number | null;
  /** Ways through the lines in which most miss. */
  groups: SurvivorGroup[];
}
