import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChartAnswer } from '../../../contract/market.ts';
import { axisFields, axisOf, keysOf, levelsOf, measureFields } from '../../../core/charts/axes.ts';
import {
  MOST_GROUPS,
  SHAPES,
  type Axis,
  type Chart,
  type Measure,
  type Shape,
} from '../../../core/charts/chart.ts';
import { SECTIONS } from '../../../core/fields/field.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { EChart } from '../../charts/EChart.tsx';
import { heightOf, optionOf } from '../../charts/options.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { noteOf } from '../../charts/words.ts';
import { chartWords, titleOf } from '../../../core/charts/wording.ts';
import { Button, Dialog, Trouble } from '../../ui/controls.tsx';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';
import { ChartTable, HeatTable } from './ChartTable.tsx';

const MEASURE_WORDS: Readonly<Record<Measure['of'], string>> = {
  count: 'how many',
  share: 'share of those known, in %',
  sum: 'sum of',
  mean: 'mean of',
  median: 'median of',
};

/** Puts a chart together, seen as it grows, and keeps it on the tape. */
export function ChartDialog({
  subject,
  chart,
  id,
  onSave,
  onClose,
}: {
  subject: string;
  chart: Chart | null;
  id: string;
  onSave(chart: Chart): void;
  onClose(): void;
}) {
  const format = useFormat();
  const theme = useChartTheme();
  const tape = countedPart(useDesk((state) => state.tape));
  const figures = measureFields(subject);
  const [draft, setDraft] = useState<Chart>(
    () => chart ?? { id, shape: 'bars', by: axisOf(axisFields(subject)[0]!), measure: { of: 'count' } },
  );
  const [title, setTitle] = useState(chart?.title ?? '');
  const { shape, by, split, measure, most } = draft;
  const splits = shape === 'stacked' || shape === 'heat' || shape === 'table';
  const needsFigure = shape === 'scatter' || shape === 'strip';
  const change = (part: Partial<Chart>) => setDraft(fitted({ ...draft, ...part }, subject));
  const asked = { tape, charts: [draft], currency: format.currency };
  const { data, error } = useQuery({
    queryKey: ['charts', asked],
    queryFn: ({ signal }) => call<{ charts: ChartAnswer[] }>('POST', '/charts', asked, signal),
    retry: false,
  });
  const answer = data?.charts[0];
  const words = chartWords(subject, draft, format);
  const option = answer ? optionOf(answer, theme, words, null) : null;
  const axes = shape === 'scatter' || shape === 'histogram' ? figures : axisFields(subject);
  return (
    <Dialog
      open
      title={chart ? 'Change the chart' : 'New chart'}
      description={`of the ${subjectOf(subject).many} of this tape`}
      onClose={onClose}
      width={920}
    >
      <div className="grid grid-cols-[300px_1fr] gap-6 max-[760px]:grid-cols-1">
        <form
          className="space-y-3"
          onSubmit={(event) => {
            event.preventDefault();
            onSave({ ...draft, id, ...(title.trim() ? { title: title.trim() } : {}) });
          }}
        >
          <Pick
            label="Drawn as"
            value={shape}
            options={Object.entries(SHAPES).map(([key, label]) => ({ key, label }))}
            onPick={(key) => change({ shape: key as Shape })}
          />
          <AxisPick
            label={shape === 'scatter' ? 'Across' : 'By'}
            subject={subject}
            axis={by}
            fields={axes}
            onPick={(axis) => axis && change({ by: axis })}
          />
          {splits && (
            <AxisPick
              label="Split by"
              subject={subject}
              axis={split ?? null}
              fields={axisFields(subject)}
              none={shape === 'table'}
              onPick={(axis) => {
                const { split: _, ...rest } = draft;
                setDraft(fitted(axis ? { ...rest, split: axis } : rest, subject));
              }}
            />
          )}
          {!needsFigure && (
            <Pick
              label="Tells"
              value={measure.of}
              options={(shape === 'stacked' || shape === 'parts'
                ? (['count', 'share', 'sum'] as const)
                : (Object.keys(MEASURE_WORDS) as Measure['of'][])
              ).map((key) => ({ key, label: MEASURE_WORDS[key] }))}
              onPick={(key) => change({ measure: measureOf(key as Measure['of'], measure, subject) })}
            />
          )}
          {(needsFigure || measure.field !== undefined) && (
            <AxisPick
              label={shape === 'scatter' ? 'Upwards' : needsFigure ? 'Of' : 'Of which field'}
              subject={subject}
              axis={
                measure.field === undefined
                  ? null
                  : { field: measure.field, ...(measure.key === undefined ? {} : { key: measure.key }) }
              }
              fields={figures}
              levels={false}
              onPick={(axis) =>
                axis &&
                change({
                  measure: {
                    of: needsFigure ? 'median' : measure.of,
                    field: axis.field,
                    ...(axis.key === undefined ? {} : { key: axis.key }),
                  },
                })
              }
            />
          )}
          {shape !== 'scatter' && shape !== 'histogram' && (
            <label className="flex items-center gap-2">
              <span className="w-24 text-soft">Groups</span>
              <input
                type="number"
                className="field figure w-20"
                min={1}
                max={60}
                value={most ?? MOST_GROUPS}
                onChange={(event) => {
                  const count = Math.round(Number(event.target.value));
                  if (count >= 1 && count <= 60) change({ most: count });
                }}
              />
              <span className="text-[12px] text-soft">the largest, the others as one</span>
            </label>
          )}
          <label className="block">
            <span className="text-soft">Title</span>
            <input
              className="field mt-1 w-full"
              value={title}
              maxLength={120}
              placeholder={titleOf(subject, { ...draft, title: undefined })}
              onChange={(event) => setTitle(event.target.value)}
            />
          </label>
          <div className="flex gap-2 pt-2">
            <Button look="ink" type="submit" disabled={!!error}>
              Keep it on the tape
            </Button>
            <Button onClick={onClose}>Cancel</Button>
          </div>
        </form>
        <div className="min-w-0 rounded-md bg-ground p-3" aria-live="polite">
          <Trouble error={error} />
          {answer && (
            <>
              <h3 className="title text-[16px]">
                {title || titleOf(subject, { ...draft, title: undefined })}
              </h3>
              <p className="min-h-[18px] text-[12px] text-soft">
                {noteOf(answer, words, format, null, null)}
              </p>
              {option ? (
                <EChart
                  option={option}
                  height={Math.min(420, heightOf(answer))}
                  label={titleOf(subject, draft)}
                />
              ) : shape === 'heat' ? (
                <HeatTable answer={answer} words={words} onSlot={() => {}} />
              ) : (
                <ChartTable
                  answer={answer}
                  words={words}
                  subject={subject}
                  title={titleOf(subject, draft)}
                  onSlot={() => {}}
                />
              )}
            </>
          )}
        </div>
      </div>
    </Dialog>
  );
}

