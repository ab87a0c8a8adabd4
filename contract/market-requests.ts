import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsLatitude,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { MOST_CHARTS } from '../core/charts/chart.ts';
import { CURRENCIES } from '../core/money/rates.ts';
import { IsSort, MOST_COLUMNS, type SortBody } from './row-requests.ts';
import { TapeBody } from './tape-body.ts';

/** What charts are compared with: everybody, or another tape. */
export class AgainstBody extends TapeBody {
  @IsIn(CURRENCIES as string[])
  currency = 'EUR';

  @IsOptional()
  @ValidateIf((_, value) => value !== 'universe')
  @IsObject({ message: 'against must be "universe" or a tape' })
  against?: 'universe' | object;
}

export class ChartsBody extends AgainstBody {
  /** Checked by `checkChart`, which knows the fields. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_CHARTS)
  @IsObject({ each: true })
  charts!: object[];
}

/** Words that are looked for in the names of a tape's records. */
export class FindBody extends TapeBody {
  @IsString()
  @MaxLength(200)
  text!: string;

  /** Which of those found is the first wanted, from 0. */
  @IsInt()
  @Min(0)
  from = 0;

  @IsSort()
  sort?: SortBody[];
}

export class SummaryBody extends TapeBody {
  @IsArray()
  @ArrayMaxSize(MOST_COLUMNS)
  @IsString({ each: true })
  columns!: string[];

  @IsIn(CURRENCIES as string[])
  currency = 'EUR';
}

/** What of a map is in view, and into how many cells its width is cut. */
export class SeenBody {
  @IsNumber()
  @Min(-180)
  @Max(180)
  west!: number;

  @IsNumber()
  @Min(-180)
  @Max(180)
  east!: number;

  @IsLatitude()
  south!: number;

  @IsLatitude()
  north!: number;
}

export class ClustersBody extends TapeBody {
  @IsNumber()
  @Min(-180)
  @Max(180)
  west!: number;

  @IsNumber()
  @Min(-180)
  @Max(180)
  east!: number;

  @IsLatitude()
  south!: number;

  @IsLatitude()
  north!: number;

  @IsInt()
  @Min(1)
  @Max(200)
  cells = 40;

  /** The part of the stretch that is on the screen; the whole stretch where left out. */
  @IsOptional()
  @ValidateNested()
  @Type(() => SeenBody)
  seen?: SeenBody;
}
