import { useState, type ComponentType } from 'react';
import { fieldOf } from '../../core/fields/registry.ts';
import type { Test } from '../../core/tape/nodes.ts';
import type { PickerProps } from '../desk/pickers/picker-props.ts';
import { show, type Answers, type Shown } from './render.tsx';

/** Pickers by themselves, with a line that keeps what they ask. For tests only. */

type Any = ComponentType<PickerProps<never> & { estimates: boolean; onEstimates?(on: boolean): void }>;

interface Wish {
  /** The test at the start. */
  start?: Test | null;
  /** Id of the line on the tape. */
  at?: string;
  estimates?: boolean;
}

export interface Picked extends Shown {
  /** All tests that were asked, in their order; null where nothing is asked any more. */
  asks: (Test | null)[];
  last(): Test | null | undefined;
}

function Held({
  of: Of,
  field,
  wish,
  onTest,
}: {
  of: Any;
  field: string;
  wish: Wish;
  onTest(test: Test | null): void;
}) {
  const [test, setTest] = useState<Test | null>(wish.start ?? null);
  return (
    <Of
      field={fieldOf('companies', field)!}
      test={test as never}
      at={wish.at}
      estimates={wish.estimates ?? false}
      onTest={(next: never) => {
        onTest(next);
        setTest(next);
      }}
    />
  );
}

/** Shows the picker of a field of companies. */
export function pick(of: unknown, field: string, answers: Answers, wish: Wish = {}): Picked {
  const asks: (Test | null)[] = [];
  const shown = show(
    <Held of={of as Any} field={field} wish={wish} onTest={(test) => asks.push(test)} />,
    answers,
  );
  return { ...shown, asks, last: () => asks.at(-1) };
}

/** A value with its count, as the API gives it. */
export function value(key: string, count: number, more: object = {}) {
  return { key, label: key, count, ...more };
}

/** Counts in bars, as the API gives them. */
export function bars(counts: readonly number[], edges: readonly number[], more: object = {}) {
  return {
    kind: 'range',
    edges,
    bars: [
      { to: edges[0]! - 1 },
      ...edges.map((from, i) => (i + 1 < edges.length ? { from, to: edges[i + 1]! - 1 } : { from })),
    ],
    counts,
    estimated: counts.map(() => 0),
    banded: 0,
    unknown: 0,
    known: counts.reduce((sum, count) => sum + count, 0),
    total: counts.reduce((sum, count) => sum + count, 0),
    reasons: {},
    bands: [],
    ...more,
  };
}
