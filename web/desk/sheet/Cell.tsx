import type {
  Cell as RowCell,
  CodeCell,
  MoneyCell,
  PlaceCell,
  QuantityCell,
  Row,
} from '../../../core/cells.ts';
import { SCHEMES } from '../../../core/codes/tree.ts';
import { labelOf } from '../../../core/exports/field-columns.ts';
import type { HasLine } from '../../../core/tape/nodes.ts';
import { MEMBER_COLUMN, SCORE_COLUMN } from '../../../core/tape/own-columns.ts';
import { relatedTape } from '../../../core/tape/turn.ts';
import { shortTitle } from '../../../core/tape/wording.ts';
import type { ShownFigure, useFormat } from '../../app/format.ts';
import { Approx } from '../../ui/controls.tsx';
import { addressOf } from '../address.ts';
import { useDesk } from '../store.ts';
import type { ShownColumn } from './columns.ts';

type Format = ReturnType<typeof useFormat>;

/** A cell of the sheet. What is unknown says so, with the reason where one is recorded. Links of a row that is not the current one are no stops of the Tab key. */
export function Cell({
  column,
  row,
  format,
  tabIndex = 0,
}: {
  column: ShownColumn;
  row: Row;
  format: Format;
  tabIndex?: 0 | -1;
}) {
  const { field, counts } = column;
  const cell = row.cells[column.id];
  if (cell === undefined) return null;
  if (column.id.startsWith(MEMBER_COLUMN))
    return <Said cell={cell} part={column.id.split(':')[1]!} format={format} />;
  if (cell === null && field?.store.at === 'holder') return <span className="text-soft">–</span>;
  if (cell === null) return <Unknown why={row.why?.[column.id]} />;
  if (counts) return <Counted line={counts} row={row} cell={cell} format={format} tabIndex={tabIndex} />;
  if (!field) return <OwnValue cell={cell} score={column.id.startsWith(SCORE_COLUMN)} format={format} />;
  if (field.store.at === 'parties' && typeof cell === 'string' && row.company)
    return <CompanyLink company={row.company} name={cell} tabIndex={tabIndex} />;
  if (typeof cell === 'string' && field.kind !== 'date') {
    const label = labelOf(field, cell)!;
    return <span title={label}>{label}</span>;
  }
  switch (field.kind) {
    case 'place': {
      const { town, countryName } = cell as PlaceCell;
      return <>{[town, countryName].filter(Boolean).join(', ')}</>;
    }
    case 'codes': {
      const codes = cell as CodeCell[];
      const main = codes.find((code) => code.main) ?? codes[0];
      if (!main) return <Unknown />;
      return (
        <span title={codes.map((code) => `${code.code} ${code.title} (${SCHEMES[code.scheme]})`).join('\n')}>
          <span className="figure text-[13px]">{main.code}</span> {shortTitle(main.title)}
        </span>
      );
    }
    case 'number':
      return typeof cell === 'number' ? (
        <span className="figure">
          {field.id === 'founded' ? cell : field.unit === '%' ? format.percent(cell) : format.number(cell)}
        </span>
      ) : (
        <Figure shown={format.headcount(cell as QuantityCell)} />
      );
    case 'growth': {
      const percent = cell as number;
      const sign = percent > 0 ? '+' : percent < 0 ? '−' : '';
      return (
        <span className="figure">
          {sign}
          {format.number(Math.abs(percent), 1)} %
        </span>
      );
    }
    case 'money': {
      const shown = format.thousands(cell as MoneyCell);
      return shown ? <Figure shown={shown} /> : <Unknown why="no exchange rate" />;
    }
    case 'date':
      return <span className="figure text-[13px]">{format.date(cell as string)}</span>;
    default:
      // Degrees, to about a metre.
      if (typeof cell === 'number') return <span className="figure">{format.number(cell, 5)}</span>;
      if (Array.isArray(cell))
        return cell.length === 0 && field.store.at === 'parties' ? (
          <span className="text-soft">–</span>
        ) : cell.length ? (
          <span title={(cell as string[]).join(', ')}>{(cell as string[]).join(', ')}</span>
        ) : (
          <span className="text-soft">{field.dated === 'surveyed' ? 'none seen' : 'none'}</span>
        );
      return null;
  }
}

