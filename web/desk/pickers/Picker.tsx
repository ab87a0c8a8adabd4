import { useEffect, useState } from 'react';
import type { Field } from '../../../core/fields/field.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import {
  addLines,
  freeId,
  removeLine,
  replaceLine,
  toggleMark,
  toggleUnknown,
} from '../../../core/tape/edit.ts';
import {
  isBlock,
  passesUnknown,
  type FieldLine,
  type MoneyTest,
  type NumberTest,
  type Test,
} from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Kbd, Segments } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useDesk } from '../store.ts';
import type { PickerProps } from './picker-props.ts';
import { CategoryPicker } from './CategoryPicker.tsx';
import { CodesPicker } from './CodesPicker.tsx';
import { DatePicker } from './DatePicker.tsx';
import { FlagPicker } from './FlagPicker.tsx';
import { GrowthPicker } from './GrowthPicker.tsx';
import { KeyedPicker } from './KeyedPicker.tsx';
import { ListPicker } from './ListPicker.tsx';
import { PlacePicker } from './PlacePicker.tsx';
import { RangePicker } from './RangePicker.tsx';
import { RankPicker } from './RankPicker.tsx';
import { TextPicker } from './TextPicker.tsx';

/** The large chooser of a line's field, on the stage while the line is open. */
export function Picker({ openLine }: { openLine: string }) {
  const tape = useDesk((state) => state.tape);
  const { change, set } = useDesk.getState();
  const draft = openLine.startsWith('new:') ? openLine.slice(4) : null;
  const line = tape.lines.find((one) => one.id === openLine);
  const [branchId, setBranchId] = useState<string | null>(null);

  useEffect(() => {
    // The line was taken off, or an old address names one that is gone.
    if (draft === null && !line) set({ openLine: null });
  }, [draft, line, set]);

  if (line && isBlock(line)) {
    const branch = line.either.find((one) => one.id === branchId) ?? line.either[0]!;
    return (
      <>
        <div className="flex flex-wrap items-center gap-2 pb-2" role="tablist" aria-label="Branches">
          <span className="text-soft">either</span>
          {line.either.map((one, i) => (
            <Button
              key={one.id}
              role="tab"
              aria-selected={one === branch}
              look={one === branch ? 'ink' : 'plain'}
              onClick={() => setBranchId(one.id)}
            >
              {i + 1}. {fieldOf(tape.subject, one.field)!.label.toLowerCase()}
            </Button>
          ))}
        </div>
        <Stage
          key={branch.id}
          field={fieldOf(tape.subject, branch.field)!}
          line={branch}
          at={line.id}
          onLine={(next) => {
            const either =
              next === null
                ? line.either.filter((one) => one.id !== branch.id)
                : line.either.map((one) => (one.id === branch.id ? next : one));
            change(
              either.length ? replaceLine(tape, { ...line, either }) : removeLine(tape, line.id),
              `branch ${branch.id}`,
            );
          }}
          branch
        />
      </>
    );
  }
  const field = fieldOf(tape.subject, draft ?? line?.field ?? '');
  if (!field || field.openers.length === 0) return null;
  return (
    <Stage
      key={field.id}
      field={field}
      line={line ?? null}
      at={line?.id}
      onLine={(next) => {
        if (next === null) {
          if (line) change(removeLine(tape, line.id));
          set({ openLine: `new:${field.id}` });
        } else if (line) change(replaceLine(tape, next), `line ${line.id}`);
        else {
          const id = freeId(tape);
          change(addLines(tape, [{ ...next, id }]), `line ${id}`);
          set({ openLine: id });
        }
      }}
    />
  );
}

