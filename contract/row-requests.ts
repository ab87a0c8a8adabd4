import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator';
import { TapeBody } from './tape-body.ts';

/** Bodies that ask for records of a tape: rows of a sheet, those picked. */

export class SortBody {
  @IsString()
  by!: string;

  @IsOptional()
  @IsBoolean()
  descending?: boolean;
}

/** An order by up to eight columns, or none. */
export function IsSort(): PropertyDecorator {
  const all = [
    IsOptional(),
    IsArray(),
    ArrayMaxSize(8),
    ValidateNested({ each: true }),
    Type(() => SortBody),
  ];
  return (body, property) => all.forEach((decorate) => decorate(body, property));
}

/** Columns of a sheet or export: all that a subject has, and those of a tape's own. */
export const MOST_COLUMNS = 250;

/** Whether a list is one of runs: two whole numbers each, the first not above the second. */
function IsRuns() {
  return ValidateBy({
    name: 'isRuns',
    validator: {
      validate: (value: unknown) =>
        Array.isArray(value) &&
        value.every(
          (run: unknown) =>
            Array.isArray(run) &&
            run.length === 2 &&
            run.every((end) => Number.isInteger(end) && (end as number) >= 0) &&
            (run[0] as number) <= (run[1] as number),
        ),
      defaultMessage: () => 'ranges must be pairs of positions, from and to, from 0 on',
    },
  });
}

/** Keys that a request may name one by one; more are named as runs of the order. */
export const MOST_KEYS = 50_000;

/**
 * Records of a tape: all of them, or only those picked, by key and as runs of the order; `except` are let go again. Those
 * picked that do not pass the tape are left out.
 */
export class PicksBody extends TapeBody {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  keys?: string[];

  /** Positions in the tape's order, from and to, both included. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(1000)
  @IsRuns()
  ranges?: [from: number, to: number][];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  except?: string[];

  @IsSort()
  sort?: SortBody[];
}

export class RowsBody extends PicksBody {
  @IsArray()
  @ArrayMaxSize(MOST_COLUMNS)
  @IsString({ each: true })
  columns!: string[];

  @IsInt()
  @Min(0)
  offset = 0;

  @IsInt()
  @Min(1)
  @Max(1000)
  limit = 100;
}
