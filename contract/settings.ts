import { IsBoolean, IsIn, IsOptional, IsString, Matches, MaxLength } from 'class-validator';
import { CURRENCIES } from '../core/money/rates.ts';

/** Settings of the workspace: how figures are shown, and the day that "past 12 months" counts back from. */
export class SettingsBody {
  /** Currency that money is shown in and that new revenue lines take. */
  @IsIn(CURRENCIES as string[])
  currency = 'EUR';

  @IsIn(['km', 'miles'])
  distance: 'km' | 'miles' = 'km';

  /** 1,234.5 · 1.234,5 · 1 234,5 */
  @IsIn(['comma', 'point', 'space'])
  numbers: 'comma' | 'point' | 'space' = 'comma';

  @IsIn(['iso', 'words', 'dotted'])
  dates: 'iso' | 'words' | 'dotted' = 'words';

  @IsIn(['system', 'day', 'night'])
  theme: 'system' | 'day' | 'night' = 'system';

  /** Paper that pages are laid out for. */
  @IsIn(['A4', 'Letter'])
  paper: 'A4' | 'Letter' = 'A4';

  /** Whether single keys such as j, k and x do something. */
  @IsBoolean()
  keys = true;

  /** Who works here, as lists and verdicts name the person; empty where nobody said. */
  @IsString()
  @MaxLength(60)
  @Matches(/^[^"]*$/, { message: 'person must hold no quotation marks' })
  person = '';

  /** Null: today. */
  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'asOf must be a date such as 2026-09-30' })
  asOf: string | null = null;
}
