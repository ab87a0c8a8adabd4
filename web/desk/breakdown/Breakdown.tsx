import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { BreakdownAnswer, ChartAnswer } from '../../../contract/market.ts';
import type { Chart } from '../../../core/charts/chart.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { PrintButton } from '../../ui/PrintButton.tsx';
import { countedPart, printedPart } from '../queries.ts';
import { useDesk } from '../store.ts';
import { useSavedTapes } from '../tape/SaveTapeDialog.tsx';
import { ChartDialog } from './ChartDialog.tsx';
import { ConcentrationPanel } from './ConcentrationPanel.tsx';
import { KnownPanel } from './KnownPanel.tsx';
import { Panel } from './Panel.tsx';

/** The result as a market: a ready page, and charts of one's own above it. */
export function Breakdown() {
  const whole = useDesk((state) => state.tape);
  const tape = countedPart(whole);
  const charts = whole.charts ?? [];
  const against = useAgainst();
  const { currency } = useFormat();
  const [editing, setEditing] = useState<Chart | 'new' | null>(null);
  useKey('c', () => setEditing('new'));
  const asked = { tape, currency, ...(against.body ? { against: against.body } : {}) };
  const ready = useQuery({
    queryKey: ['breakdown', asked],
    queryFn: ({ signal }) => call<BreakdownAnswer>('POST', '/breakdown', asked, signal),
    placeholderData: (before, query) =>
      query?.queryKey[1] && (query.queryKey[1] as typeof asked).tape.subject === tape.subject
        ? before
        : undefined,
    retry: false,
  });
  const own = useQuery({
    queryKey: ['charts', asked, charts],
    queryFn: ({ signal }) => call<{ charts: ChartAnswer[] }>('POST', '/charts', { ...asked, charts }, signal),
    enabled: charts.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const save = (chart: Chart) => {
    const { tape: now, change } = useDesk.getState();
    const others = now.charts ?? [];
    const known = others.some(({ id }) => id === chart.id);
    change({
      ...now,
      charts: known ? others.map((one) => (one.id === chart.id ? chart : one)) : [...others, chart],
    });
    setEditing(null);
  };
  const remove = (id: string) => {
    const { tape: now, change } = useDesk.getState();
    const { charts: all = [], ...rest } = now;
    const left = all.filter((one) => one.id !== id);
    change(left.length ? { ...rest, charts: left } : rest);
  };
  // The answer of a moment ago may have charts that are no longer on the tape.
  const answers = own.data?.charts.filter(({ chart }) => charts.some(({ id }) => id === chart.id)) ?? [];
  const same = ready.data;
  const subject = tape.subject;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-center gap-2 py-2 text-[13px]">
        <label className="flex shrink-0 items-center gap-2">
          Compare with
          <select
            className="field w-52 py-1"
            value={against.id ?? ''}
            onChange={(event) => useDesk.getState().set({ against: event.target.value || null })}
          >
            <option value="">nothing</option>
            <option value="universe">the universe</option>
            {against.tapes.map((saved) => (
              <option key={saved.id} value={saved.id}>
                {saved.name}
              </option>
            ))}
          </select>
        </label>
        {against.id && (
          <span
            className="truncate text-soft"
            title="The outlined mark is what a group would be if it had the share here that it has there"
          >
            marked: each with its share there
          </span>
        )}
        <span className="ml-auto" />
        <PrintButton
          kind="summary"
          body={{ tape: printedPart(whole) }}
          name={`${whole.name ?? 'Market'} summary`}
          label="Summary"
        />
        <PrintButton
          kind="breakdown"
          body={{ tape: printedPart(whole) }}
          name={`${whole.name ?? 'Tape'} breakdown`}
        />
        <Button onClick={() => setEditing('new')}>
          <Plus size={14} /> New chart <Kbd>C</Kbd>
        </Button>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto pb-8" data-breakdown>
        <Trouble error={ready.error ?? own.error} />
        {!same && !ready.error && <p className="p-6 text-soft">Counting …</p>}
        {same && same.total === 0 && (
          <p className="p-6 text-soft">
            No {subjectOf(subject).one} is left, so there is nothing to break down.
          </p>
        )}
        {same && same.total > 0 && (
          <div className="grid grid-cols-2 items-start gap-x-7 gap-y-5 max-[900px]:grid-cols-1">
            {answers.map((answer) => (
              <Panel
                key={answer.chart.id}
                answer={answer}
                subject={subject}
                base={same.base}
                against={against.name}
                onEdit={() => setEditing(answer.chart)}
                onRemove={() => remove(answer.chart.id)}
              />
            ))}
            {same.charts.map((answer) => (
              <Panel
                key={`ready ${subject} ${answer.chart.id}`}
                answer={answer}
                subject={subject}
                base={same.base}
                against={against.name}
                onEdit={() => setEditing({ ...answer.chart, id: freeChart(charts) })}
              />
            ))}
            {same.concentration && <ConcentrationPanel answers={same.concentration} against={against.name} />}
            <KnownPanel known={same.known} total={same.total} />
          </div>
        )}
      </div>
      {editing && (
        <ChartDialog
          subject={subject}
          chart={editing === 'new' ? null : editing}
          id={editing === 'new' ? freeChart(charts) : editing.id}
          onSave={save}
          onClose={() => setEditing(null)}
        />
      )}
    </div>
  );
}

function freeChart(charts: readonly Chart[]): string {
  for (let n = 1; ; n++) if (!charts.some(({ id }) => id === `c${n}`)) return `c${n}`;
}

/** What Breakdown compares with: nothing, everybody, or one of the saved tapes on the same subject. */
function useAgainst() {
  const id = useDesk((state) => state.against);
  const subject = useDesk((state) => state.tape.subject);
  const { data } = useSavedTapes();
  const tapes = (data?.tapes ?? []).filter(
    (saved) => saved.kind === 'tape' && saved.tape.subject === subject && saved.trouble === null,
  );
  const saved = tapes.find((one) => one.id === id);
  return {
    id: id === 'universe' || saved ? id : null,
    tapes,
    name: id === 'universe' ? 'the universe' : saved ? `“${saved.name}”` : null,
    body: id === 'universe' ? ('universe' as const) : saved ? countedPart(saved.tape) : undefined,
  };
}
