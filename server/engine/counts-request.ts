/** What a picker asks counts of. */
export interface CountsRequest {
  tape: unknown;
  at?: string;
  field: string;
  scheme?: string;
  rank?: string;
  /** Codes: words to search, or the parent whose children are wanted. */
  search?: string;
  level?: 'countries' | 'regions' | 'towns' | 'neighbours' | 'metro' | 'postcodes';
  within?: string;
  near?: { lat: number; lon: number };
  currency?: string;
  /** Measures: the key whose figures are wanted. */
  key?: string;
}
