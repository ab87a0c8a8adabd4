import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { GATHER_FIELD } from '../core/gather/fields.ts';
import { MOST_SEARCHES } from '../core/gather/words-places.ts';

/** Requests about gatherers: what to read from pages of companies, and the runs of it. */

const NAME = 120;
const TEXT = 300;
const ADDRESS = 4000;
const MOST_EXAMPLES = 40;
const MOST_FIELDS = 40;
const MOST_STEPS = 60;

export class TaughtFieldBody {
  /** One of the fields of companies, or "own:" and a heading of one's own. */
  @Matches(GATHER_FIELD, { message: 'field must be a field of companies, or own: and a heading' })
  @MaxLength(80)
  field!: string;

  /** Number of the element or text on the page. */
  @IsInt()
  @Min(0)
  node!: number;

  @IsOptional()
  @IsString()
  @MaxLength(40)
  source?: string;

  /** The part of its words that is meant. */
  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  part?: string;
}

class TaughtBody {
  /** The page that it is on. */
  @IsInt()
  @Min(1)
  page!: number;

  @IsArray()
  @ArrayMaxSize(MOST_FIELDS)
  @ValidateNested({ each: true })
  @Type(() => TaughtFieldBody)
  fields: TaughtFieldBody[] = [];
}

export class ExampleBody extends TaughtBody {
  @IsInt()
  @Min(0)
  node!: number;

  @IsIn(['row', 'advert'])
  as!: 'row' | 'advert';
}

/** One thing done on a page before the list stands there. */
export class StepBody {
  @IsIn(['type', 'choose', 'tick', 'press', 'wait'])
  do!: 'type' | 'choose' | 'tick' | 'press' | 'wait';

  /** Of type: the box. */
  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  into?: string;

  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  text?: string;

  /** Of choose: the choice. */
  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  in?: string;

  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  option?: string;

  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  box?: string;

  @IsOptional()
  @IsBoolean()
  on?: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  button?: string;

  @IsOptional()
  @IsNumber()
  @Min(0)
  @Max(60)
  seconds?: number;
}

/** Where the next page is: looked for by usual words, pointed at, or nowhere. */
export class NextBody {
  @IsIn(['usual', 'pointed', 'none'])
  how: 'usual' | 'pointed' | 'none' = 'usual';

  @IsOptional()
  @IsInt()
  @Min(1)
  page?: number;

  @IsOptional()
  @IsInt()
  @Min(0)
  node?: number;
}

/** The companies whose own sites are read. */
export class SitesBody {
  /** Key of a list of companies. */
  @IsString()
  @IsNotEmpty()
  @MaxLength(200)
  list!: string;
}

/** What a gatherer reads. */
export class GatherSpecBody {
  /** Where each search begins; {word} and {place} in it are filled in. Empty where saved pages are read. */
  @IsString()
  @MaxLength(ADDRESS)
  start = '';

  @IsArray()
  @ArrayMaxSize(MOST_STEPS)
  @ValidateNested({ each: true })
  @Type(() => StepBody)
  steps: StepBody[] = [];

  @IsArray()
  @ArrayMaxSize(MOST_SEARCHES)
  @IsString({ each: true })
  @MaxLength(TEXT, { each: true })
  words: string[] = [];

  @IsArray()
  @ArrayMaxSize(MOST_SEARCHES)
  @IsString({ each: true })
  @MaxLength(TEXT, { each: true })
  places: string[] = [];

  @IsArray()
  @ArrayMaxSize(MOST_EXAMPLES)
  @ValidateNested({ each: true })
  @Type(() => ExampleBody)
  examples: ExampleBody[] = [];

  @IsObject()
  @ValidateNested()
  @Type(() => NextBody)
  next: NextBody = new NextBody();

  /** Fields of the page that a row leads to, pointed at on one; it is read where this is there. */
  @IsOptional()
  @ValidateNested()
  @Type(() => TaughtBody)
  detail?: TaughtBody | null;

  /** Where it reads the sites of companies on a list, rather than a directory: then nothing is to be taught. */
  @IsOptional()
  @ValidateNested()
  @Type(() => SitesBody)
  sites?: SitesBody | null;

  /** Fields without which a row is refused, beside the name. */
  @IsArray()
  @ArrayMaxSize(MOST_FIELDS)
  @Matches(GATHER_FIELD, { each: true, message: 'needs must be fields of companies' })
  needs: string[] = [];

  /** Country of all of them, where the pages do not say it. */
  @IsOptional()
  @Matches(/^[A-Z]{2}$/, { message: 'country must be an ISO code of two letters' })
  country?: string | null;

  /** Seconds between two pages of a host. */
  @IsNumber()
  @Min(0.1)
  @Max(600)
  pause = 1;

  /** Pages of one search at most. */
  @IsInt()
  @Min(1)
  @Max(100_000)
  pages = 1000;
}

export class GathererBody {
  @IsString()
  @IsNotEmpty({ message: 'name must not be empty: give the gatherer a name' })
  @MaxLength(NAME)
  name!: string;

  @IsObject()
  @ValidateNested()
  @Type(() => GatherSpecBody)
  spec!: GatherSpecBody;
}

/** A page that is fetched to be shown: where it is, or what the steps of a search lead to. */
export class FetchPageBody {
  @IsOptional()
  @IsString()
  @MaxLength(ADDRESS)
  address?: string;

  /** The search to be done instead, with the steps of the gatherer. */
  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  word?: string;

  @IsOptional()
  @IsString()
  @MaxLength(TEXT)
  place?: string;
}

/** A table or a page as it was pasted. */
export class PastedBody {
  @IsString()
  @IsNotEmpty({ message: 'text must not be empty: paste a table or a page' })
  @MaxLength(3_000_000)
  text!: string;
}

/** What is asked of a page with what is taught so far, which need not be saved yet. */
export class LookBody {
  @IsInt()
  @Min(1)
  page!: number;

  @IsObject()
  @ValidateNested()
  @Type(() => GatherSpecBody)
  spec!: GatherSpecBody;
}

export class AroundBody {
  @IsInt()
  @Min(1)
  page!: number;

  @IsInt()
  @Min(0)
  node!: number;

  /** Elements that are rows already. */
  @IsArray()
  @ArrayMaxSize(5000)
  @IsInt({ each: true })
  rows: number[] = [];
}

/** A machine that pages may be read from. */
export class GatherHostBody {
  @Matches(/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/, {
    message: 'name must be that of a host, such as directory.example, in small letters and without a path',
  })
  @MaxLength(253)
  name!: string;

  /** Whether it may be on this machine or in a private network. */
  @IsBoolean()
  private = false;
}

/** Words and places of one run alone, such as another program has; those of the gatherer where they are left out. */
export class RunWishBody {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_SEARCHES)
  @IsString({ each: true })
  @MaxLength(TEXT, { each: true })
  words?: string[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_SEARCHES)
  @IsString({ each: true })
  @MaxLength(TEXT, { each: true })
  places?: string[];
}

export const RUN_ACTS = ['pause', 'go-on', 'stop', 'try-failed', 'read-again'] as const;

export class RunActBody {
  @IsIn(RUN_ACTS)
  act!: (typeof RUN_ACTS)[number];
}

/** What a run's records become. */
export const DELIVER_TO = ['source', 'list', 'webhook'] as const;

export class DeliverRunBody {
  @IsIn(DELIVER_TO)
  to!: (typeof DELIVER_TO)[number];

  /** Name of the source or the list; id of the webhook. */
  @IsString()
  @IsNotEmpty()
  @MaxLength(NAME)
  name!: string;
}