/** A score, from what is sure to what is possible, or a text. */
function OwnValue({ cell, score, format }: { cell: RowCell; score: boolean; format: Format }) {
  if (typeof cell === 'string') return <span title={cell}>{cell}</span>;
  if (typeof cell === 'number')
    return <span className="figure">{score ? cell.toFixed(2) : format.number(cell, 1)}</span>;
  const { low, high } = cell as QuantityCell;
  return (
    <span className="figure" title={`surely ${low}, at most ${high}: parts of it are unknown`}>
      {low!.toFixed(2)}
      <span className="text-unsure">–{high!.toFixed(2)}</span>
    </span>
  );
}

/** How many related records hang on a record; a click shows them. */
function Counted({
  line,
  row,
  cell,
  format,
  tabIndex,
}: {
  line: HasLine;
  row: Row;
  cell: RowCell;
  format: Format;
  tabIndex: 0 | -1;
}) {
  const text =
    typeof cell === 'number'
      ? format.number(cell)
      : `${format.number((cell as QuantityCell).low!)}–${format.number((cell as QuantityCell).high!)}`;
  if (line.has === 'company' || cell === 0) return <span className="figure">{text}</span>;
  const tape = relatedTape(line, row.key);
  const name = typeof row.cells.name === 'string' ? row.cells.name : row.key;
  return (
    <a
      href={addressOf({ tape, sort: [], openLine: null, company: null })}
      tabIndex={tabIndex}
      className="figure underline decoration-rule underline-offset-4 hover:decoration-ink"
      title={`See the ${line.has} of ${name}`}
      onClick={(event) => {
        event.stopPropagation();
        if (event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        useDesk.getState().change(tape);
      }}
    >
      {text}
    </a>
  );
}

/** A company by name, which opens its page. */
export function CompanyLink({
  company,
  name,
  tabIndex = 0,
}: {
  company: string;
  name: string;
  tabIndex?: 0 | -1;
}) {
  return (
    <a
      tabIndex={tabIndex}
      href={addressOf({ ...useDesk.getState(), company, openLine: null })}
      title={name}
      className="no-underline hover:underline"
      onClick={(event) => {
        event.stopPropagation();
        if (event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        useDesk.getState().set({ company, openLine: null });
      }}
    >
      {name}
    </a>
  );
}

export function Figure({ shown }: { shown: ShownFigure }) {
  return (
    <span className={shown.estimated ? 'figure text-unsure' : 'figure'} title={shown.note}>
      {shown.estimated && <Approx />}
      {shown.text}
    </span>
  );
}

export function Unknown({ why }: { why?: string }) {
  return (
    <span className="text-soft italic" title={why ? `unknown: ${why}` : 'unknown: not collected'}>
      {why === 'withheld' ? 'withheld' : 'unknown'}
    </span>
  );
}

const VERDICT_LOOKS: Readonly<Record<string, string>> = {
  in: 'font-semibold text-kept',
  out: 'font-semibold text-cut',
  unsure: 'font-semibold text-unsure',
};

/** What a list says of a member; nothing said is no unknown. */
function Said({ cell, part, format }: { cell: RowCell; part: string; format: Format }) {
  if (typeof cell !== 'string') return <span className="text-soft">–</span>;
  if (part === 'added') return <span className="figure text-[13px]">{format.date(cell)}</span>;
  return (
    <span className={part === 'verdict' ? (VERDICT_LOOKS[cell] ?? 'text-soft') : undefined} title={cell}>
      {cell}
    </span>
  );
}
