import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { TRIGGER_WAYS, type TriggerWay } from '../core/outreach/trigger.ts';
import { REPLY_KINDS, type ReplyKind } from '../core/outreach/reply-kind.ts';
import type { Proof } from '../core/outreach/proofs.ts';
import { ChosenPeopleBody } from './right-people.ts';
import { MOST_KEYS } from './row-requests.ts';

/** Requests and answers about what is written to people. */

const MOST_WORDS = 2000;
const MOST_A_DAY = 5000;
/** Letters of a body; a message is a note, no paper. */
export const MOST_LETTERS = 20_000;

/** One line: what would break a header has no place in it. */
const ONE_LINE = /^[^\r\n]*$/;
const oneLine = (field: string) => Matches(ONE_LINE, { message: `${field} must be one line` });

export class CampaignBody extends ChosenPeopleBody {
  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(120)
  @oneLine('name')
  name!: string;

  /** Name of the template; the first where left out. */
  @IsOptional()
  @IsString()
  template?: string;
}

export class CampaignChangeBody {
  @IsOptional()
  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(120)
  @oneLine('name')
  name?: string;

  @IsOptional()
  @IsString()
  template?: string;

  @IsOptional()
  @IsIn(TRIGGER_WAYS)
  trigger?: TriggerWay;

  /** Least certainty of an address, in percent. */
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(100)
  certainty?: number;

  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(MOST_WORDS)
  words?: number;

  /** Days in which nobody of us wrote to somebody; 0 asks for none. */
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(3650)
  quietDays?: number;

  @IsOptional()
  @IsBoolean()
  askProof?: boolean;
}

/** Takes back that people were put into a campaign. */
export class PutBackBody {
  /** The place of the last one before them. */
  @IsInt()
  @Min(-1)
  after!: number;

  /** How many they were. */
  @IsInt()
  @Min(0)
  added!: number;

  /** Companies that were noted to have nobody of the functions asked for. */
  @IsArray()
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  without!: string[];
}

export class LeftOutBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  people!: string[];

  @IsBoolean()
  leftOut!: boolean;
}

/** Whose addresses mail hosts are asked for; all drafts' where left out. */
export class CheckAddressesBody {
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  people?: string[];
}

/** Whose messages were looked at. */
export class SeenBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  people!: string[];
}

/** A draft written by hand, or filled anew from a template. */
export class MessageBody {
  @IsOptional()
  @IsString()
  @MaxLength(300)
  @oneLine('subject')
  subject?: string;

  @IsOptional()
  @IsString()
  @MaxLength(MOST_LETTERS)
  body?: string;

  /** The proof it names; null for none. */
  @IsOptional()
  @IsString()
  proof?: string | null;

  @IsOptional()
  @IsIn(TRIGGER_WAYS)
  trigger?: TriggerWay;

  /** Name of a template to fill it anew from. */
  @IsOptional()
  @IsString()
  template?: string;
}

export class OutboxBody {
  /** Whose messages; all that go out today and were seen where left out. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  people?: string[];
}

export class CancelBody {
  /** Numbers of messages. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_KEYS)
  @IsInt({ each: true })
  messages!: number[];
}

export class PauseBody {
  @IsBoolean()
  paused!: boolean;
}

export class TemplateBody {
  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(80)
  @oneLine('name')
  name!: string;

  @Matches(/^[a-z]{2}$/, { message: 'language must be two small letters, such as en or de' })
  language = 'en';

  @IsString()
  @MaxLength(300)
  @oneLine('subject')
  subject!: string;

  @IsString()
  @IsNotEmpty({ message: 'body must not be empty' })
  @MaxLength(MOST_LETTERS)
  body!: string;
}

export class ProofBody implements Omit<Proof, 'id'> {
  @IsString()
  @IsNotEmpty({ message: 'text must not be empty' })
  @MaxLength(400)
  text!: string;

  /** Beginnings of NACE codes. */
  @IsArray()
  @ArrayMaxSize(40)
  @Matches(/^\d{1,2}(?:\.\d{1,2})?$/, {
    each: true,
    message: 'industries must be NACE codes or their beginnings, such as 16 or 25.51',
  })
  industries: string[] = [];

  @IsArray()
  @ArrayMaxSize(40)
  @IsString({ each: true })
  technologies: string[] = [];

  @IsOptional()
  @IsInt()
  @Min(0)
  from: number | null = null;

  @IsOptional()
  @IsInt()
  @Min(0)
  to: number | null = null;

  @IsString()
  @MaxLength(200)
  source = '';

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'since must be a date such as 2026-09-30' })
  since: string | null = null;
}

/** What holds for all that is written from this workspace. */
export class OutreachSettingsBody {
  /** Messages a day and an hour. */
  @IsInt()
  @Min(1)
  @Max(MOST_A_DAY)
  daily = 40;

  @IsInt()
  @Min(1)
  @Max(MOST_A_DAY)
  hourly = 20;

  /** Working hours of those written to, by their own clock. */
  @IsInt()
  @Min(0)
  @Max(23)
  from = 8;

  @IsInt()
  @Min(1)
  @Max(24)
  to = 17;

  /** Their working days, 1 Monday to 7 Sunday. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(7)
  @IsIn([1, 2, 3, 4, 5, 6, 7], { each: true })
  days: number[] = [1, 2, 3, 4, 5];

  @IsString()
  @MaxLength(80)
  @oneLine('sender')
  sender = '';

  @IsOptional()
  @IsEmail({}, { message: 'mail must be a mail address' })
  mail: string | null = null;

  /** Put below each message, and not counted. */
  @IsString()
  @MaxLength(1000)
  signature = '';

  /** The line that says how to hear no more; empty for none. */
  @IsString()
  @MaxLength(300)
  @oneLine('unsubscribe')
  unsubscribe = 'Answer “no” and none of us writes again.';

  /** What a new campaign asks. */
  @IsInt()
  @Min(0)
  @Max(100)
  certainty = 80;

  @IsInt()
  @Min(1)
  @Max(MOST_WORDS)
  words = 40;

  @IsInt()
  @Min(0)
  @Max(3650)
  quietDays = 90;

  @IsBoolean()
  askProof = false;

  /** Messages of one wording that may go out of a campaign on a day. */
  @IsInt()
  @Min(1)
  @Max(MOST_A_DAY)
  sameText = 20;

  /** Whether the stand-in works and answers within seconds and waits for no working hours. */
  @IsBoolean()
  hasten = true;
}

/** One's own mail server. */
export class MailServerBody {
  @Matches(/^[a-zA-Z0-9](?:[a-zA-Z0-9.-]*[a-zA-Z0-9])?$/, {
    message: 'host must be the name or address of a server',
  })
  @MaxLength(253)
  host!: string;

  @IsInt()
  @Min(1)
  @Max(65_535)
  port!: number;

  /** Whether it speaks TLS from the start; else it is asked for it. */
  @IsBoolean()
  secure = false;

  @IsString()
  @MaxLength(200)
  user = '';

  @IsString()
  @MaxLength(400)
  password = '';
}

export class ReplyChangeBody {
  @IsOptional()
  @IsBoolean()
  done?: boolean;

  @IsOptional()
  @IsBoolean()
  meeting?: boolean;

  @IsOptional()
  @IsIn(REPLY_KINDS)
  kind?: ReplyKind;
}
