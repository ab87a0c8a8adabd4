import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { ChartAnswer, InhabitantsAnswer } from '../../../contract/market.ts';
import type { Chart } from '../../../core/charts/chart.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import { classOf, roundClasses } from '../../../core/stats/classes.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { shortFigure } from '../../../core/charts/wording.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

/** What shading stands in relation to: nothing, the records there, or the people living there. */
export type Per = 'all' | 'record' | 'inhabitants';

/** What a map can be shaded by. */
export const SHADE_MEASURES: readonly {
  key: string;
  label: string;
  field: string | null;
  measure: Chart['measure'];
}[] = [
  { key: 'count', label: 'how many', field: null, measure: { of: 'count' } },
  {
    key: 'headcount',
    label: 'sum of headcount',
    field: 'headcount',
    measure: { of: 'sum', field: 'headcount' },
  },
  { key: 'revenue', label: 'sum of revenue', field: 'revenue', measure: { of: 'sum', field: 'revenue' } },
  {
    key: 'growth',
    label: 'median growth',
    field: 'growth',
    measure: { of: 'median', field: 'growth', key: 'headcount 1y' },
  },
];

const CLASSES = 5;
const ALPHAS = [0.1, 0.24, 0.4, 0.58, 0.8];
/** People for whom a figure per inhabitants is told. */
const PEOPLE = 100_000;

export interface Shading {
  by: 'country' | 'region';
  /** By key: how dark, from 0 to 1. */
  shades: ReadonlyMap<string, number>;
  classes: { from: string; alpha: number }[];
  rows: { key: string; label: string; shown: string; value: number }[];
  unknown: number;
  title: string;
  say(key: string): string;
}

/** Countries or regions shaded in round classes; null where points are shown, until the figures are there, and where they could not be had. */
export function useShading(
  by: 'country' | 'region' | null,
  measureKey: string,
  per: Per,
): { shading: Shading | null; error: Error | null } {
  const tape = countedPart(useDesk((state) => state.tape));
  const format = useFormat();
  const { subject } = tape;
  const own =
    SHADE_MEASURES.find(
      ({ key, field }) => key === measureKey && (field === null || fieldOf(subject, field)),
    ) ?? SHADE_MEASURES[0]!;
  const chart: Chart = {
    id: 'shading',
    shape: 'table',
    by: { field: 'place', level: by ?? 'region' },
    measure: own.measure,
    most: 2000,
  };
  const asked = { tape, charts: [chart], currency: format.currency, against: 'universe' as const };
  const { data, error } = useQuery({
    queryKey: ['charts', asked],
    queryFn: ({ signal }) => call<{ charts: ChartAnswer[] }>('POST', '/charts', asked, signal),
    enabled: by !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const { data: people, error: unpeopled } = useQuery({
    queryKey: ['inhabitants'],
    queryFn: ({ signal }) => call<InhabitantsAnswer>('GET', '/inhabitants', undefined, signal),
    staleTime: Infinity,
    enabled: by !== null && per === 'inhabitants',
  });
  const shading = useMemo<Shading | null>(() => {
    const answer = data?.charts[0];
    if (!by || !answer || (per === 'inhabitants' && !people)) return null;
    const field = own.field === null ? null : fieldOf(subject, own.field)!;
    const living = by === 'country' ? people?.countries : people?.regions;
    const rows = answer.slots.flatMap((slot) => {
      if (slot.kind !== 'group' || slot.value === null) return [];
      const divisor =
        own.measure.of === 'median'
          ? 1
          : per === 'record'
            ? field
              ? slot.valued
              : (slot.base?.count ?? 0) / 100
            : per === 'inhabitants'
              ? (living?.[slot.key!] ?? 0) / PEOPLE
              : 1;
      if (!divisor) return [];
      const value = slot.value / divisor;
      return [{ key: slot.key!, label: slot.label!, value, shown: show(value) }];
    });
    function show(value: number): string {
      if (field) return shortFigure(field, format, value);
      return format.number(value, value < 10 && per !== 'all' ? 1 : 0);
    }
    const begins = roundClasses(
      rows.map(({ value }) => value),
      CLASSES,
    );
    const shades = new Map(
      rows
        .filter(({ value }) => classOf(begins, value) >= 0)
        .map(({ key, value }) => [key, ALPHAS[classOf(begins, value)]!]),
    );
    const named = new Map(rows.map((row) => [row.key, row]));
    return {
      by,
      shades,
      classes: begins.map((begin, i) => ({ from: show(begin), alpha: ALPHAS[i]! })),
      rows: rows.sort((a, b) => b.value - a.value),
      unknown: answer.slots.find(({ kind }) => kind === 'unknown')?.count ?? 0,
      title: `${own.label}${per === 'all' || own.measure.of === 'median' ? '' : per === 'record' ? (field ? ' each' : ' of 100 there') : ', for 100,000 inhabitants of its towns'}`,
      say: (key) => {
        const row = named.get(key);
        return row ? `${row.label}: ${row.shown}; click to keep only this` : 'none here';
      },
    };
  }, [data, people, by, per, own, subject, format]);
  return { shading, error: error ?? unpeopled };
}

/** The classes of the shading, and the same figures as a table for those who cannot see it. */
export function Legend({ shading }: { shading: Shading }) {
  return (
    <>
      <div
        className="absolute bottom-2 left-2 rounded border border-edge bg-paper px-2.5 py-1.5 text-[12px]"
        aria-hidden="true"
      >
        <p className="mb-1 font-semibold">{shading.title}</p>
        <ul className="flex gap-px">
          {shading.classes.map(({ from, alpha }, i) => (
            <li key={i} className="w-16">
              <span
                className="block h-3 border border-edge"
                style={{ background: `color-mix(in srgb, var(--ink) ${alpha * 100}%, var(--paper))` }}
              />
              <span className="figure text-[11px]">
                {from}
                {i === shading.classes.length - 1 && '+'}
              </span>
            </li>
          ))}
        </ul>
        {shading.unknown > 0 && <p className="mt-0.5 text-unsure">{shading.unknown} of unknown place</p>}
      </div>
      <table className="sr-only">
        <caption>{shading.title}</caption>
        <tbody>
          {shading.rows.map(({ key, label, shown }) => (
            <tr key={key}>
              <th scope="row">{label}</th>
              <td>{shown}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
