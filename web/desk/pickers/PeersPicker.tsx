import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RowsAnswer } from '../../../contract/responses.ts';
import {
  DEFAULT_WEIGHTS,
  PART_WORDS,
  PARTS,
  weightOf,
  type Part,
  type Weights,
} from '../../../core/peers/parts.ts';
import { emptyTape, type PeersTest } from '../../../core/tape/nodes.ts';
import { SCORE_COLUMN, WHY_COLUMN } from '../../../core/tape/own-columns.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { useAlternatives } from '../queries.ts';
import { useDesk } from '../store.ts';
import { useFound, useNames } from './found-companies.ts';
import type { PickerProps } from './picker-props.ts';

const STEPS = [0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9];
const USUAL = 0.6;
const SHOWN = 12;

/** The companies most alike some companies or a list: whom from, how alike, and what counts how much. */
export function PeersPicker({ field, at, test, onTest }: PickerProps<PeersTest>) {
  const format = useFormat();
  const [text, setText] = useState('');
  const [columns, setColumns] = [useDesk((state) => state.columns.companies!), useDesk.getState().setColumns];
  const { data: lists } = useQuery({
    queryKey: ['lists'],
    queryFn: ({ signal }) =>
      call<{ lists: { key: string; name: string; members: number }[] }>('GET', '/lists', undefined, signal),
  });
  const { data: found } = useFound(text);
  const keys = test?.like ?? [];
  const names = useNames(keys);
  const from = test?.from ?? USUAL;
  const rest = { from, ...(test?.weights ? { weights: test.weights } : {}) };
  const { data: steps } = useAlternatives(
    field.id,
    at,
    test ? STEPS.map((step) => ({ ...test, from: step })) : [],
  );
  const nearest = useNearest(test);
  const setLike = (like: readonly string[]) => onTest(like.length ? { like, ...rest } : null);
  const setWeight = (part: Part, weight: number) => {
    const { [part]: _, ...others } = test!.weights ?? {};
    const weights: Weights = weight === DEFAULT_WEIGHTS[part] ? others : { ...others, [part]: weight };
    const { weights: __, ...plain } = test!;
    onTest(Object.keys(weights).length ? { ...plain, weights } : plain);
  };
  const shown = at !== undefined && columns.includes(SCORE_COLUMN + at);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-6 overflow-y-auto max-[900px]:grid-cols-1">
      <div className="space-y-4">
        <section aria-label="Alike whom">
          <h2 className="title text-[16px]">Alike whom</h2>
          <ul>
            {keys.map((key) => (
              <li key={key} className="flex items-baseline gap-2 border-b border-rule py-1">
                <strong className="truncate">{names.get(key) ?? key}</strong>
                <Button
                  look="quiet"
                  className="ml-auto"
                  onClick={() => setLike(keys.filter((one) => one !== key))}
                >
                  Take off
                </Button>
              </li>
            ))}
          </ul>
          <input
            className="field mt-2 w-full"
            value={text}
            placeholder="Add a company by name"
            aria-label="Add a company by name"
            onChange={(event) => setText(event.target.value)}
          />
          {text.trim() !== '' && (
            <ul aria-label="Companies found">
              {(found?.companies ?? [])
                .filter(({ key }) => !keys.includes(key))
                .map(({ key, name, town, country }) => (
                  <li key={key}>
                    <button
                      type="button"
                      className="w-full truncate border-b border-rule py-1 text-left hover:bg-paper"
                      onClick={() => {
                        setLike([...keys, key]);
                        setText('');
                      }}
                    >
                      {name}{' '}
                      <span className="text-[12px] text-soft">
                        {[town, country].filter(Boolean).join(', ')}
                      </span>
                    </button>
                  </li>
                ))}
            </ul>
          )}
          {(lists?.lists.length ?? 0) > 0 && (
            <label className="mt-2 flex items-center gap-2">
              or a whole list
              <select
                className="field min-w-0 flex-1 py-1"
                value={test?.list ?? ''}
                onChange={(event) =>
                  event.target.value ? onTest({ list: event.target.value, ...rest }) : onTest(null)
                }
              >
                <option value="">none</option>
                {lists!.lists.map(({ key, name, members }) => (
                  <option key={key} value={key}>
                    {name} ({format.number(members)})
                  </option>
                ))}
              </select>
            </label>
          )}
        </section>
        {test && (
          <>
            <section aria-label="How alike">
              <h2 className="title text-[16px]">How alike, at least</h2>
              <input
                type="range"
                className="w-full accent-ink"
                min={0.2}
                max={1}
                step={0.01}
                value={from}
                aria-label="How alike at least"
                onChange={(event) => onTest({ ...test, from: Number(event.target.value) })}
              />
              <p className="flex flex-wrap gap-1.5 text-[13px]">
                <strong className="figure w-12">{from.toFixed(2)}</strong>
                {STEPS.map((step, i) => (
                  <button
                    key={step}
                    type="button"
                    className={`rounded border px-1.5 ${step === from ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper hover:border-ink'}`}
                    onClick={() => onTest({ ...test, from: step })}
                  >
                    {step} <span className="figure">{steps ? format.number(steps.counts[i]!) : '…'}</span>
                  </button>
                ))}
              </p>
            </section>
            <section aria-label="What counts how much">
              <h2 className="title text-[16px]">What counts how much</h2>
              {PARTS.map((part) => (
                <label
                  key={part}
                  className="flex items-center gap-2 border-b border-rule py-1"
                  title={PART_WORDS[part]}
                >
                  <span className="w-28 shrink-0">{part}</span>
                  <input
                    type="range"
                    className="min-w-0 flex-1 accent-ink"
                    min={0}
                    max={1}
                    step={0.05}
                    value={weightOf(part, test.weights)}
                    onChange={(event) => setWeight(part, Number(event.target.value))}
                  />
                  <span className="figure w-10 text-right">{weightOf(part, test.weights).toFixed(2)}</span>
                </label>
              ))}
            </section>
          </>
        )}
      </div>
      <section aria-label="The most alike">
        <div className="flex items-baseline gap-2">
          <h2 className="title shrink-0 text-[16px]">The most alike</h2>
          <span className="text-[12px] text-soft">of all, with reasons</span>
          {at !== undefined && test && (
            <Button
              look="quiet"
              className="ml-auto"
              onClick={() =>
                setColumns(
                  shown
                    ? columns.filter((id) => !id.endsWith(`:${at}`))
                    : [...columns, SCORE_COLUMN + at, WHY_COLUMN + at],
                )
              }
            >
              {shown ? 'Off the sheet' : 'Score and reasons as columns'}
            </Button>
          )}
        </div>
        <Trouble error={nearest.error} />
        {!test && <p className="text-soft">Choose a company or a list first.</p>}
        <ol>
          {nearest.data?.rows.map((row) => (
            <li key={row.key} className="grid grid-cols-[52px_1fr] gap-2 border-b border-rule py-1">
              <ScoreText cell={row.cells['score:l1']} />
              <span className="min-w-0">
                <strong className="block truncate">{row.cells.name as string}</strong>
                <span className="block text-[12px] text-soft">{row.cells['why:l1'] as string}</span>
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

/** How alike: sure, and possible where parts are unknown. */
function ScoreText({ cell }: { cell: RowsAnswer['rows'][number]['cells'][string] | undefined }) {
  if (typeof cell === 'number') return <span className="figure">{cell.toFixed(2)}</span>;
  const band = cell as { low: number; high: number };
  return (
    <span className="figure leading-tight">
      {band.low.toFixed(2)}
      <span className="block text-[11px] text-unsure">to {band.high.toFixed(2)}</span>
    </span>
  );
}

function useNearest(test: PeersTest | null) {
  const tape = {
    ...emptyTape(),
    lines: test ? [{ id: 'l1', field: 'peers', test: { ...test, from: 0 } }] : [],
  };
  return useQuery({
    queryKey: ['nearest', test && { ...test, from: 0 }],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        {
          tape,
          columns: ['name', 'score:l1', 'why:l1'],
          sort: [{ by: 'score:l1', descending: true }],
          limit: SHOWN,
        },
        signal,
      ),
    enabled: test !== null,
    placeholderData: (before) => before,
    retry: false,
  });
}
