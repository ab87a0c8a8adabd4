import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  MaxLength,
  ValidateIf,
} from 'class-validator';
import { CURRENCIES } from '../core/money/rates.ts';
import { IsSort, SortBody } from './row-requests.ts';

/** A page for paper: a tape as sheet, Breakdown or two-page summary, or one company's profile. */
export class PaperBody {
  @IsIn(['sheet', 'profile', 'breakdown', 'summary'])
  kind!: 'sheet' | 'profile' | 'breakdown' | 'summary';

  @IsIn(['A4', 'Letter'])
  size: 'A4' | 'Letter' = 'A4';

  @IsIn(CURRENCIES as string[])
  currency = 'EUR';

  /** All but a profile. */
  @ValidateIf(({ kind }: PaperBody) => kind !== 'profile')
  @IsObject()
  tape?: object;

  /** A profile: the key of the company. */
  @ValidateIf(({ kind }: PaperBody) => kind === 'profile')
  @IsString()
  @MaxLength(200)
  key?: string;

  /** A sheet: its columns and order. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  columns?: string[];

  @IsSort()
  sort?: SortBody[];
}
