import type { CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../../../core/cells.ts';
import { SCHEMES } from '../../../core/codes/tree.ts';
import type { Field } from '../../../core/fields/field.ts';
import { shortTitle } from '../../../core/tape/wording.ts';
import type { ShownFigure, useFormat } from '../../app/format.ts';
import { Approx } from '../../ui/controls.tsx';

type Format = ReturnType<typeof useFormat>;

/** A cell of the sheet. What is unknown says so, with the reason where one is recorded. */
export function Cell({ field, row, format }: { field: Field; row: Row; format: Format }) {
  const cell = row.cells[field.id];
  if (cell === undefined) return null;
  if (cell === null) return <Unknown why={row.why?.[field.id]} />;
  if (typeof cell === 'string' && field.kind !== 'date') return <span title={cell}>{cell}</span>;
  switch (field.kind) {
    case 'place': {
      const { town, country } = cell as PlaceCell;
      return <>{[town, country].filter(Boolean).join(', ')}</>;
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
        <span className="figure">{field.id === 'founded' ? cell : format.number(cell)}</span>
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
      if (Array.isArray(cell))
        return cell.length ? (
          <span title={(cell as string[]).join(', ')}>{(cell as string[]).join(', ')}</span>
        ) : (
          <span className="text-soft">none seen</span>
        );
      return null;
  }
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
