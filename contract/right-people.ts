import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsNotEmpty,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { DEPARTMENTS } from '../core/fields/companies/making.ts';
import { LEVELS } from '../core/fields/people.ts';
import { MOST_FUNCTIONS, type PersonFunction } from '../core/people/functions.ts';
import { PicksBody } from './row-requests.ts';

/** Requests that choose people by what they do. */

export class FunctionBody implements PersonFunction {
  @IsOptional()
  @IsIn(DEPARTMENTS)
  department?: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(LEVELS.length)
  @IsIn(LEVELS, { each: true })
  levels?: string[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  @Matches(/^[^"]*$/, { each: true, message: 'title must hold no quotation marks' })
  title?: string[];
}

/** A ranked choice of functions, kept under a name. */
export class RightPersonBody {
  @IsString()
  @IsNotEmpty({ message: 'label must not be empty' })
  @MaxLength(80)
  @Matches(/^[^\r\n]*$/, { message: 'label must be one line' })
  label!: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_FUNCTIONS)
  @ValidateNested({ each: true })
  @Type(() => FunctionBody)
  functions!: FunctionBody[];
}

/** People: those of a tape, or the right person of each company of one. */
export class ChosenPeopleBody extends PicksBody {
  /** One of each company, who holds the first of these that anybody holds; of people all of them where left out. */
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_FUNCTIONS)
  @ValidateNested({ each: true })
  @Type(() => FunctionBody)
  functions?: FunctionBody[];
}