function Stage({
  field,
  line,
  at,
  onLine,
  branch = false,
}: {
  field: Field;
  line: FieldLine | null;
  at: string | undefined;
  onLine(line: FieldLine | null): void;
  branch?: boolean;
}) {
  const { set } = useDesk.getState();
  const { data: tally } = useTally();
  const format = useFormat();
  const figures = tally?.lines.find((one) => one.id === at);
  const props = {
    field,
    at,
    test: (line?.test ?? null) as never,
    onTest: (test: Test | null) =>
      onLine(test === null ? null : line ? { ...line, test } : { id: '', field: field.id, test }),
  };
  return (
    <section aria-label={`${field.label} picker`} className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
        <h1 className="title text-[21px]">{field.label}</h1>
        <p className="text-[13px] text-soft">counts are of the companies the other lines let through</p>
        <Button className="ml-auto" onClick={() => set({ openLine: null })}>
          Done <Kbd>Esc</Kbd>
        </Button>
      </header>
      <div className="min-h-0 flex-1">
        {field.kind === 'codes' && <CodesPicker {...props} />}
        {field.kind === 'place' && <PlacePicker {...props} />}
        {field.kind === 'number' && (
          <RangePicker
            {...(props as unknown as PickerProps<NumberTest>)}
            estimates={line?.estimates === true}
            onEstimates={line ? (on) => onLine(withEstimates(line, on)) : undefined}
          />
        )}
        {field.kind === 'money' && (
          <RangePicker
            {...(props as unknown as PickerProps<MoneyTest>)}
            estimates={line?.estimates === true}
            onEstimates={line ? (on) => onLine(withEstimates(line, on)) : undefined}
          />
        )}
        {field.kind === 'rank' && (
          <RankPicker
            {...props}
            estimates={line?.estimates === true}
            onEstimates={line ? (on) => onLine(withEstimates(line, on)) : undefined}
          />
        )}
        {field.kind === 'flag' && <FlagPicker {...props} />}
        {field.kind === 'keyed' && <KeyedPicker {...props} />}
        {field.kind === 'growth' && <GrowthPicker {...props} />}
        {field.kind === 'list' && <ListPicker {...props} />}
        {field.kind === 'category' && <CategoryPicker {...props} />}
        {field.kind === 'date' && <DatePicker {...props} />}
        {field.kind === 'text' && <TextPicker {...props} />}
      </div>
      <footer className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-t border-edge py-2 text-[13px]">
        {line ? (
          <>
            <Segments
              label="What the line does"
              value={line.not ? 'not' : 'keep'}
              options={[
                { key: 'keep', label: 'keeps these' },
                { key: 'not', label: 'takes these out' },
              ]}
              onChange={(value) =>
                (value === 'not') !== (line.not === true) && onLine(toggleMark(line, 'not'))
              }
            />
            {!branch && (
              <Segments
                label="Unknown"
                value={passesUnknown(line) ? 'keep' : 'drop'}
                options={[
                  { key: 'drop', label: 'unknown left out' },
                  { key: 'keep', label: 'unknown kept' },
                ]}
                onChange={(value) =>
                  (value === 'keep') !== passesUnknown(line) && onLine(toggleUnknown(line))
                }
              />
            )}
            {field.dated && (
              <select
                aria-label="How old values may be"
                value={line.fresh ?? ''}
                className="field max-w-44 py-1"
                onChange={(event) => onLine(withFresh(line, event.target.value))}
              >
                <option value="">of any age</option>
                {[...new Set([...FRESH, ...(line.fresh ? [line.fresh] : [])])].map((span) => (
                  <option key={span} value={span}>
                    no older than {span}
                  </option>
                ))}
              </select>
            )}
            {figures && figures.unknown > 0 && (
              <span className="whitespace-nowrap text-unsure">{format.number(figures.unknown)} unknown</span>
            )}
            <span className="min-w-0 basis-full truncate text-soft" title={figures?.typed}>
              typed: <span className="figure text-ink">{figures?.typed}</span>
            </span>
          </>
        ) : (
          <span className="text-soft">Nothing is asked yet; the first choice puts the line on the tape.</span>
        )}
      </footer>
    </section>
  );
}

const FRESH = ['6 months', '12 months', '24 months', '36 months'];

function withFresh(line: FieldLine, span: string): FieldLine {
  const { fresh: _, ...rest } = line;
  return span === '' ? rest : { ...rest, fresh: span };
}

function withEstimates(line: FieldLine, on: boolean): FieldLine {
  const { estimates: _, ...rest } = line;
  return on ? { ...rest, estimates: true } : rest;
}
