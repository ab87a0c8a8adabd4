import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  CORRECTABLE_KEYS,
  LONGEST_CORRECTION,
  MOST_SITES,
  type Correctable,
} from '../core/records/own-values.ts';
import { PRECEDENCE_GROUP_KEYS, type PrecedenceGroup } from '../core/records/precedence.ts';

/** What we ourselves say of companies: corrections, whether their websites answer, and which source wins. */

export class CorrectionBody {
  @IsIn(CORRECTABLE_KEYS)
  field!: Correctable;

  /** As it would stand in a file; the empty text where the value is wrong and no other is known; null takes the correction back. */
  @ValidateIf(({ value }: CorrectionBody) => value !== null)
  @IsString()
  @MaxLength(LONGEST_CORRECTION)
  value!: string | null;

  @IsString()
  @MaxLength(500)
  reason = '';
}

export class CorrectionsBody {
  @IsArray()
  @ArrayMinSize(1, { message: 'corrections must name at least one value' })
  @ArrayMaxSize(CORRECTABLE_KEYS.length)
  @ValidateNested({ each: true })
  @Type(() => CorrectionBody)
  corrections!: CorrectionBody[];
}

/** Websites to try: of the companies on a list, or of some. */
export class TrySitesBody {
  @IsOptional()
  @IsString()
  @MaxLength(100)
  list?: string;

  @ValidateIf(({ list }: TrySitesBody) => list === undefined)
  @IsArray()
  @ArrayMinSize(1, { message: 'companies must name at least one company, or list a list' })
  @ArrayMaxSize(MOST_SITES)
  @IsString({ each: true })
  @MaxLength(200, { each: true })
  companies?: string[];
}

export class PrecedenceRuleBody {
  @IsIn(PRECEDENCE_GROUP_KEYS)
  group!: PrecedenceGroup;

  @IsIn(['newest', 'exact', 'order'])
  by!: 'newest' | 'exact' | 'order';

  /** Keys of sources, the winning one first; with "order" alone. */
  @IsArray()
  @ArrayMaxSize(1000)
  @IsString({ each: true })
  @MaxLength(200, { each: true })
  sources: string[] = [];
}

export class PrecedenceBody {
  @IsArray()
  @ArrayMaxSize(PRECEDENCE_GROUP_KEYS.length)
  @ValidateNested({ each: true })
  @Type(() => PrecedenceRuleBody)
  groups!: PrecedenceRuleBody[];

  /** Whether it is taken over; else it is only counted what would change. */
  @IsBoolean()
  apply = false;
}

/** A value of a company that was corrected by hand. */
export interface CorrectionView {
  field: Correctable;
  label: string;
  value: string;
  reason: string;
  person: string;
  at: string;
}

export interface PrecedenceAnswer {
  groups: {
    group: PrecedenceGroup;
    label: string;
    by: 'newest' | 'exact' | 'order';
    sources: string[];
    /** The ways in which the group can be taken. */
    ways: ('newest' | 'exact' | 'order')[];
  }[];
  /** Sources of companies. */
  sources: { key: string; name: string }[];
}
