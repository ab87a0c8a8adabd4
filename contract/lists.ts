import { ADDRESS, MOST_ADDRESSES } from '../core/lists/addresses.ts';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsNotEmpty,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import type { CarriedColumn } from '../core/lists/carried.ts';
import { SUBJECTS } from '../core/fields/registry.ts';
import {
  COMBINE_WAYS,
  MOST_COMBINED,
  type Combination,
  type CombineWay,
  type Region,
} from '../core/lists/combine.ts';
import { ORIGIN_KINDS, type OriginKind, type Roll } from '../core/lists/roll.ts';
import { VERDICTS, type ListVerdict } from '../core/tape/nodes.ts';
import type { CategoryCounts } from './responses.ts';
import { ChosenPeopleBody } from './right-people.ts';
import { MOST_KEYS, PicksBody } from './row-requests.ts';

/** Requests and answers about lists. */

/** Reasons, tags and names are typed between quotes, so they hold none. */
const plain = (what: string) => Matches(/^[^"]*$/, { message: `${what} must hold no quotation marks` });
const nameRule = { message: 'name must not be empty' };

/** What can be said of a list. */
class ListSaidBody {
  @IsOptional()
  @IsString()
  @MaxLength(1000)
  purpose?: string;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  folder?: string;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  owner?: string;

  /** Whether its members are kept off every export: they alone, or with the groups they belong to. */
  @IsOptional()
  @IsIn(['members', 'groups'])
  suppression?: 'members' | 'groups' | null;
}

export class ListBody extends ListSaidBody {
  @IsString()
  @IsNotEmpty(nameRule)
  @MaxLength(120)
  name!: string;

  @IsOptional()
  @IsIn([...SUBJECTS.keys()])
  subject?: string;
}

/** Domains and mail addresses that a suppression list keeps off beside its members. */
export class AddressesBody {
  @IsArray()
  @ArrayMaxSize(MOST_ADDRESSES)
  @IsString({ each: true })
  @MaxLength(320, { each: true })
  @Matches(ADDRESS, {
    each: true,
    message:
      'each of addresses must be a domain such as foo.example, or a mail address such as office@foo.example',
  })
  addresses!: string[];
}

/** What changes of a list; what is left out stays. */
export class ListChangeBody extends ListSaidBody {
  @IsOptional()
  @IsString()
  @IsNotEmpty(nameRule)
  @MaxLength(120)
  name?: string;

  @IsOptional()
  @IsBoolean()
  frozen?: boolean;

  /** False makes a list that follows others a fixed one. */
  @IsOptional()
  @IsIn([false])
  stays?: false;
}

/** Records of a tape to be put on a list; or, from companies to people and the like, what hangs on them. */
export class AddBody extends ChosenPeopleBody {
  /** What put them there; a tape, or by hand where some were picked, where left out. */
  @IsOptional()
  @IsIn(ORIGIN_KINDS)
  kind?: OriginKind;

  /** In words; the tape's where left out. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  what?: string;
}

export class CopyBody extends PicksBody {
  @IsString()
  to!: string;

  /** Whether they are taken off the list they come from. */
  @IsBoolean()
  move = false;
}

/** Members by key, or as records picked of a tape. */
class MembersBody {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_KEYS)
  @IsString({ each: true })
  members?: string[];

  @IsOptional()
  @ValidateNested()
  @Type(() => PicksBody)
  picks?: PicksBody;
}

export class VerdictBody extends MembersBody {
  @IsIn(VERDICTS)
  verdict!: ListVerdict;

  @IsOptional()
  @IsString()
  @MaxLength(80)
  @plain('reason')
  reason?: string;

  /** When the verdict that was seen had been given, or null for none: another since then is told of. */
  @IsOptional()
  @IsString()
  seen?: string | null;
}

export class DetailsBody extends MembersBody {
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  note?: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  @plain('assigned')
  assigned?: string | null;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(40, { each: true })
  @Matches(/^[^"]+$/, { each: true, message: 'tags must hold no quotation marks' })
  tag?: string[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  untag?: string[];
}

export class CombinePartBody {
  @IsString()
  list!: string;

  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  @IsIn(VERDICTS, { each: true })
  verdict?: ListVerdict[];
}

export class OverlapBody {
  @IsArray()
  @ArrayMinSize(2)
  @ArrayMaxSize(MOST_COMBINED)
  @ValidateNested({ each: true })
  @Type(() => CombinePartBody)
  parts!: CombinePartBody[];
}

/** One list for a shortlist, two or more to be combined. */
export class CombineBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_COMBINED)
  @ValidateNested({ each: true })
  @Type(() => CombinePartBody)
  parts!: CombinePartBody[];

  @IsIn(COMBINE_WAYS)
  way!: CombineWay;

  @IsString()
  @IsNotEmpty(nameRule)
  @MaxLength(120)
  name!: string;

  /** Whether its members follow those lists from now on. */
  @IsBoolean()
  stays = false;
}

/** A list as the Lists place shows it. */
export interface ListView {
  key: string;
  name: string;
  subject: string;
  purpose: string;
  folder: string;
  owner: string;
  suppression: 'members' | 'groups' | null;
  stays: Combination | null;
  frozen: boolean;
  madeAt: string;
  changedAt: string;
  removedAt: string | null;
  /** Grows with every change of its members. */
  revision: number;
  members: number;
  judgedIn: number;
  judgedOut: number;
  unsure: number;
  notJudged: number;
  /** Kinds of its origins with how many of each, as in "file 1, tape 2"; null where it has none. */
  origins: string | null;
  /** Of a suppression list: how many domains and mail addresses it keeps off beside its members. */
  addresses: number;
  /** The headings that files carried along with members, and what each is asked by. */
  carried: CarriedColumn[];
}

export interface ListsAnswer {
  lists: ListView[];
  /** Removed lately, and to be had back. */
  removed: ListView[];
  /** Reasons for being out, the most used first. */
  reasons: string[];
}

export interface ListRollAnswer {
  list: ListView;
  roll: Roll;
  /** Of those out, by reason. */
  reasons: { reason: string; count: number }[];
}

/** Another list that has some of the same members. */
export interface ListShare {
  list: string;
  name: string;
  both: number;
  /** All of its members. */
  there: number;
}

export interface PaceAnswer {
  /** Verdicts of the last hours, the latest first, with when each was given. */
  verdicts: { verdict: ListVerdict; at: string }[];
}

export interface AddedAnswer {
  /** How many were not on it yet, of how many. */
  added: number;
  of: number;
  /** The origins that this made, by which it can be taken back. */
  origins: number[];
  /** Where it moved them: the act that took them off the list before. */
  taken: number | null;
  list: ListView;
}

/** What putting some records on lists would do, before it is done. */
export interface BeforeAddingAnswer {
  count: number;
  /** By list: how many of them it has already. */
  there: Record<string, number>;
  /** Kept off every export by some suppression list. */
  suppressed: number;
  /** Companies where nobody holds any of the functions asked for. */
  without: number;
  /** Their keys, where they are not too many to be opened by them. */
  withoutKeys: string[];
}

export interface TakenAnswer {
  removed: number;
  /** Names the act, so that it can be taken back; null where none of them was on the list. */
  taken: number | null;
  list: ListView;
}

export interface JudgedAnswer {
  judged: number;
  batch: number;
  list: ListView;
  /** Another verdict given since the one that was seen, which stays in the history. */
  earlier: { verdict: ListVerdict; person: string; at: string } | null;
}

export interface DescribedAnswer {
  described: number;
  undo: number;
}

/** A record as a member of one list. */
export interface MemberView {
  list: string;
  name: string;
  verdict: ListVerdict;
  reason: string | null;
  judgedBy: string | null;
  judgedAt: string | null;
  note: string | null;
  assigned: string | null;
  tags: string[];
  origins: { kind: string; what: string; person: string; at: string }[];
  history: { verdict: ListVerdict; reason: string | null; person: string; at: string }[];
}

export interface OverlapAnswer {
  regions: Region[];
}

/** A list held against a tape. */
export interface AgainstListAnswer {
  members: number;
  /** On the list and kept by the tape. */
  both: number;
  /** Kept by the tape, and not on the list. */
  joining: number;
  /** On the list, and not kept by the tape. */
  leaving: number;
  /** By line of the tape: members that it does not let through. */
  lines: { id: string; words: string; dropped: number }[];
}

/** What files say under a heading of the members of lists. */
export interface CarriedCounts extends CategoryCounts {
  /** Of how many a file says anything. */
  known: number;
  /** The least and the greatest number; null where they are none. */
  low: number | null;
  high: number | null;
}
