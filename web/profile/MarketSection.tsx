import type { Row } from '../../core/cells.ts';
import { columnFields } from '../../core/fields/registry.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { useFormat } from '../app/format.ts';
import { Cell } from '../desk/sheet/Cell.tsx';
import { columnOf } from '../desk/sheet/columns.ts';
import { Fact, Section } from './parts.tsx';

const FIELDS = columnFields('companies').filter(({ section }) => section === 'market');

/** What a company's brands, channels and deals come to: how it sells, what it owns and resells, where it sells, what it raised. */
export function MarketSection({ row }: { row: Row }) {
  const format = useFormat();
  const known = FIELDS.filter(({ id }) => {
    const cell = row.cells[id];
    return cell !== null && cell !== undefined && !(Array.isArray(cell) && cell.length === 0);
  });
  if (known.length === 0) return null;
  return (
    <Section name="Market">
      {known.map((field) => (
        <Fact
          key={field.id}
          name={field.kind === 'money' ? `${field.label}, ${format.symbol}k` : field.label}
        >
          <Cell column={columnOf(emptyTape(), field.id)!} row={row} format={format} />
        </Fact>
      ))}
    </Section>
  );
}
