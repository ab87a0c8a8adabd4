import { IsIn, IsNotEmpty, IsOptional, IsString, MaxLength } from 'class-validator';
import { DEPARTMENTS } from '../core/fields/companies/making.ts';
import { LEVELS } from '../core/fields/people.ts';

/** What is asked of people beyond their fields: how their titles are read, and what is known about one of them. */

/** How a title is read; null says nothing of it. */
export class TitleReadingBody {
  @IsString()
  @IsNotEmpty({ message: 'title must not be empty' })
  @MaxLength(200)
  title!: string;

  /** Null where the title says nothing of it; left out with the level where it is read as it was loaded. */
  @IsOptional()
  @IsIn(DEPARTMENTS)
  department?: string | null;

  @IsOptional()
  @IsIn(LEVELS)
  level?: string | null;
}

export interface TitleReadingView {
  department: string | null;
  level: string | null;
  person: string;
  at: string;
}

export interface TitleView {
  title: string;
  /** Of most of those who have the title. */
  department: string | null;
  level: string | null;
  people: number;
  /** How many pairs of department and level those who have it are given; more than one where sources say what the title does not. */
  readings: number;
  /** What we ourselves say; null where that is nothing. */
  own: TitleReadingView | null;
}

export interface TitlesAnswer {
  titles: TitleView[];
  total: number;
}

/** One thing that happened to a person. */
export interface PersonHappening {
  on: string;
  what: string;
  /** Of an event of a company that names them; null where the record itself changed. */
  kind: string | null;
}

export interface PersonAboutAnswer {
  /** The latest first. */
  happenings: PersonHappening[];
  /** Whom we know: that person, or others at the company, from the address book. */
  known: { name: string; title: string | null; book: string; same: boolean }[];
  /** How their title is read by us; null where by the source and the table of words. */
  reading: TitleReadingView | null;
}
