import { IsBoolean, IsIn, IsOptional, IsString, Matches, MaxLength } from 'class-validator';
import { CURRENCIES } from '../core/money/rates.ts';
import { SETTINGS, type Settings } from '../core/settings.ts';

/** Settings of the workspace, as they are written. */
export class SettingsBody implements Settings {
  @IsIn(CURRENCIES as string[])
  currency: string = SETTINGS.currency;

  @IsIn(['km', 'miles'])
  distance: Settings['distance'] = SETTINGS.distance;

  @IsIn(['comma', 'point', 'space'])
  numbers: Settings['numbers'] = SETTINGS.numbers;

  @IsIn(['iso', 'words', 'dotted'])
  dates: Settings['dates'] = SETTINGS.dates;

  @IsIn(['system', 'day', 'night'])
  theme: Settings['theme'] = SETTINGS.theme;

  @IsIn(['A4', 'Letter'])
  paper: Settings['paper'] = SETTINGS.paper;

  @IsBoolean()
  keys: boolean = SETTINGS.keys;

  @IsString()
  @MaxLength(60)
  @Matches(/^[^"]*$/, { message: 'person must hold no quotation marks' })
  person: string = SETTINGS.person;

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'asOf must be a date such as 2026-09-30' })
  asOf: string | null = SETTINGS.asOf;
}
