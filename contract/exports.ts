import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO31661Alpha2,
  IsNotEmpty,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator';
import { COMPUTED_WAYS, type ComputedWay } from '../core/exports/computed.ts';
import { FORMAT_IDS, type FormatId } from '../core/exports/formats.ts';
import { HEADING_LANGUAGES, type HeadingLanguage } from '../core/exports/headings/languages.ts';
import { CURRENCIES } from '../core/money/rates.ts';
import type { FileWish } from './file-wish.ts';
import { MOST_COLUMNS, PicksBody } from './row-requests.ts';

/** Requests about exports: what goes out, as what file, and to whom. */

/** Rows that a sample has at most. */
const MOST_DRAWN = 1_000_000;
const MOST_COMPUTED = 20;
const MOST_NEEDS = 20;
/** Days back within which something was handed over, at most. */
const MOST_DAYS = 3660;
const LONGEST_LETTER = 4000;
/** Letters of a receiver's name. */
export const LONGEST_RECEIVER = 80;

export class AlongBody {
  /** Key of a suppression list. */
  @IsString()
  list!: string;

  @IsString()
  @IsNotEmpty({ message: 'reason must say why they go out' })
  @MaxLength(200)
  reason!: string;
}

export class ComputedBody {
  @Matches(/^made:\d{1,3}$/, { message: 'id must be "made:" and a number' })
  id!: string;

  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  heading!: string;

  @IsIn(COMPUTED_WAYS)
  way!: ComputedWay;

  @IsArray()
  @ArrayMinSize(2)
  @ArrayMaxSize(8)
  @IsString({ each: true })
  of!: string[];

  @IsOptional()
  @IsString()
  @MaxLength(10)
  between?: string;
}

export class HandedBody {
  /** Key of a receiver; anybody where left out. */
  @IsOptional()
  @IsString()
  receiver?: string;

  /** Within so many days back; ever where left out. */
  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(MOST_DAYS)
  days?: number;
}

export class SampleBody {
  @IsInt()
  @Min(1)
  @Max(MOST_DRAWN)
  size!: number;

  @IsInt()
  @Min(0)
  @Max(0xffffffff)
  seed = 1;
}

export class SplitBody {
  /** A column, as it is called in English: one file for each of its values. */
  @IsOptional()
  @IsString()
  by?: string;

  /** The field that the column is of. */
  @IsOptional()
  @IsString()
  field?: string;

  /** One file for every so many rows. */
  @IsOptional()
  @IsInt()
  @Min(1)
  rows?: number;
}

export class LetterBody {
  /** A line or several, over the address. */
  @IsString()
  @MaxLength(300)
  sender = '';

  /** What every letter says; {name}, {company} and {town} stand for those of each. */
  @IsString()
  @MaxLength(LONGEST_LETTER)
  text = '';

  /** The country it is sent from, whose name addresses leave out. */
  @IsOptional()
  @IsISO31661Alpha2()
  from?: string;
}

/** Whether a value is an object of short texts. */
function IsTexts() {
  return ValidateBy({
    name: 'isTexts',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        Object.values(value).every((one) => typeof one === 'string' && one.length <= 80),
      defaultMessage: () => 'headings must be texts of at most 80 letters, by column',
    },
  });
}

// TypeScript asks just this of what a class is mixed into.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Body = new (...args: any[]) => object;

class Nothing {}

