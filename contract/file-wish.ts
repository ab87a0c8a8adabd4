import type { Computed } from '../core/exports/computed.ts';
import type { FormatId } from '../core/exports/formats.ts';
import type { HeadingLanguage } from '../core/exports/headings/languages.ts';

/** How a file is made, as a template keeps it: what `FileWishBody` checks. */
export interface FileWish {
  format: FormatId;
  columns: string[];
  headings?: Record<string, string>;
  computed?: Computed[];
  language: HeadingLanguage;
  currency: string;
  ownCurrency?: boolean;
  delimiter: string;
  bom: boolean;
  quoteAll: boolean;
  decimalComma: boolean;
  lineEnd: 'crlf' | 'lf';
  paper: 'A4' | 'Letter';
  letter?: { sender: string; text: string; from?: string };
  areas: boolean;
  breakdown: boolean;
  needs?: string[];
  split?: { by?: string; field?: string; rows?: number };
  beside: boolean;
  receiver: string;
  handed?: { receiver?: string; days?: number };
}
