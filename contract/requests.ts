import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsLatitude,
  IsLongitude,
  IsNotEmpty,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { SCHEMES } from '../core/codes/tree.ts';
import { SUBJECTS } from '../core/fields/registry.ts';
import { CURRENCIES } from '../core/money/rates.ts';
import { LONGEST_HEADING } from '../core/lists/carried.ts';
import { DIALECTS, type Dialect } from '../core/tape/sql/compile.ts';
import { SortBody } from './row-requests.ts';
import { TapeBody } from './tape-body.ts';

/** Bodies of requests that count, name and load. */

export class SqlBody extends TapeBody {
  @IsIn(DIALECTS)
  dialect: Dialect = 'sqlite';
}

export class TypedBody {
  @IsString()
  @MaxLength(10_000)
  text!: string;

  /** Ids of the lines read begin with this. */
  @IsString()
  @Matches(/^[\w-]{1,40}$/)
  stem = 't';

  @IsIn([...SUBJECTS.keys()])
  subject = 'companies';
}

export class CompleteBody extends TapeBody {
  @IsString()
  @MaxLength(1000)
  text!: string;
}

export class PointBody {
  @IsLatitude()
  lat!: number;

  @IsLongitude()
  lon!: number;
}

export class CentreBody extends PointBody {
  /** In which distances are asked. */
  @IsIn(['km', 'miles'])
  unit: 'km' | 'miles' = 'km';
}

export class CountsBody extends TapeBody {
  /** Id of the line whose picker asks: its own condition is left out. */
  @IsOptional()
  @IsString()
  at?: string;

  @IsString()
  field!: string;

  @IsOptional()
  @IsIn(Object.keys(SCHEMES))
  scheme?: string;

  @IsOptional()
  @IsIn(['main', 'any'])
  rank?: string;

  /** Codes: whether those of other schemes decide too, as in a line. */
  @IsOptional()
  @IsIn(['sure', 'possible'])
  kin?: 'sure' | 'possible';

  @IsOptional()
  @IsString()
  @MaxLength(200)
  search?: string;

  @IsOptional()
  @IsIn(['countries', 'regions', 'towns', 'neighbours', 'metro', 'postcodes'])
  level?: 'countries' | 'regions' | 'towns' | 'neighbours' | 'metro' | 'postcodes';

  @IsOptional()
  @IsString()
  within?: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => CentreBody)
  near?: CentreBody;

  /** Places: of any site rather than the head office, as in a line. */
  @IsOptional()
  @IsIn(['any'])
  site?: 'any';

  /** Categories: values first seen within this span alone, as in a line. */
  @IsOptional()
  @IsString()
  @MaxLength(40)
  seen?: string;

  /** Values recorded within this span alone, as in a line: "24 months". What is older counts as unknown. */
  @IsOptional()
  @IsString()
  @MaxLength(40)
  fresh?: string;

  @IsOptional()
  @IsIn(CURRENCIES as string[])
  currency?: string;

  /** Measures: the key whose figures are wanted, such as "sales" or "headcount 1y". */
  @IsOptional()
  @IsString()
  @MaxLength(60)
  key?: string;

  /** Lists: the heading under which files say what is counted. */
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST_HEADING)
  column?: string;

  /** Lists: the members of whom files say it, as a line on lists tests them. */
  @ValidateIf(({ column }: CountsBody) => column !== undefined)
  @IsObject()
  members?: object;
}

export class AlternativesBody extends TapeBody {
  /** Id of the line. */
  @IsString()
  at!: string;

  /** Tests that it might ask instead of its own. */
  @IsArray()
  @ArrayMaxSize(60)
  @IsObject({ each: true })
  tests!: object[];
}

export class PlaneBody extends TapeBody {
  @IsIn(CURRENCIES as string[])
  currency = 'EUR';
}

const nameRule = { message: 'name must not be empty' };

export class SavedTapeBody extends TapeBody {
  @IsIn(['tape', 'part'])
  kind: 'tape' | 'part' = 'tape';

  @IsString()
  @IsNotEmpty(nameRule)
  @MaxLength(200)
  name!: string;
}

export class CountryGroupBody {
  @IsString()
  @IsNotEmpty({ message: 'label must not be empty' })
  @MaxLength(80)
  label!: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(249)
  @Matches(/^[A-Z]{2}$/, { each: true, message: 'countries must be ISO codes of two letters' })
  countries!: string[];
}

export class PointsBody extends TapeBody {
  @IsOptional()
  @IsString()
  at?: string;
}

export class PositionBody extends TapeBody {
  @IsOptional()
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => SortBody)
  sort?: SortBody[];

  @IsString()
  key!: string;
}
