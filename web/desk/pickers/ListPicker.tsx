import type { CategoryCounts } from '../../../contract/responses.ts';
import type { CarriedColumn } from '../../../core/lists/carried.ts';
import { VERDICTS, type ListTest } from '../../../core/tape/nodes.ts';
import { useReasons } from '../../lists/review/reviewing.ts';
import { useCarried } from '../../lists/use-lists.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import { CarriedPart } from './CarriedPart.tsx';
import type { PickerProps } from './picker-props.ts';
import { ValueRow } from './ValueRow.tsx';

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
  const carried = useCarried();
  const columns = uniqueColumns(keys.flatMap((key) => carried(key)));
  const verdicts = test?.verdict ?? VERDICTS;
  const reasons = useReasons();
  const ask = (more: Partial<ListTest>) => {
    if (!test) return;
    const asked = Object.entries({ ...test, ...more }).filter(([, value]) => value !== undefined);
    onTest(Object.fromEntries(asked) as unknown as ListTest);
  };
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
                ask({ verdict: next.length === VERDICTS.length ? undefined : next });
              }}
            />
            {verdict === 'not-judged' ? 'not judged' : verdict}
          </label>
        ))}
      </div>
      {test && (
        <div className="flex flex-wrap items-center gap-3 pb-3 text-[13px]">
          <label className="flex items-center gap-1.5">
            out because
            <select
              className="field py-0.5"
              value={test.reason?.[0] ?? ''}
              onChange={(event) => ask({ reason: event.target.value ? [event.target.value] : undefined })}
            >
              <option value="">of anything</option>
              {[...new Set([...(test.reason ?? []), ...reasons])].map((reason) => (
                <option key={reason}>{reason}</option>
              ))}
            </select>
          </label>
          <TextPart
            label="tagged"
            value={test.tag?.[0]}
            onValue={(tag) => ask({ tag: tag ? [tag] : undefined })}
          />
          <TextPart
            label="assigned to"
            value={test.assigned?.[0]}
            onValue={(person) => ask({ assigned: person ? [person] : undefined })}
          />
          <SpanPart label="added" value={test.added} onValue={(added) => ask({ added })} />
          <SpanPart label="judged" value={test.judged} onValue={(judged) => ask({ judged })} />
          {test.step && (
            <span>
              only step <span className="figure">{test.step}</span> of its roll{' '}
              <Button look="quiet" onClick={() => ask({ step: undefined })}>
                all members
              </Button>
            </span>
          )}
        </div>
      )}
      {test && columns.length > 0 && (
        <CarriedPart
          key={keys.join(' ')}
          columns={columns}
          test={test}
          at={at}
          onTest={(asked) => ask({ carried: asked })}
        />
      )}
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

/** Headings of several lists, each once; what two have as different things is asked by its words. */
function uniqueColumns(columns: readonly CarriedColumn[]): CarriedColumn[] {
  const unique = new Map<string, CarriedColumn>();
  for (const one of columns) {
    const other = unique.get(one.column);
    unique.set(one.column, other && other.kind !== one.kind ? { ...one, kind: 'text' } : one);
  }
  return [...unique.values()];
}

/** A tag or a name, taken once it is written. */
function TextPart({
  label,
  value = '',
  onValue,
}: {
  label: string;
  value: string | undefined;
  onValue(value: string): void;
}) {
  return (
    <label className="flex items-center gap-1.5">
      {label}
      <input
        key={value}
        defaultValue={value}
        maxLength={60}
        placeholder="anything"
        className="field w-28 py-0.5"
        onBlur={(event) => onValue(event.target.value.trim().replaceAll('"', ''))}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
    </label>
  );
}

const SPANS = ['1 day', '7 days', '30 days', '3 months', '12 months'];

/** Within which span back from the as-of date. */
function SpanPart({
  label,
  value,
  onValue,
}: {
  label: string;
  value: string | undefined;
  onValue(value: string | undefined): void;
}) {
  return (
    <label className="flex items-center gap-1.5">
      {label}
      <select
        className="field py-0.5"
        value={value ?? ''}
        onChange={(event) => onValue(event.target.value || undefined)}
      >
        <option value="">whenever</option>
        {[...new Set([...(value ? [value] : []), ...SPANS])].map((span) => (
          <option key={span} value={span}>
            in the past {span}
          </option>
        ))}
      </select>
    </label>
  );
}
