import { Redo2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { redo, undo, useHistory } from '../app/history.ts';
import { Button } from '../ui/controls.tsx';
import { ColumnMenu } from './sheet/ColumnMenu.tsx';
import { columnOf } from './sheet/columns.ts';
import { SubjectMenu } from './SubjectMenu.tsx';
import { PrintButton } from '../ui/PrintButton.tsx';
import { printedPart, useTally } from './queries.ts';
import { ViewTabs } from './ViewTabs.tsx';
import { useColumns, useDesk } from './store.ts';

/** The name of the tape, the order, and the columns. */
export function StageHeader() {
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const columns = useColumns();
  const view = useDesk((state) => state.view);
  const past = useHistory((state) => state.past);
  const future = useHistory((state) => state.future);
  const { change } = useDesk.getState();
  const { data: tally } = useTally();
  const [reading, setReading] = useState(false);
  const order = sort
    .map(({ by, descending }) => {
      const column = columnOf(tape, by, tally);
      if (!column) return '';
      const { field, label, numeric } = column;
      const way = numeric
        ? descending
          ? 'largest first'
          : 'smallest first'
        : field?.kind === 'date'
          ? descending
            ? 'latest first'
            : 'earliest first'
          : descending
            ? 'Z to A'
            : 'A to Z';
      return `${label.toLowerCase()}, ${way}`;
    })
    .filter(Boolean)
    .join(', then ');
  return (
    <>
      <div className="flex items-center gap-3 border-b border-edge pb-2">
        <h1 className="sr-only">{tape.name ?? 'Untitled tape'}</h1>
        <input
          aria-label="Name of the tape"
          value={tape.name ?? ''}
          placeholder="Untitled tape"
          maxLength={200}
          spellCheck={false}
          className="title min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 py-0.5 text-[21px] placeholder:text-soft hover:border-rule focus:border-edge"
          onChange={(event) => {
            const { name: _, ...rest } = tape;
            change(event.target.value === '' ? rest : { ...rest, name: event.target.value }, 'name');
          }}
        />
        <SubjectMenu />
        <span className="text-[13px] whitespace-nowrap text-soft max-[1360px]:hidden">
          {order ? `sorted by ${order}` : 'in the order of loading'}
        </span>
        <span className="flex">
          <Button
            look="quiet"
            aria-label="Undo"
            title={past.length ? `Take back ${past.at(-1)!.name} (Ctrl Z)` : 'Nothing to take back (Ctrl Z)'}
            disabled={past.length === 0}
            onClick={() => void undo()}
          >
            <Undo2 size={16} />
          </Button>
          <Button
            look="quiet"
            aria-label="Redo"
            title={
              future.length
                ? `Do ${future[0]!.name} again (Ctrl Shift Z)`
                : 'Nothing to do again (Ctrl Shift Z)'
            }
            disabled={future.length === 0}
            onClick={() => void redo()}
          >
            <Redo2 size={16} />
          </Button>
        </span>
        {view === 'sheet' && (
          <PrintButton
            kind="sheet"
            body={{ tape: printedPart(tape), columns, sort }}
            name={tape.name ?? 'Sheet'}
            label=""
          />
        )}
        {view === 'sheet' && <ColumnMenu />}
      </div>
      <div className="flex items-baseline gap-4 pt-0.5">
        <ViewTabs />
        {tape.lines.length > 0 && tally && (
          <p className="flex min-w-0 gap-2 text-[12px] text-soft">
            <button
              type="button"
              aria-expanded={reading}
              className="shrink-0 underline decoration-rule underline-offset-4 hover:text-ink"
              onClick={() => setReading(!reading)}
            >
              How it reads
            </button>
            <span className={reading ? 'text-[13px] text-ink' : 'truncate'}>{tally.reads}</span>
          </p>
        )}
      </div>
    </>
  );
}
