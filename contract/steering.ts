import { IsInt, Max, Min } from 'class-validator';
import type { Line } from '../core/tape/nodes.ts';
import { TapeBody } from './tape-body.ts';

/** Requests and answers about lines that would bring a tape where somebody wants it. */

export class NearBody extends TapeBody {
  /** About how many it shall leave. */
  @IsInt()
  @Min(1)
  @Max(100_000_000)
  target!: number;
}

/** One way to a number: lines of the tape as they would be, and what it would leave. */
export interface NearWay {
  lines: { line: Line; words: string; was: string }[];
  count: number;
}

export interface NearAnswer {
  now: number;
  /** The nearest first. */
  ways: NearWay[];
}

/** A line that parts members judged in from those judged out. */
export interface PartingLine {
  line: Line;
  words: string;
  /** Of those judged out and in, how many it would drop; and of those not judged. */
  dropsOut: number;
  dropsIn: number;
  dropsNotJudged: number;
  /** The chance of so clear a parting where the field had nothing to do with it, times the number of lines tried; at most 1. */
  chance: number;
}

export interface PartingAnswer {
  judgedIn: number;
  judgedOut: number;
  /** Lines that were tried. */
  tried: number;
  lines: PartingLine[];
}
