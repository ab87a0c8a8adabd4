import { Link } from 'react-router';
import type { ExportView } from '../../contract/export-views.ts';
import { columnFields } from '../../core/fields/registry.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { useFormat } from '../app/format.ts';
import { addressOf } from '../desk/address.ts';
import { useOpenTape } from '../desk/open-tape.ts';
import { Button } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';

/** The paper of the Exports place: how the selected export came to its rows, and what can be done with it. */
export function ExportRoll({
  one,
  onAgain,
  onRemove,
  onForget,
}: {
  one: ExportView | null;
  onAgain(one: ExportView): void;
  onRemove(one: ExportView): void;
  onForget(one: ExportView): void;
}) {
  const format = useFormat();
  const open = useOpenTape();
  if (!one)
    return (
      <Roll title="No export selected" steps={[]} foot={{ label: 'rows', total: 0 }}>
        <p className="text-[13px] text-soft">Select an export to see how it came to its rows.</p>
      </Roll>
    );
  const tape = { ...emptyTape(), ...(one.tape as Partial<Tape>) };
  const headingOf = (id: string) =>
    columnFields(one.subject).find((field) => field.id === id)?.column?.heading ??
    (id.startsWith('made:') ? 'computed' : 'count');
  const steps = (one.roll?.steps ?? []).map(({ step, label, note, delta, total }) => ({
    ...{ key: step, label, delta, total },
    note: note.replace(/\d{4}-\d{2}-\d{2}/, format.date),
    ...(step === 'chosen' && one.picked === null ? { onOpen: () => open(tape) } : {}),
  }));
  return (
    <Roll
      title={one.name}
      about={
        <>
          {one.receiver ? `for ${one.receiver}` : 'for nobody in particular'},{' '}
          {format.date(one.madeAt.slice(0, 10))}
          {one.person && ` by ${one.person}`}
          {one.repeats && <span className="block">made again of an earlier one</span>}
        </>
      }
      steps={steps}
      below={
        <div className="space-y-2 px-4 py-2 pl-10 text-[13px]">
          <ul aria-label="The tape">
            {one.wording.map((line, i) => (
              <li key={i}>{line}</li>
            ))}
            {one.wording.length === 0 && <li>the whole universe</li>}
          </ul>
          <p className="text-soft">
            {one.picked !== null && `${format.number(one.picked)} picked by hand · `}
            {one.columns.map(headingOf).join(', ')}
          </p>
        </div>
      }
      opens="See what this tape keeps now"
      foot={{ label: 'rows of the file', total: one.count }}
    >
      <Button look="ink" disabled={one.again === 'no'} onClick={() => onAgain(one)}>
        Make again
      </Button>
      {one.bytes !== null && (
        <a
          href={`/api/exports/${one.id}/file`}
          className="inline-flex items-center rounded-md border border-edge bg-paper px-3 py-1.5 hover:border-ink"
        >
          Download
        </a>
      )}
      <Link
        to={addressOf({ tape, sort: [], openLine: null, company: null })}
        className="inline-flex items-center rounded-md border border-edge bg-paper px-3 py-1.5 hover:border-ink"
      >
        Open the tape
      </Link>
      <Button look="quiet" onClick={() => onRemove(one)}>
        Remove
      </Button>
      {one.again === 'changes' && (
        <Button
          look="quiet"
          title="Nobody was given it: what it held shall not count as handed over"
          onClick={() => onForget(one)}
        >
          It never went out
        </Button>
      )}
    </Roll>
  );
}
