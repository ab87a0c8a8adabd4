import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  Validate,
  ValidateNested,
  ValidatorConstraint,
  type ValidatorConstraintInterface,
} from 'class-validator';
import { SCHEMES } from '../core/codes/tree.ts';
import { CURRENCIES } from '../core/money/rates.ts';
import { UNITS } from '../core/records/column-styles.ts';
import { CELL_PARTS, MADE_WAYS, MOST_MADE, type CellPart } from '../core/records/made-columns.ts';
import { READ_SUBJECTS } from '../core/records/read-related.ts';
import { ENCODINGS } from './readings.ts';

/** Bodies of requests that read and load files. */

/** A column that is made of those of the file. */
export class MadeColumnBody {
  @IsIn(MADE_WAYS)
  way!: (typeof MADE_WAYS)[number];

  @IsString()
  @IsNotEmpty({ message: 'heading must not be empty: give the column a name' })
  @MaxLength(120)
  heading!: string;

  /** Places of the columns that it is made of, from 0. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @IsInt({ each: true })
  @Min(0, { each: true })
  of?: number[];

  /** The text between joined cells, or at which a cell is parted. */
  @IsOptional()
  @IsString()
  @MaxLength(20)
  by?: string;

  @IsOptional()
  @IsIn(CELL_PARTS)
  part?: CellPart;

  /** What stands in every row. */
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  text?: string;
}

export class PreviewBody {
  @IsOptional()
  @IsIn(Object.keys(ENCODINGS))
  encoding?: string;

  @IsOptional()
  @IsIn([',', ';', '\t', '|'])
  delimiter?: string;

  @IsOptional()
  @IsBoolean()
  hasHeader?: boolean;

  /** Of a workbook: the sheet with the rows. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  sheet?: string;

  /** Rows above the headings; guessed where left out. */
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(1000)
  skip?: number;

  /** Rows of headings; guessed where left out. */
  @IsOptional()
  @IsIn([0, 1, 2])
  headerRows?: 0 | 1 | 2;

  /** Columns to be made of those of the file. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_MADE)
  @ValidateNested({ each: true })
  @Type(() => MadeColumnBody)
  made?: MadeColumnBody[];

  /** What the rows are; guessed by their headings where left out. */
  @IsOptional()
  @IsIn(['companies', ...READ_SUBJECTS])
  subject?: string;
}

/** How one column is written. */
export class ColumnStyleBody {
  @IsOptional()
  @IsIn(['.', ','])
  decimal?: '.' | ',';

  @IsOptional()
  @IsIn(['dmy', 'mdy'])
  dates?: 'dmy' | 'mdy';

  @IsOptional()
  @IsIn(UNITS as number[])
  unit?: number;

  @IsOptional()
  @IsIn(CURRENCIES as string[])
  currency?: string;

  @IsOptional()
  @IsIn(Object.keys(SCHEMES))
  scheme?: keyof typeof SCHEMES;

  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(6)
  figures?: number;

  @IsOptional()
  @IsBoolean()
  whole?: boolean;

  @IsOptional()
  @IsInt()
  @Min(1900)
  @Max(2200)
  year?: number;

  @IsOptional()
  @IsIn(['insee'])
  bands?: 'insee';
}

export class UndecidedBody {
  @IsInt()
  @Min(0)
  column!: number;

  @IsIn(['decimal', 'dates', 'scheme', 'currency', 'unit'])
  what!: 'decimal' | 'dates' | 'scheme' | 'currency' | 'unit';
}

/** Answers that a mapping can have, over all its columns. */
const MOST_ANSWERS = 20_000;

@ValidatorConstraint()
class AnswersRule implements ValidatorConstraintInterface {
  validate(columns: unknown): boolean {
    if (!Array.isArray(columns)) return false;
    let answers = 0;
    for (const column of columns as unknown[]) {
      if (column === null) continue;
      if (typeof column !== 'object' || Array.isArray(column)) return false;
      for (const answer of Object.values(column)) {
        if (answer !== null && (typeof answer !== 'string' || answer.length > 2000)) return false;
        if (++answers > MOST_ANSWERS) return false;
      }
    }
    return true;
  }

