import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ChangeRow, RunView } from '../../contract/runs.ts';
import { addressOf } from '../desk/address.ts';
import { useFormat } from '../app/format.ts';
import { sortedChanges, type ChangeOrder } from '../../core/runs/change-order.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { Trouble } from '../ui/controls.tsx';
import { SortHead, type Order } from '../ui/SortHead.tsx';
import { useChanges } from './use-runs.ts';

const PARTS = [
  { what: 'joined', sign: '+', label: 'Joined', look: 'text-kept' },
  { what: 'left', sign: '−', label: 'Left', look: 'text-cut' },
  { what: 'moved', sign: '→', label: 'Moved, and still on it', look: '' },
] as const;

/** Until a heading is pressed they stand as they were found, which no heading says. */
const AS_FOUND: Order<ChangeOrder | 'found'> = { by: 'found', descending: false };
const FIRST = 8;
const MORE = 500;

/** Old and new value side by side, of each record that joined, left or moved. @param compared changes that were compared; where null those of the run itself */
export function ChangesSheet({
  run,
  compared,
  dates,
}: {
  run: RunView;
  compared: readonly ChangeRow[] | null;
  /** What the two columns are headed by. */
  dates: readonly [was: string, is: string];
}) {
  const [order, setOrder] = useState(AS_FOUND);
  const sorted = order.by === 'found' ? null : { ...order, by: order.by };
  const head = (by: ChangeOrder, label: string, text: boolean) => (
    <SortHead by={by} label={label} order={order} onOrder={setOrder} right={!text} text={text} />
  );
  return (
    <table className="w-full table-fixed" aria-label="What changed">
      <colgroup>
        <col className="w-7" />
        <col />
        <col className="w-[34%]" />
        <col className="w-[17%]" />
        <col className="w-[17%]" />
      </colgroup>
      <thead className="text-[12px] text-soft">
        <tr className="border-b border-rule text-left">
          <td />
          {head('name', run.subject === 'companies' ? 'Company' : 'Record', true)}
          {head('why', 'Why', true)}
          {head('was', `was, ${dates[0]}`, false)}
          {head('now', `is, ${dates[1]}`, false)}
        </tr>
      </thead>
      {PARTS.map((part) => (
        <Part key={part.what} run={run} compared={compared} order={sorted} {...part} />
      ))}
    </table>
  );
}

function Part({
  run,
  compared,
  what,
  sign,
  label,
  look,
  order,
}: (typeof PARTS)[number] & {
  run: RunView;
  compared: readonly ChangeRow[] | null;
  order: Order<ChangeOrder> | null;
}) {
  const format = useFormat();
  const [all, setAll] = useState(false);
  const { data, error } = useChanges(compared ? null : run, what, all ? MORE : FIRST, order);
  const ofKind = compared?.filter((row) => row.what === what);
  const own = (order && ofKind ? sortedChanges(ofKind, order) : ofKind) ?? data?.changes ?? [];
  const rows = compared && !all ? own.slice(0, FIRST) : own;
  const count = { joined: run.joined, left: run.left, moved: run.moved }[what] ?? 0;
  const total = compared ? own.length : (data?.total ?? 0);
  if (count === 0) return null;
  return (
    <tbody>
      <tr className="border-b border-edge">
        <th scope="rowgroup" colSpan={4} className="pt-2.5 pb-1 text-left">
          <span className={`figure inline-block w-7 text-center font-semibold ${look}`} aria-hidden="true">
            {sign}
          </span>
          <span className="title text-[15px]">{label}</span>{' '}
          <span className="figure font-semibold">{format.number(count)}</span>
        </th>
        <td className="pr-2 text-right text-[13px] whitespace-nowrap">
          {total > rows.length && (
            <button
              type="button"
              className="text-soft underline underline-offset-4 hover:text-ink"
              onClick={() => setAll(true)}
            >
              {all ? `the first ${format.number(rows.length)}` : `${format.number(total - rows.length)} more`}
            </button>
          )}
          {all && total <= rows.length && total > FIRST && (
            <button
              type="button"
              className="text-soft underline underline-offset-4 hover:text-ink"
              onClick={() => setAll(false)}
            >
              fewer
            </button>
          )}
        </td>
      </tr>
      {error && (
        <tr>
          <td colSpan={5}>
            <Trouble error={error} />
          </td>
        </tr>
      )}
      {rows.map((row, i) => (
        <Row key={`${row.key} ${i}`} row={row} subject={run.subject ?? 'companies'} />
      ))}
    </tbody>
  );
}

/** A value as it fits beside another: money in millions or thousands, its year left to the tooltip. */
export function shortMoney(value: string | null): string {
  if (value === null) return '–';
  const found = /^(about )?(\d+(?:\.\d+)?) ([A-Z]{3}) \(\d{4}\)$/.exec(value);
  if (!found) return value;
  const amount = Number(found[2]);
  const [size, unit] = amount >= 1e6 ? [1e6, 'm'] : amount >= 1e3 ? [1e3, 'k'] : [1, ''];
  return `${found[1] ? '≈' : ''}${Number((amount / size).toPrecision(3))}${unit} ${found[3]!}`;
}

function Row({ row, subject }: { row: ChangeRow; subject: string }) {
  const navigate = useNavigate();
  const { key, name, place, why, was, now, there } = row;
  const open = () => {
    const company = subject === 'companies' ? key : `${subject}/${key}`;
    void navigate(addressOf({ tape: emptyTape(subject), sort: [], openLine: null, company }));
  };
  const changed = was !== null || now !== null;
  return (
    <tr className="border-b border-rule text-[13px]">
      <td />
      <td className="truncate py-1 pr-3" title={name}>
        {there ? (
          <button type="button" className="font-semibold hover:underline" onClick={open}>
            {name}
          </button>
        ) : (
          <span className="font-semibold">{name}</span>
        )}{' '}
        <span className="text-[12px] text-soft">{place}</span>
      </td>
      <td className="truncate py-1 pr-3" title={why}>
        {why}
      </td>
      <td className="figure truncate py-1 pr-3 text-right text-soft" title={was ?? undefined}>
        {shortMoney(was)}
      </td>
      <td
        className={`figure truncate py-1 pr-2 text-right ${changed ? 'bg-picked font-semibold' : ''}`}
        title={now ?? undefined}
      >
        {shortMoney(now)}
      </td>
    </tr>
  );
}
