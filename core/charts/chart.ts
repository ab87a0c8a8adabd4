/** Charts of who is left, as small nodes: what the groups are, what is measured of each, and how it is drawn. */

/** What groups are made of: the values of a field, in some form. */
export interface Axis {
  readonly field: string;
  /** Places: "country", "region" or "town". Codes: "section", "division", "group" or "class". Categories with groups: "group". Dates: "year" or "month". */
  readonly level?: string;
  /** Keyed fields and growth: the key whose figures make the groups, such as "dealers" or "headcount 1y". */
  readonly key?: string;
}

/** What is told of each group. All but the count and its share are of a field that has figures. */
export interface Measure {
  readonly of: 'count' | 'share' | 'sum' | 'mean' | 'median';
  readonly field?: string;
  /** Keyed fields and growth: the key whose figures are taken. */
  readonly key?: string;
}

/** How charts are drawn, with the words for each. */
export const SHAPES = {
  bars: 'bars',
  stacked: 'stacked bars',
  parts: 'parts of a whole',
  table: 'table',
  heat: 'heat table',
  histogram: 'histogram',
  scatter: 'scatter',
  strip: 'strips',
} as const;
export type Shape = keyof typeof SHAPES;

export interface Chart {
  readonly id: string;
  readonly title?: string;
  readonly shape: Shape;
  readonly by: Axis;
  /** Stacked bars and tables: what each group is split by. */
  readonly split?: Axis;
  /** A scatter has its field upwards, strips show how its figures lie. */
  readonly measure: Measure;
  /** How many groups are shown by themselves; the smaller ones stand together. Fields with an order of their own show all. */
  readonly most?: number;
}

/** Groups that a chart shows by themselves where it does not say. */
export const MOST_GROUPS = 10;
/** Parts that a split has; further ones stand together. */
export const MOST_PARTS = 7;
/** Charts that a tape can carry. */
export const MOST_CHARTS = 40;

export const MEASURES = ['count', 'share', 'sum', 'mean', 'median'] as const;
