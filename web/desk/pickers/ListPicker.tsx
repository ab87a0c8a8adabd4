import type { CategoryCounts } from '../../../contract/responses.ts';
import type { ListTest, ListVerdict } from '../../../core/tape/nodes.ts';
import { Trouble } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { ValueRow } from './ValueRow.tsx';

const VERDICTS: readonly ListVerdict[] = ['in', 'unsure', 'out'];

/** Lists of the workspace with how many of their members the other lines let through. */
export function ListPicker({ field, test, at, onTest }: PickerProps<ListTest>) {
  const { data, error } = useCounts<CategoryCounts>({ field: field.id, at });
  const lists = data?.values ?? [];
  const most = Math.max(1, ...lists.map((list) => list.count));
  const keys = test?.any ?? [];
  const toggle = (key: string) => {
    const any = keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key];
    onTest(any.length ? { ...test, any } : null);
  };
  const verdicts = test?.verdict ?? ['in'];
  return (
    <>
      <div className="flex items-center gap-4 pb-2 text-[13px]">
        members with verdict
        {VERDICTS.map((verdict) => (
          <label key={verdict} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={verdicts.includes(verdict)}
              disabled={!test || (verdicts.length === 1 && verdicts[0] === verdict)}
              onChange={(event) => {
                const next = VERDICTS.filter((one) =>
                  one === verdict ? event.target.checked : verdicts.includes(one),
                );
                if (test) onTest({ any: test.any, ...(next.join() === 'in' ? {} : { verdict: next }) });
              }}
            />
            {verdict}
          </label>
        ))}
      </div>
      <Trouble error={error} />
      <ul aria-label="Lists">
        {lists.map((list) => (
          <ValueRow
            key={list.key}
            label={list.label}
            count={list.count}
            most={most}
            picked={keys.includes(list.key)}
            onToggle={() => toggle(list.key)}
          />
        ))}
        {data && lists.length === 0 && (
          <li className="p-4 text-soft">
            There is no list yet. Pick rows in the sheet with Space and put them on one with S.
          </li>
        )}
      </ul>
    </>
  );
}
