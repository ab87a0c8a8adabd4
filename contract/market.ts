import type { Extent } from '../core/geo/extent.ts';
import type { Chart } from '../core/charts/chart.ts';
import type { Slot, SlotKind } from '../core/charts/figures.ts';
import type { Concentration } from '../core/stats/concentration.ts';
import type { Test } from '../core/tape/nodes.ts';

/** Answers about the result as a market. Money is in the currency that was asked for. */

export interface ChartSlot extends Slot {
  /** Null for what has no key: the rest, bands that no group holds, unknown. */
  label: string | null;
  /** Figures: from where to below where the bar goes; the last is open. */
  edges: [from: number, to: number | null] | null;
  /** The test of a line that keeps this group; null where none says it. */
  test: Test | null;
}

export interface ChartAnswer {
  chart: Chart;
  /** Records of the tape. */
  total: number;
  /** Of an axis of figures: the median of those that are known. */
  median: number | null;
  slots: ChartSlot[];
  split:
    { kind: SlotKind; key: string | null; groups: number; label: string | null; test: Test | null }[] | null;
  /** Dots as x, y and 1 where either is an estimate, in turn, with the key of each; how many have both figures. */
  scatter: { dots: number[]; placed: number; keys: string[] } | null;
}

export interface ConcentrationAnswer {
  by: 'revenue' | 'headcount';
  /** Null where nobody has a figure. */
  found: Concentration | null;
  companies: number;
  /** Groups of companies that count as one. */
  groups: number;
  /** Companies without a single figure. */
  unknown: number;
  /** Percent of the total that rests on estimates. */
  estimated: number;
  /** Lines on size that were left out, in words. */
  leftOut: string[];
  /** The same of what it is compared with. */
  base: Concentration | null;
}

export interface KnownField {
  field: string;
  label: string;
  known: number;
  /** Of those known. */
  estimated: number;
  banded: number;
}

export interface BreakdownAnswer {
  total: number;
  /** Records of what it is compared with. */
  base: number | null;
  charts: ChartAnswer[];
  known: KnownField[];
  /** Companies only. */
  concentration: { revenue: ConcentrationAnswer; headcount: ConcentrationAnswer } | null;
}

/** The foot of the sheet, by column. */
export interface SummaryAnswer {
  columns: Record<string, { known: number; exact?: number; median?: number | null; sum?: number }>;
}

/** Where a company stands among those of its industry group. */
export interface StandingAnswer {
  /** Null where its main code is not known in the scheme that groups. */
  among: { label: string; count: number } | null;
  strips: {
    field: string;
    label: string;
    /** Null where the company's is unknown or a band. */
    value: number | null;
    estimated: boolean;
    /** How many of the group are known. */
    known: number;
    /** 5th, 25th, 50th, 75th and 95th percentile. */
    quantiles: number[];
    /** Percent of those known that are below it. */
    percentile: number | null;
  }[];
}

/** What of a tape is in view of a map. */
export interface ClustersAnswer {
  /** The stretch that holds what is kept, without the few farthest; null where nothing kept has a place. */
  extent: Extent | null;
  /** Records of the tape that have a place in the part that is seen; `inView` has those of the whole stretch asked for. */
  seen: number;
  /** Whose places these are: the records' own, or those of the companies they hang on, in a role. */
  places: 'own' | { of: 'company'; role: string };
  /** Records with a place. */
  located: number;
  inView: number;
  /** Longitude, latitude and number of each cluster, in turn; empty where all in view stand by themselves. */
  clusters: number[];
  singles: { key: string; name: string; lat: number; lon: number }[];
}

/** People living in the towns of the gazetteer, by country and by region. */
export interface InhabitantsAnswer {
  countries: Record<string, number>;
  regions: Record<string, number>;
}
