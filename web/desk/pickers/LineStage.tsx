import type { Field } from '../../../core/fields/field.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { toggleMark, toggleUnknown } from '../../../core/tape/edit.ts';
import {
  isHas,
  passesUnknown,
  type FieldLine,
  type Leaf,
  type MoneyTest,
  type NumberTest,
  type Test,
} from '../../../core/tape/nodes.ts';
import type { ReactNode } from 'react';
import { subjectWithin } from '../../../core/tape/turn.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Kbd, Segments } from '../../ui/controls.tsx';
import { FreshWithin, useTally } from '../queries.ts';
import { useDesk } from '../store.ts';
import { wordedById } from '../worded.ts';
import { CategoryPicker } from './CategoryPicker.tsx';
import { CodesPicker } from './CodesPicker.tsx';
import { DatePicker } from './DatePicker.tsx';
import { FlagPicker } from './FlagPicker.tsx';
import { GrowthPicker } from './GrowthPicker.tsx';
import { HasPicker } from './HasPicker.tsx';
import { KeyedPicker } from './KeyedPicker.tsx';
import { ListPicker } from './ListPicker.tsx';
import { PeersPicker } from './PeersPicker.tsx';
import type { PickerProps } from './picker-props.ts';
import { PlacePicker } from './PlacePicker.tsx';
import { RangePicker } from './RangePicker.tsx';
import { RankPicker } from './RankPicker.tsx';
import { RecordPicker } from './RecordPicker.tsx';
import { TextPicker } from './TextPicker.tsx';

interface StageProps<L extends Leaf> {
  line: L;
  label: string;
  /** Subject that the line is on. */
  subject: string;
  /** Id of the line on the tape, or of the block that it is a branch of. */
  at: string | undefined;
  /** Has-line around it. */
  holder: string | null;
  onBack(): void;
  onLine(line: L | null): void;
  branch?: boolean;
}

/** The stage of one line of a field, or of a field that has none yet: its picker between a head and a foot. */
export function LineStage({
  field,
  line,
  at,
  holder,
  onBack,
  onLine,
  branch = false,
}: Omit<StageProps<FieldLine>, 'line' | 'label' | 'subject'> & { field: Field; line: FieldLine | null }) {
  const props = {
    field,
    at,
    test: (line?.test ?? null) as never,
    onTest: (test: Test | null) =>
      onLine(test === null ? null : line ? { ...line, test } : { id: '', field: field.id, test }),
  };
  return (
    <Frame label={field.label} holder={holder} onBack={onBack}>
      <FreshWithin.Provider value={line?.fresh}>
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
          {field.kind === 'record' && <RecordPicker {...props} />}
          {field.kind === 'peers' && <PeersPicker {...props} />}
          {field.kind === 'category' && <CategoryPicker {...props} />}
          {field.kind === 'date' && <DatePicker {...props} />}
          {field.kind === 'text' && <TextPicker {...props} />}
        </div>
      </FreshWithin.Provider>
      <Foot<FieldLine>
        line={line}
        at={at}
        onLine={onLine}
        branch={branch}
        within={holder !== null}
        dated={field.dated !== undefined}
      />
    </Frame>
  );
}

/** The stage of a has-line. */
export function Stage({
  line,
  label,
  subject,
  at,
  holder,
  onBack,
  onLine,
  branch = false,
}: StageProps<Leaf>) {
  return (
    <Frame label={label} holder={holder} onBack={onBack}>
      <div className="min-h-0 flex-1">{isHas(line) && <HasPicker line={line} subject={subject} />}</div>
      <Foot line={line} at={at} onLine={onLine} branch={branch} within={holder !== null} dated={false} />
    </Frame>
  );
}

function Frame({
  label,
  holder,
  onBack,
  children,
}: {
  label: string;
  holder: string | null;
  onBack(): void;
  children: ReactNode;
}) {
  const tape = useDesk((state) => state.tape);
  const own = subjectOf(tape.subject).many;
  return (
    <section aria-label={`${label} picker`} className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
        <h1 className="title text-[21px]">{label}</h1>
        <p className="text-[13px] text-soft">
          {holder === null
            ? `counts are of the ${own} the other lines let through`
            : `counts are of the ${subjectOf(subjectWithin(tape, holder)).many} at the ${own} that the other lines let through`}
        </p>
        <Button className="ml-auto" onClick={onBack}>
          {holder === null ? 'Done' : 'Back to the has-line'} {holder === null && <Kbd>Esc</Kbd>}
        </Button>
      </header>
      {children}
    </section>
  );
}

function Foot<L extends Leaf>({
  line,
  at,
  onLine,
  branch,
  within,
  dated,
}: {
  line: L | null;
  at: string | undefined;
  onLine(line: L): void;
  branch: boolean;
  /** Whether it stands within a has-line, where unknown records are a third answer. */
  within: boolean;
  dated: boolean;
}) {
  const { data: tally } = useTally();
  const format = useFormat();
  const figures = tally?.lines.find((one) => one.id === at);
  const typed = figures?.typed ?? wordedById(tally?.lines ?? []).get(line?.id ?? '')?.typed;
  return (
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
            onChange={(value) => (value === 'not') !== (line.not === true) && onLine(toggleMark(line, 'not'))}
          />
          {!branch && within && (
            <Segments
              label="Unknown"
              value={line.unknown ?? 'may'}
              options={[
                { key: 'may', label: 'unknown may pass' },
                { key: 'drop', label: 'unknown left out' },
                { key: 'keep', label: 'unknown passes' },
              ]}
              onChange={(value) => {
                const { unknown: _, ...rest } = line;
                onLine((value === 'may' ? rest : { ...rest, unknown: value }) as L);
              }}
            />
          )}
          {!branch && !within && (
            <Segments
              label="Unknown"
              value={passesUnknown(line) ? 'keep' : 'drop'}
              options={[
                { key: 'drop', label: 'unknown left out' },
                { key: 'keep', label: 'unknown kept' },
              ]}
              onChange={(value) => (value === 'keep') !== passesUnknown(line) && onLine(toggleUnknown(line))}
            />
          )}
          {dated && !isHas(line) && <Freshness line={line} onLine={(next) => onLine(next as L)} />}
          {figures && figures.unknown > 0 && (
            <span className="whitespace-nowrap text-unsure">{format.number(figures.unknown)} unknown</span>
          )}
          <span className="min-w-0 basis-full truncate text-soft" title={typed}>
            typed: <span className="figure text-ink">{typed}</span>
          </span>
        </>
      ) : (
        <span className="text-soft">Nothing is asked yet; the first choice puts the line on the tape.</span>
      )}
    </footer>
  );
}

/** How old a value may be. */
function Freshness({ line, onLine }: { line: FieldLine; onLine(line: FieldLine): void }) {
  return (
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
