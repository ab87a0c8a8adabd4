import { Download, Pencil, Table2, Trash2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { ChartAnswer, ChartSlot } from '../../../contract/market.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { addLines, freeId, removeLine } from '../../../core/tape/edit.ts';
import { isBlock, isHas, type Tape } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { chartFile, EChart } from '../../charts/EChart.tsx';
import { saveFile } from '../../charts/save-file.ts';
import { drawnSlots } from '../../charts/drawing.ts';
import { heightOf, optionOf, partShades } from '../../charts/options.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { noteOf } from '../../charts/words.ts';
import { chartWords, titleOf, wordMeasure } from '../../../core/charts/wording.ts';
import { PointMenu } from '../../ui/PointMenu.tsx';
import { Button } from '../../ui/controls.tsx';
import { openKeyOf } from '../open-key.ts';
import { useDesk } from '../store.ts';
import { ChartTable, HeatTable, tableCsv } from './ChartTable.tsx';

interface Props {
  answer: ChartAnswer;
  subject: string;
  /** Records of what it is compared with. */
  base: number | null;
  against: string | null;
  onEdit(): void;
  /** Own charts alone can be taken off. */
  onRemove?(): void;
}

/** One chart with its title, what it says, its numbers as a table, and its files. */
export function Panel({ answer, subject, base, against, onEdit, onRemove }: Props) {
  const format = useFormat();
  const theme = useChartTheme();
  const [asTable, setAsTable] = useState(false);
  const [menu, setMenu] = useState<{ slot: ChartSlot; x: number; y: number } | null>(null);
  const { chart } = answer;
  const words = useMemo(() => chartWords(subject, chart, format), [subject, chart, format]);
  const option = useMemo(() => optionOf(answer, theme, words, base), [answer, theme, words, base]);
  const title = titleOf(subject, chart);
  const height = heightOf(answer);
  const name = title.replace(/[^\p{L}\p{N} .-]/gu, '').trim() || 'chart';
  const file = async (kind: 'svg' | 'png' | 'csv') => {
    try {
      const size = { width: 640, height: Math.max(height, 260) };
      if (kind === 'csv')
        saveFile(
          new Blob([await tableCsv(answer, words, subject)], { type: 'text/csv;charset=utf-8' }),
          `${name}.csv`,
        );
      else if (option) saveFile(await chartFile(option, size, kind), `${name}.${kind}`);
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const choose = (slot: ChartSlot, x: number, y: number) => setMenu({ slot, x, y });
  return (
    <section aria-label={title} className="min-w-0" data-chart={chart.id}>
      <header className="flex items-baseline gap-2">
        <h2 className="title truncate text-[16px]" title={title}>
          {title}
        </h2>
        <span className="ml-auto shrink-0 text-[12px] text-soft">
          {chart.shape === 'scatter'
            ? `a dot a ${subjectOf(subject).one}`
            : wordMeasure(subject, chart.measure)}
        </span>
        <span className="flex shrink-0 items-center">
          <Button
            look="quiet"
            aria-label={`Numbers of ${title}`}
            aria-pressed={asTable}
            title="Numbers as a table"
            onClick={() => setAsTable(!asTable)}
          >
            <Table2 size={14} className={asTable ? 'text-ink' : ''} />
          </Button>
          <Button
            look="quiet"
            aria-label={`Change ${title}`}
            title={onRemove ? 'Change this chart' : 'A chart of my own, from this one'}
            onClick={onEdit}
          >
            <Pencil size={14} />
          </Button>
          <Popover.Root>
            <Popover.Trigger asChild>
              <Button look="quiet" aria-label={`Download ${title}`} title="Download">
                <Download size={14} />
              </Button>
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                align="end"
                className="z-50 flex flex-col rounded-md border border-edge bg-paper py-1 shadow-lg"
              >
                {option && (
                  <>
                    <Button look="quiet" className="px-3" onClick={() => void file('png')}>
                      Picture (PNG)
                    </Button>
                    <Button look="quiet" className="px-3" onClick={() => void file('svg')}>
                      Drawing (SVG)
                    </Button>
                  </>
                )}
                <Button look="quiet" className="px-3" onClick={() => void file('csv')}>
                  Numbers (CSV)
                </Button>
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
          {onRemove && (
            <Button
              look="quiet"
              aria-label={`Remove ${title}`}
              title="Take this chart off the tape"
              onClick={onRemove}
            >
              <Trash2 size={14} />
            </Button>
          )}
        </span>
      </header>
      <p
        className="min-h-[18px] truncate text-[12px] text-soft"
        title={noteOf(answer, words, format, base, against)}
      >
        {noteOf(answer, words, format, base, against)}
      </p>
      {chart.shape === 'heat' && !asTable ? (
        <HeatTable answer={answer} words={words} onSlot={choose} />
      ) : option && !asTable ? (
        <>
          <EChart
            option={option}
            height={height}
            label={`${title}: ${noteOf(answer, words, format, base, against)} The numbers are in the table after it.`}
            onClick={({ dataIndex, name: id, x, y }) => {
              if (chart.shape === 'scatter') {
                useDesk.getState().set({ company: openKeyOf(subject, id) });
                return;
              }
              const slot = drawnSlots(answer)[dataIndex];
              if (slot?.test) choose(slot, x, y);
            }}
          />
          <div className="sr-only">
            <ChartTable answer={answer} words={words} subject={subject} title={title} onSlot={choose} />
          </div>
        </>
      ) : (
        <ChartTable answer={answer} words={words} subject={subject} title={title} onSlot={choose} />
      )}
      {chart.split && chart.shape === 'stacked' && !asTable && <Legend answer={answer} words={words} />}
      {menu && (
        <SlotMenu
          {...menu}
          field={chart.by.field}
          subject={subject}
          name={words.slot(menu.slot)}
          onClose={() => setMenu(null)}
        />
      )}
    </section>
  );
}

function Legend({ answer, words }: { answer: ChartAnswer; words: ReturnType<typeof chartWords> }) {
  const theme = useChartTheme();
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-1 pl-[158px] text-[12px]">
      {answer.split!.map((part, p) => (
        <li key={p} className="flex items-center gap-1">
          <svg width="14" height="12" aria-hidden="true">
            <PartSwatch at={p} kind={part.kind} theme={theme} />
          </svg>
          {words.slot({ ...part, edges: null })}
        </li>
      ))}
    </ul>
  );
}

/** The fill of a part as its bars have it, drawn by hand: patterns of a chart cannot be taken out of it. */
function PartSwatch({
  at,
  kind,
  theme,
}: {
  at: number;
  kind: string;
  theme: ReturnType<typeof useChartTheme>;
}) {
  const shades = partShades(theme);
  const group = kind === 'group';
  const fill = group ? shades[at % shades.length] : kind === 'rest' ? theme.bar : theme.ground;
  const pattern = group ? at % shades.length : kind === 'rest' ? 0 : 1;
  const stroke = !group && kind !== 'rest' ? theme.unsure : pattern === 1 ? theme.ground : theme.ink;
  return (
    <>
      <rect
        x="0.5"
        y="0.5"
        width="13"
        height="11"
        fill={fill}
        stroke={!group && kind !== 'rest' ? theme.unsure : theme.edge}
      />
      {pattern === 1 && <path d="M1 11 11 1M-4 11 6 1M6 11 16 1" stroke={stroke} strokeWidth="1.5" />}
      {pattern === 3 && <path d="M3 3h1M9 3h1M6 6h1M3 9h1M9 9h1" stroke={stroke} strokeWidth="1.6" />}
      {pattern === 4 && <path d="M1 4h12M1 8h12" stroke={stroke} />}
      {pattern === 5 && <path d="M4 1v10M8 1v10" stroke={stroke} />}
      {pattern === 6 && <path d="M3 8l2-4 2 4zM8 10l2-4 2 4z" fill={theme.soft} />}
    </>
  );
}

/** What can be done with the records of a bar: keep only these, take them out, or take the line off again. */
function SlotMenu({
  slot,
  x,
  y,
  field,
  subject,
  name,
  onClose,
}: {
  slot: ChartSlot;
  x: number;
  y: number;
  field: string;
  subject: string;
  name: string;
  onClose(): void;
}) {
  const tape = useDesk((state) => state.tape);
  const format = useFormat();
  const { change } = useDesk.getState();
  if (tape.subject !== subject || !slot.test) return null;
  const there = lineSaying(tape, field, slot.test);
  // Estimates are in the bar, so that the line counts them too.
  const estimates = fieldOf(subject, field)!.store.at === 'range' ? { estimates: true as const } : {};
  const add = (not: boolean) => {
    change(
      addLines(tape, [
        { id: freeId(tape), field, test: slot.test!, ...estimates, ...(not ? { not: true as const } : {}) },
      ]),
    );
    onClose();
  };
  const label = fieldOf(subject, field)!.label;
  return (
    <PointMenu x={x} y={y} label={`${label}: ${name}`} className="w-64 p-2" onClose={onClose}>
      <p className="px-1.5 pb-1">
        <strong>{name}</strong> <span className="figure">{format.number(slot.count)}</span>
      </p>
      {there ? (
        <Button
          look="quiet"
          className="w-full"
          onClick={() => {
            change(removeLine(tape, there));
            onClose();
          }}
        >
          Take this line off the tape
        </Button>
      ) : (
        <>
          <Button look="quiet" className="w-full" onClick={() => add(false)}>
            Keep only these
          </Button>
          <Button look="quiet" className="w-full" onClick={() => add(true)}>
            Take these out
          </Button>
        </>
      )}
    </PointMenu>
  );
}

/** The id of a line that asks just this, if the tape has one. */
function lineSaying(tape: Tape, field: string, test: object): string | null {
  const text = JSON.stringify(test);
  for (const line of tape.lines)
    if (!isBlock(line) && !isHas(line) && line.field === field && JSON.stringify(line.test) === text)
      return line.id;
  return null;
}
