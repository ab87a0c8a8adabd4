/** Settings of the workspace: how figures are shown, and the day that "past 12 months" counts back from. */
export interface Settings {
  /** Currency that money is shown in and that new revenue lines take. */
  currency: string;
  distance: 'km' | 'miles';
  /** 1,234.5 · 1.234,5 · 1 234,5 */
  numbers: 'comma' | 'point' | 'space';
  dates: 'iso' | 'words' | 'dotted';
  theme: 'system' | 'day' | 'night';
  /** Paper that pages are laid out for. */
  paper: 'A4' | 'Letter';
  /** Whether single keys such as j, k and x do something. */
  keys: boolean;
  /** Who works here, as lists and verdicts name the person; empty where nobody said. */
  person: string;
  /** Null: today. */
  asOf: string | null;
}

/** What holds where nobody set anything. */
export const SETTINGS: Readonly<Settings> = {
  currency: 'EUR',
  distance: 'km',
  numbers: 'comma',
  dates: 'words',
  theme: 'system',
  paper: 'A4',
  keys: true,
  person: '',
  asOf: null,
};
