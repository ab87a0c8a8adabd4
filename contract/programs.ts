import { Type } from 'class-transformer';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsObject,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { ExportBody } from './exports.ts';

/** Requests about other programs that are given what is exported: addresses they read, folders, webhooks. */

const NAME = 80;

/** An address under which other programs read what a tape keeps, always as it is now. */
export class FeedBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(NAME)
  name!: string;

  @IsObject()
  @ValidateNested()
  @Type(() => ExportBody)
  wish!: ExportBody;
}

export class FolderBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(NAME)
  name!: string;

  /** On this machine, from its root. */
  @IsString()
  @IsNotEmpty()
  @MaxLength(1000)
  path!: string;
}

/** A machine that webhooks may go to. */
export class HostBody {
  @Matches(/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$|^\[[0-9a-f:]+\]$/, {
    message: 'name must be that of a host, such as hooks.example, in small letters and without a path',
  })
  @MaxLength(253)
  name!: string;

  /** Whether it may be on this machine or in a private network. */
  @IsBoolean()
  private = false;
}

export class HookBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(NAME)
  name!: string;

  /** "stand-in" for the receiver that ships with the program. */
  @IsString()
  @IsNotEmpty()
  @MaxLength(1000)
  url!: string;

  /** Rows of one request. */
  @IsInt()
  @Min(1)
  @Max(10_000)
  batch = 500;
}

export class AgainDeliveryBody {
  /** This one alone, or all of its export to the same webhook. */
  @IsIn(['one', 'all'])
  which: 'one' | 'all' = 'one';
}
