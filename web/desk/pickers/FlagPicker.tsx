import type { CategoryCounts } from '../../../contract/responses.ts';
import type { FlagTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { ValueRow } from './ValueRow.tsx';

/** Yes or no, each with its count. */
export function FlagPicker({ field, test, at, onTest }: PickerProps<FlagTest>) {
  const format = useFormat();
  const { data, error } = useCounts<CategoryCounts>({ field: field.id, at });
  const values = data?.values ?? [];
  const most = Math.max(1, ...values.map((value) => value.count));
  return (
    <>
      <p className="pb-2 text-soft">{field.meaning}</p>
      <Trouble error={error} />
      <ul aria-label={field.label}>
        {values.map(({ key, count }) => {
          const is = key === 'yes';
          return (
            <ValueRow
              key={key}
              label={key}
              count={count}
              most={most}
              picked={test?.is === is}
              onToggle={() => onTest(test?.is === is ? null : { is })}
            />
          );
        })}
        {data && data.unknown > 0 && (
          <li className="py-2 pl-8 text-[13px] text-unsure">
            <UnknownMark />
            <span className="figure">{format.number(data.unknown)}</span> unknown
          </li>
        )}
      </ul>
    </>
  );
}