/** Adds to a body how a file is made, whatever records go into it. */
function withFile<Base extends Body>(Other: Base) {
  class FileWishBody extends Other {
    @IsIn(FORMAT_IDS)
    format!: FormatId;

    @IsArray()
    @ArrayMinSize(1, { message: 'columns must name at least one column' })
    @ArrayMaxSize(MOST_COLUMNS)
    @IsString({ each: true })
    columns!: string[];

    /** Headings of one's own, by column. */
    @IsOptional()
    @IsObject()
    @IsTexts()
    headings?: Record<string, string>;

    @IsOptional()
    @IsArray()
    @ArrayMaxSize(MOST_COMPUTED)
    @ValidateNested({ each: true })
    @Type(() => ComputedBody)
    computed?: ComputedBody[];

    /** Of headings that are not one's own. */
    @IsIn(Object.keys(HEADING_LANGUAGES))
    language: HeadingLanguage = 'en';

    /** Currency that amounts are converted to. */
    @IsIn(CURRENCIES as string[])
    currency = 'EUR';

    /** Whether amounts stay as they are, each with its currency beside it. */
    @IsOptional()
    @IsBoolean()
    ownCurrency?: boolean;

    /** CSV: what stands between cells. */
    @IsIn([',', ';', '\t', '|'])
    delimiter = ',';

    /** CSV: whether the file begins with a byte order mark, which some spreadsheets need to see UTF-8. */
    @IsBoolean()
    bom = false;

    /** CSV: quotes round every cell. */
    @IsBoolean()
    quoteAll = false;

    /** CSV: a comma before decimals. */
    @IsBoolean()
    decimalComma = false;

    @IsIn(['crlf', 'lf'])
    lineEnd: 'crlf' | 'lf' = 'crlf';

    @IsIn(['A4', 'Letter'])
    paper: 'A4' | 'Letter' = 'A4';

    @IsOptional()
    @IsObject()
    @ValidateNested()
    @Type(() => LetterBody)
    letter?: LetterBody;

    /** GeoJSON: areas of regions with how many are in each, in place of points. */
    @IsBoolean()
    areas = false;

    /** XLSX: a sheet with the Breakdown of all that pass. */
    @IsBoolean()
    breakdown = false;

    /** Fields that every row must have a value of. */
    @IsOptional()
    @IsArray()
    @ArrayMaxSize(MOST_NEEDS)
    @IsString({ each: true })
    needs?: string[];

    @IsOptional()
    @IsObject()
    @ValidateNested()
    @Type(() => SplitBody)
    split?: SplitBody;

    /** Whether how it was made is put beside, in a ZIP, where the format cannot hold it. */
    @IsBoolean()
    beside = false;

    /** Whom it is for; nobody said where it is empty. */
    @IsString()
    @MaxLength(LONGEST_RECEIVER)
    receiver = '';

    /** Off those that were handed over before. */
    @IsOptional()
    @IsObject()
    @ValidateNested()
    @Type(() => HandedBody)
    handed?: HandedBody;
  }
  return FileWishBody;
}

/** How a file is made: what a template keeps. */
export const FileWishBody = withFile(Nothing);
export type FileWishBody = FileWish;

/** What keeps records of a tape off an export, asked before it is made. */
export class BeforeExportBody extends PicksBody {
  /** Keys of suppression lists that would keep nothing off. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  along?: string[];

  @IsOptional()
  @IsIn(FORMAT_IDS)
  format?: FormatId;

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => HandedBody)
  handed?: HandedBody;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_NEEDS)
  @IsString({ each: true })
  needs?: string[];

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => SampleBody)
  sample?: SampleBody;
}

/** The records behind one step of an export's roll. */
export class ExportStepBody extends BeforeExportBody {
  @IsString()
  @MaxLength(200)
  step!: string;
}

/** Where else an export goes once it is made. */
export class DeliverBody {
  /** Ids of folders that it is copied to. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @IsString({ each: true })
  folders?: string[];

  /** Ids of webhooks that it is posted to. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @IsString({ each: true })
  hooks?: string[];
}

/** Which records go out, beside the file that is made of them. */
export class ExportBody extends withFile(PicksBody) {
  /** Also of its file; "{date}" stands for the day. */
  @IsString()
  @IsNotEmpty()
  @MaxLength(120)
  name!: string;

  /** The name of the template that it is made by. */
  @IsOptional()
  @IsString()
  @MaxLength(80)
  template?: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @ValidateNested({ each: true })
  @Type(() => AlongBody)
  along?: AlongBody[];

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => SampleBody)
  sample?: SampleBody;

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => DeliverBody)
  deliver?: DeliverBody;
}

export class AgainBody {
  /** All rows with what changed, those alone that are new or changed or gone, or a plain repeat. */
  @IsIn(['all', 'changes', 'plain'])
  rows: 'all' | 'changes' | 'plain' = 'all';
}

export class ExportTemplateBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  name!: string;

  @IsString()
  subject!: string;

  /** The name of its exports; "{date}" stands for the day. */
  @IsString()
  @MaxLength(120)
  fileName = '';

  @IsObject()
  @ValidateNested()
  @Type(() => FileWishBody)
  file!: FileWishBody;
}
