import { Download, Pencil, Table2, Trash2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { ChartAnswer, ChartSlot } from '../../../contract/market.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { addLines, freeId, removeLine } from '../../../core/tape/edit.ts';
import { isBlock, isHas, type Test, type Tape } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { chartFile, EChart } from '../../charts/EChart.tsx';
import { saveFile } from '../../charts/save-file.ts';
import { drawnSlots } from '../../charts/drawing.ts';
import { heightOf, optionOf, partShades } from '../../charts/options.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { noteOf } from '../../charts/words.ts';
import { chartWords, titleOf, wordMeasure, type ChartWords } from '../../../core/charts/wording.ts';
import { PointMenu } from '../../ui/PointMenu.tsx';
import { Button } from '../../ui/controls.tsx';
import { openKeyOf } from '../open-key.ts';
import { putOneOnList, putTapeOnList } from '../putting.ts';
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
  const [menu, setMenu] = useState<{ group: Group; x: number; y: number } | null>(null);
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
  const choose = (slot: ChartSlot, x: number, y: number, p?: number) => {
    const group = groupOf(answer, words, slot, p);
    if (group) setMenu({ group, x, y });
  };
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
            onClick={({ dataIndex, name: id, x, y, alt }) => {
              if (chart.shape === 'scatter') {
                if (alt) putOneOnList(subject, id);
                else useDesk.getState().set({ company: openKeyOf(subject, id) });
                return;
              }
              const slot = drawnSlots(answer)[dataIndex];
              if (slot) choose(slot, x, y);
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
      {menu && <GroupMenu {...menu} subject={subject} onClose={() => setMenu(null)} />}
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

/** The records of a bar or a cell: the lines that keep them. */
interface Group {
  name: string;
  count: number;
  asked: readonly { field: string; test: Test }[];
}

/** The records of a bar, or of one part of it; null where no line keeps just them. */
function groupOf(answer: ChartAnswer, words: ChartWords, slot: ChartSlot, p?: number): Group | null {
  const { by, split } = answer.chart;
  const part = p === undefined ? null : answer.split![p]!;
  if (!slot.test || (part && !part.test)) return null;
  const own = { field: by.field, test: slot.test };
  if (!part) return { name: words.slot(slot), count: slot.count, asked: [own] };
  return {
    name: `${words.slot(slot)}, ${words.slot({ ...part, edges: null })}`,
    count: slot.parts![p!]!.count,
    asked: [own, { field: split!.field, test: part.test! }],
  };
}

/** What can be done with the records of a bar or a cell: keep only these, take them out, put them on a list, or take their line off again. */
function GroupMenu({
  group,
  x,
  y,
  subject,
  onClose,
}: {
  group: Group;
  x: number;
  y: number;
  subject: string;
  onClose(): void;
}) {
  const tape = useDesk((state) => state.tape);
  const format = useFormat();
  const { change } = useDesk.getState();
  if (tape.subject !== subject) return null;
  const { name, count, asked } = group;
  const there = asked.map(({ field, test }) => lineSaying(tape, field, test));
  const lacking = asked.filter((_, i) => there[i] === null);
  const kept = withLines(tape, lacking);
  const label = asked.map(({ field }) => fieldOf(subject, field)!.label).join(', ');
  const act = (name: string, work: () => void) => (
    <Button
      look="quiet"
      className="w-full"
      onClick={() => {
        work();
        onClose();
      }}
    >
      {name}
    </Button>
  );
  return (
    <PointMenu x={x} y={y} label={`${label}: ${name}`} className="w-64 p-2" onClose={onClose}>
      <p className="px-1.5 pb-1">
        <strong>{name}</strong> <span className="figure">{format.number(count)}</span>
      </p>
      {lacking.length === 0 ? (
        act(asked.length === 1 ? 'Take this line off the tape' : 'Take these lines off the tape', () =>
          change(there.reduce((now, id) => removeLine(now, id!), tape)),
        )
      ) : (
        <>
          {act('Keep only these', () => change(kept))}
          {asked.length === 1 && act('Take these out', () => change(withLines(tape, lacking, true)))}
        </>
      )}
      {count > 0 && act('Put these on a list', () => putTapeOnList(kept, count))}
    </PointMenu>
  );
}

/** A tape that asks further things. Estimates are in the bars, so that the lines count them too. */
function withLines(tape: Tape, asked: Group['asked'], not = false): Tape {
  let now = tape;
  for (const { field, test } of asked) {
    const estimates = fieldOf(tape.subject, field)!.store.at === 'range' ? { estimates: true as const } : {};
    now = addLines(now, [
      { id: freeId(now), field, test, ...estimates, ...(not ? { not: true as const } : {}) },
    ]);
  }
  return now;
}

/** The id of a line that asks just this, if the tape has one. */
function lineSaying(tape: Tape, field: string, test: object): string | null {
  const text = JSON.stringify(test);
  for (const line of tape.lines)
    if (!isBlock(line) && !isHas(line) && line.field === field && JSON.stringify(line.test) === text)
      return line.id;
  return null;
}
