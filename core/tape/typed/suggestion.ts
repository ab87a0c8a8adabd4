/** A line that a text may mean, as it would be typed. */
export interface Suggestion {
  typed: string;
  what?: string;
  /** Just what was typed is its name. */
  exact?: true;
  alike?: true;
}
