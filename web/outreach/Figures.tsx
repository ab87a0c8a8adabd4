import { useState } from 'react';
import { FIGURES_BY, type FiguresBy, type OutreachFigure } from '../../contract/outreach-views.ts';
import { useFormat } from '../app/format.ts';
import { Segments, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { useFigures } from './use-outreach.ts';

/** Below so many sent, a share says little and is said to. */
const SMALL = 30;

type By = 'label' | 'sent' | 'answered' | 'meetings' | 'share';
type Row = Omit<OutreachFigure, 'share'> & { share: number | null; low: number; high: number };

const BY_WORDS: Readonly<Record<FiguresBy, string>> = {
  template: 'template',
  proof: 'proof',
  industry: 'industry',
  level: 'level',
  trigger: 'what set it off',
};

/** What came of all messages, by what they have in common; shares with the interval that holds them 19 times in 20. */
export function Figures() {
  const format = useFormat();
  const [by, setBy] = useState<FiguresBy>('template');
  const { data, error } = useFigures(by);
  const { sorted, order, setOrder } = useOrder<By, Row>(
    (data?.figures ?? []).map((one) => ({
      key: one.key,
      label: one.label,
      sent: one.sent,
      answered: one.answered,
      meetings: one.meetings,
      share: one.share?.share ?? null,
      low: one.share?.low ?? 0,
      high: one.share?.high ?? 0,
    })),
    { by: 'sent', descending: true },
  );
  const most = Math.max(0.05, ...sorted.map(({ high }) => high));
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto py-2">
      <div className="flex items-center gap-3 text-[13px]">
        <Segments
          label="Figures by"
          value={by}
          onChange={setBy}
          options={FIGURES_BY.map((one) => ({ key: one, label: BY_WORDS[one] }))}
        />
        <span className="text-soft">of all campaigns; what came back undelivered is left out</span>
      </div>
      <Trouble error={error} />
      {data && sorted.length === 0 && <p className="py-6 text-soft">Nothing was sent yet.</p>}
      {sorted.length > 0 && (
        <table className="mt-3 w-full" aria-label={`Figures by ${BY_WORDS[by]}`}>
          <thead className="border-b border-edge text-[12px]">
            <tr>
              <SortHead by="label" label="What" order={order} onOrder={setOrder} />
              <SortHead by="sent" label="Sent" order={order} onOrder={setOrder} right />
              <SortHead by="answered" label="Answered" order={order} onOrder={setOrder} right />
              <SortHead by="share" label="Share" order={order} onOrder={setOrder} right />
              <th className="w-56 pr-4 text-left font-semibold">19 times in 20</th>
              <SortHead by="meetings" label="Meetings" order={order} onOrder={setOrder} right />
            </tr>
          </thead>
          <tbody>
            {sorted.map((one) => (
              <tr key={one.key} className="border-b border-rule">
                <td className="max-w-0 truncate py-1.5 pr-4" style={{ width: '40%' }} title={one.label}>
                  {one.label}
                </td>
                <td className="figure pr-5 text-right">{format.number(one.sent)}</td>
                <td className="figure pr-5 text-right">{format.number(one.answered)}</td>
                <td className="figure pr-5 text-right font-semibold">
                  {one.share === null ? '–' : percent(one.share)}
                </td>
                <td className="pr-4">
                  <span
                    className="relative block h-3 border-b border-edge"
                    title={`between ${percent(one.low)} and ${percent(one.high)}`}
                  >
                    <span
                      className="absolute top-1 h-1 bg-bar"
                      style={{
                        left: `${(100 * one.low) / most}%`,
                        width: `${(100 * (one.high - one.low)) / most}%`,
                      }}
                    />
                    <span
                      className="absolute top-0 h-3 w-[2px] bg-ink"
                      style={{ left: `${(100 * (one.share ?? 0)) / most}%` }}
                    />
                  </span>
                  <span className="text-[12px] text-soft">
                    {percent(one.low)} to {percent(one.high)}
                    {one.sent < SMALL && ', a small number'}
                  </span>
                </td>
                <td className="figure pr-5 text-right">{format.number(one.meetings)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