/** A chart changed so that its parts go together. */
function fitted(chart: Chart, subject: string): Chart {
  const { split, ...whole } = chart;
  const splits = chart.shape === 'stacked' || chart.shape === 'heat';
  const other =
    axisFields(subject).find(
      ({ id, kind, values }) => id !== chart.by.field && kind === 'category' && values !== undefined,
    ) ?? axisFields(subject)[0]!;
  const withSplit = splits
    ? { ...whole, split: split ?? axisOf(other) }
    : chart.shape === 'table' && split
      ? { ...whole, split }
      : whole;
  const figures = measureFields(subject);
  const by =
    (chart.shape === 'scatter' || chart.shape === 'histogram') &&
    !figures.some(({ id }) => id === chart.by.field) &&
    figures[0]
      ? axisOf(figures[0])
      : chart.by;
  const adds = !['stacked', 'parts'].includes(chart.shape) || !['mean', 'median'].includes(chart.measure.of);
  const measure =
    chart.shape === 'scatter' || chart.shape === 'strip'
      ? measureOf('median', chart.measure, subject)
      : adds
        ? chart.measure
        : ({ of: 'count' } as const);
  return { ...withSplit, by, measure };
}

/** A measure of another kind, of the same field where it has one. */
function measureOf(of: Measure['of'], now: Measure, subject: string): Measure {
  if (of === 'count' || of === 'share') return { of };
  const [first] = measureFields(subject);
  if (now.field !== undefined) return { ...now, of };
  if (!first) return { of: 'count' };
  const key = keysOf(first)[0]?.key;
  return { of, field: first.id, ...(key === undefined ? {} : { key }) };
}

function Pick({
  label,
  name = label,
  value,
  options,
  onPick,
}: {
  label: string;
  /** What it is called where no label stands before it. */
  name?: string;
  value: string;
  options: readonly { key: string; label: string }[];
  onPick(key: string): void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="w-24 shrink-0 text-soft">{label}</span>
      <select
        aria-label={name}
        className="field min-w-0 flex-1 py-1"
        value={value}
        onChange={(event) => onPick(event.target.value)}
      >
        {options.map((option) => (
          <option key={option.key} value={option.key}>
            {option.label}
          </option>
        ))}
      </select>
    </label>
  );
}

function AxisPick({
  label,
  subject,
  axis,
  fields,
  none = false,
  levels = true,
  onPick,
}: {
  label: string;
  subject: string;
  axis: Axis | null;
  fields: ReturnType<typeof axisFields>;
  none?: boolean;
  levels?: boolean;
  onPick(axis: Axis | null): void;
}) {
  const field = axis ? fieldOf(subject, axis.field) : undefined;
  const own = field && levels ? levelsOf(field) : [];
  const keys = field ? keysOf(field) : [];
  return (
    <>
      <label className="flex items-center gap-2">
        <span className="w-24 shrink-0 text-soft">{label}</span>
        <select
          aria-label={label}
          className="field min-w-0 flex-1 py-1"
          value={axis?.field ?? ''}
          onChange={(event) => {
            const picked = fields.find(({ id }) => id === event.target.value);
            if (!picked) return onPick(null);
            const { level: _, ...plain } = axisOf(picked);
            onPick(levels ? axisOf(picked) : plain);
          }}
        >
          {(none || !axis) && <option value="">nothing</option>}
          {(Object.keys(SECTIONS) as (keyof typeof SECTIONS)[]).map((section) => {
            const within = fields.filter((one) => one.section === section);
            return (
              within.length > 0 && (
                <optgroup key={section} label={SECTIONS[section]}>
                  {within.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.label}
                    </option>
                  ))}
                </optgroup>
              )
            );
          })}
        </select>
      </label>
      {axis && own.length > 0 && (
        <Pick
          label=""
          name={`${label}, in which form`}
          value={axis.level ?? own[0]!}
          options={own.map((key) => ({ key, label: `by ${key}` }))}
          onPick={(level) => onPick({ ...axis, level })}
        />
      )}
      {axis && keys.length > 0 && (
        <Pick
          label=""
          name={`${label}, which of them`}
          value={axis.key ?? keys[0]!.key}
          options={keys}
          onPick={(key) => onPick({ ...axis, key })}
        />
      )}
    </>
  );
}
