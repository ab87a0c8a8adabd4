import { Type } from 'class-transformer';
import {
  IsIn,
  IsInt,
  IsLatitude,
  IsLongitude,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { PicksBody } from './row-requests.ts';

/** Requests and answers about companies that are visited or rung up. */

/** Stops of a day at most: more nobody drives to. */
export const MOST_STOPS = 60;
/** Kilometres an hour between them, where nobody says otherwise. */
export const SPEED = 60;

class StartBody {
  @IsLatitude({ message: 'start.lat must be a latitude from -90 to 90' })
  lat!: number;

  @IsLongitude({ message: 'start.lon must be a longitude from -180 to 180' })
  lon!: number;

  @IsString()
  @MaxLength(120)
  label!: string;
}

export class VisitsBody extends PicksBody {
  /** Where the day begins and ends; the first of the companies where left out. */
  @IsOptional()
  @ValidateNested()
  @Type(() => StartBody)
  start?: StartBody;

  /** So many, the nearest to the start. */
  @IsInt()
  @Min(1)
  @Max(MOST_STOPS)
  most = 12;

  /** The day, and when it begins. */
  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'day must be a date such as 2026-12-01' })
  day?: string;

  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'from must be a time such as 09:00' })
  from = '09:00';

  /** Minutes at each, and kilometres an hour between them. */
  @IsInt()
  @Min(5)
  @Max(600)
  stay = 45;

  @IsInt()
  @Min(5)
  @Max(130)
  speed = SPEED;
}

export class VisitsPaperBody extends VisitsBody {
  @IsIn(['A4', 'Letter'])
  size: 'A4' | 'Letter' = 'A4';
}

export interface VisitView {
  key: string;
  name: string;
  street: string | null;
  postcode: string | null;
  town: string | null;
  country: string | null;
  web: string | null;
  lat: number;
  lon: number;
  phone: string | null;
  /** Who stands highest there and can be reached. */
  person: {
    key: string;
    name: string;
    title: string | null;
    mail: string | null;
    phone: string | null;
  } | null;
  note: string | null;
  /** From the one before, as the crow flies. */
  km: number;
  /** Driving to it, estimated. */
  minutes: number;
  /** "09:40"; past midnight it goes on with 24. */
  at: string;
  until: string;
}

export interface VisitsAnswer {
  /** Towns around, the largest first, to find one's way by. */
  towns: { name: string; lat: number; lon: number }[];
  start: { lat: number; lon: number; label: string };
  stops: VisitView[];
  /** Back to the start, and altogether. */
  back: { km: number; minutes: number; at: string };
  km: number;
  minutes: number;
  /** Companies that were asked for and have no place on the map, or are farther than the nearest so many. */
  without: number;
  beyond: number;
}
