/** What a picker asks counts of. */
export interface CountsRequest {
  tape: unknown;
  at?: string;
  field: string;
  scheme?: string;
  rank?: string;
  /** Codes: whether those of other schemes decide too, as in a line. */
  kin?: 'sure' | 'possible';
  /** Codes: words to search, or the parent whose children are wanted. */
  search?: string;
  level?: 'countries' | 'regions' | 'towns' | 'neighbours' | 'metro' | 'postcodes';
  within?: string;
  /** Places: around a point, by distances in a unit. */
  near?: { lat: number; lon: number; unit?: 'km' | 'miles' };
  /** Places: of any site, as in a line. */
  site?: 'any';
  /** Categories: the span within which a value was first seen, as in a line. */
  seen?: string;
  /** The span within which values must be recorded, as in a line. */
  fresh?: string;
  currency?: string;
  /** Measures: the key whose figures are wanted. */
  key?: string;
  /** Lists: the heading under which files say what is wanted, and of which members, as a line on lists tests them. */
  column?: string;
  members?: unknown;
}