  defaultMessage(): string {
    return `answers must be, for each column, null or texts by cell (a text, or null to refuse the row), at most ${MOST_ANSWERS} in all`;
  }
}

export class MappingBody {
  @IsArray()
  @ArrayMaxSize(16_384)
  columns!: (string | null)[];

  @IsIn(Object.keys(SCHEMES))
  scheme!: keyof typeof SCHEMES;

  @IsIn(['.', ','])
  decimal!: '.' | ',';

  @IsIn(['dmy', 'mdy'])
  dates!: 'dmy' | 'mdy';

  @IsOptional()
  @Matches(/^[A-Z]{2}$/, { message: 'country must be an ISO code of two letters' })
  country!: string | null;

  @IsIn(CURRENCIES as string[])
  currency!: string;

  @IsInt()
  @Min(1900)
  @Max(2200)
  year!: number;

  @IsIn(UNITS as number[])
  revenueUnit!: number;

  /** For each column how it is written, where that is not as the rest of the file. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(16_384)
  @ValidateNested({ each: true })
  @Type(() => ColumnStyleBody)
  styles?: ColumnStyleBody[];

  /** For each column what is read instead of a cell: another text, "" for nothing, null where the row is refused. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(16_384)
  @Validate(AnswersRule)
  answers?: (Record<string, string | null> | null)[];

  /** What becomes of a cell that is not understood: it is left empty, or its row is refused. */
  @IsOptional()
  @IsIn(['empty', 'refuse'])
  unreadable?: 'empty' | 'refuse';

  /** What nobody has said yet; a file with such is not loaded. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(16_384)
  @ValidateNested({ each: true })
  @Type(() => UndecidedBody)
  undecided?: UndecidedBody[];
}

/** A reading of a whole file, as it would be loaded. */
export class FileReadingBody {
  @ValidateNested()
  @Type(() => PreviewBody)
  read!: PreviewBody;

  @ValidateNested()
  @Type(() => MappingBody)
  mapping!: MappingBody;
}

export class WholeReadingBody extends FileReadingBody {
  /** Whether the rows are companies to be found in the universe, rather than records to be loaded. */
  @IsOptional()
  @IsBoolean()
  matching?: boolean;
}

/** What becomes of companies that a newer version of a source has no more. */
export const GONE_WAYS = ['removed', 'kept'] as const;
export type GoneWay = (typeof GONE_WAYS)[number];

export class LoadBody extends FileReadingBody {
  @IsString()
  upload!: string;

  @IsString()
  @IsNotEmpty({ message: 'name must not be empty: give the source a name' })
  @MaxLength(120)
  name!: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  licence?: string | null;

  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'asOf must be a date such as 2026-09-30' })
  asOf!: string;

  /** Of what hangs on companies: countries of which the file has all. */
  @IsArray()
  @ArrayMaxSize(249)
  @Matches(/^[A-Z]{2}$/, { each: true, message: 'covers must be ISO codes of two letters' })
  covers: string[] = [];

  /** Key of the source of which the file is a newer version; it takes its place. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  refreshes?: string;

  /** Of a newer version: whether what it has no more leaves the universe, or stays as a source of its own. */
  @IsOptional()
  @IsIn(GONE_WAYS)
  gone?: GoneWay;

  /** True: one bad row and nothing is loaded. False: bad rows are left out and reported. */
  @IsBoolean()
  allOrNothing = false;

  /** Whether companies that surely are one with a company of another source are joined with it. */
  @IsBoolean()
  joinSure = true;
}

/** What a refresh does to companies of its source. */
export const CHANGE_KINDS = ['new', 'changed', 'gone'] as const;

/** A list of what a refresh did. */
export class ChangesListBody {
  @IsIn(CHANGE_KINDS)
  what!: (typeof CHANGE_KINDS)[number];

  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(120)
  name!: string;
}

export class DemoBody {
  @IsInt()
  @Min(100)
  @Max(10_000_000)
  companies = 48_000;
}
