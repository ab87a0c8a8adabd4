/** Columns of a list of companies that each language has words for, by their ids. */
export type HeadedColumn =
  | 'name'
  | 'registration'
  | 'street'
  | 'postcode'
  | 'town'
  | 'region'
  | 'country'
  | 'headcount'
  | 'revenue'
  | 'profit'
  | 'founded'
  | 'web'
  | 'mail'
  | 'phone'
  | 'main-code'
  | 'legal-form';

/** What the columns are called in one language, several words by commas. */
export type Told = Readonly<Record<HeadedColumn, string>>;
