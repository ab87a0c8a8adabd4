import clsx from 'clsx';
import { useFormat } from '../../app/format.ts';
import { CountBar } from './CountBar.tsx';

/** One value of a list to pick from: box, name, what it belongs to, count, bar. */
export function ValueRow({
  label,
  note,
  count,
  most,
  picked,
  byGroup = false,
  strong = false,
  indent = false,
  onToggle,
}: {
  label: string;
  note?: string;
  count: number;
  most: number;
  picked: boolean;
  /** Picked through its group, and not to be let go by itself. */
  byGroup?: boolean;
  strong?: boolean;
  indent?: boolean;
  onToggle(): void;
}) {
  const format = useFormat();
  return (
    <li className={clsx('border-b border-rule', picked && 'bg-picked')}>
      <label
        className={clsx(
          'grid cursor-pointer items-center gap-2 py-1.5 pr-2',
          note === undefined ? 'grid-cols-[22px_1fr_80px_200px]' : 'grid-cols-[22px_1fr_160px_80px_200px]',
          count === 0 && 'text-soft',
        )}
      >
        <input
          type="checkbox"
          className="ml-1.5 size-4"
          checked={picked || byGroup}
          disabled={byGroup}
          onChange={onToggle}
        />
        <span className={clsx('truncate', strong && 'font-semibold', indent && 'pl-4.5')}>{label}</span>
        {note !== undefined && <span className="truncate text-[13px] text-soft">{note}</span>}
        <span className="figure text-right text-[13px]">{format.number(count)}</span>
        <CountBar count={count} most={most} picked={picked || byGroup} />
      </label>
    </li>
  );
}
