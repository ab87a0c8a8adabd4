import { useState } from 'react';
import type { UploadAnswer } from '../../../contract/responses.ts';
import {
  CELL_PARTS,
  madeCell,
  MOST_MADE,
  type CellPart,
  type MadeColumn,
} from '../../../core/records/made-columns.ts';
import { Button, Dialog, Segments } from '../../ui/controls.tsx';
import { Choice, Labelled } from './fields.tsx';

/** What a made column is made of, in words: "Street and No, joined". */
export function wordMade(column: MadeColumn, header: readonly string[]): string {
  if (column.way === 'same') return `“${column.text}” in every row`;
  const names = column.of.map((at) => header[at] ?? `column ${at + 1}`);
  if (column.way === 'join') return `${names.join(' and ')}, joined`;
  return `of ${names[0]}: ${PARTS[column.part]} “${column.by}”`;
}

const PARTS: Record<CellPart, string> = {
  'before-first': 'before the first',
  'after-first': 'after the first',
  'before-last': 'before the last',
  'after-last': 'after the last',
};

/** The columns that are made of those of the file: each can go again, and more can be made. */
export function MadeColumns({
  file,
  off,
  onMade,
}: {
  file: UploadAnswer;
  off: boolean;
  onMade(made: MadeColumn[]): void;
}) {
  const [making, setMaking] = useState(false);
  const { made } = file;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 text-[13px]">
      <Button disabled={off || made.length >= MOST_MADE} onClick={() => setMaking(true)}>
        Make a column …
      </Button>
      {made.map((column, i) => (
        <span key={column.heading} className="flex items-center gap-1 rounded border border-edge px-2 py-0.5">
          <strong>{column.heading}</strong> {wordMade(column, file.header)}
          <Button
            look="quiet"
            aria-label={`Take off the column ${column.heading}`}
            disabled={off}
            onClick={() => onMade(made.filter((_, at) => at !== i))}
          >
            ×
          </Button>
        </span>
      ))}
      {making && (
        <MakeColumn
          file={file}
          onClose={() => setMaking(false)}
          onMake={(column) => {
            setMaking(false);
            onMade([...made, column]);
          }}
        />
      )}
    </div>
  );
}

/** Rows on which a column is shown before it is made. */
const SHOWN = 4;

function MakeColumn({
  file,
  onMake,
  onClose,
}: {
  file: UploadAnswer;
  onMake(column: MadeColumn): void;
  onClose(): void;
}) {
  const own = file.header.slice(0, file.header.length - file.made.length);
  const [way, setWay] = useState<MadeColumn['way']>('join');
  const [heading, setHeading] = useState('');
  const [of, setOf] = useState<number[]>([]);
  const [by, setBy] = useState(' ');
  const [part, setPart] = useState<CellPart>('before-first');
  const [text, setText] = useState('');
  const named = heading.trim();
  const column: MadeColumn =
    way === 'same'
      ? { way, heading: named, text }
      : way === 'join'
        ? { way, heading: named, of, by }
        : { way, heading: named, of: of.slice(0, 1), by, part };
  const trouble =
    named === ''
      ? 'Give the column a name.'
      : file.header.includes(named)
        ? `There is a column “${named}” already.`
        : way === 'same'
          ? null
          : of.length < (way === 'join' ? 2 : 1)
            ? way === 'join'
              ? 'Choose at least two columns, in their order.'
              : 'Choose the column that it is a part of.'
            : way === 'part' && by === ''
              ? 'Say at which text a cell is parted.'
              : null;
  return (
    <Dialog title="Make a column" description="Read and kept like the file’s own." open onClose={onClose}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (trouble === null) onMake(column);
        }}
      >
        <Segments
          label="How it is made"
          value={way}
          options={[
            { key: 'join', label: 'Columns joined' },
            { key: 'part', label: 'A part of one' },
            { key: 'same', label: 'The same in every row' },
          ]}
          onChange={(next) => {
            setWay(next);
            setBy(next === 'part' ? ',' : ' ');
          }}
        />
        <Labelled label="Its name, by which it is recognised">
          <input
            className="field w-72"
            value={heading}
            maxLength={120}
            placeholder={way === 'same' ? 'Country' : 'Street'}
            onChange={(event) => setHeading(event.target.value)}
          />
        </Labelled>
        {way === 'join' && <Joined own={own} of={of} onOf={setOf} />}
        {way === 'part' && (
          <Choice
            label="A part of"
            value={String(of[0] ?? '')}
            options={[
              ['', 'a column'],
              ...own.map((name, at) => [String(at), name || `column ${at + 1}`] as const),
            ]}
            onChange={(at) => setOf(at === '' ? [] : [Number(at)])}
          />
        )}
        {way === 'part' && (
          <Choice
            label="What stands"
            value={part}
            options={CELL_PARTS.map((one) => [one, PARTS[one]])}
            onChange={(next) => setPart(next as CellPart)}
          />
        )}
        {way === 'same' ? (
          <Labelled label="Text in every row">
            <input
              className="field w-72"
              value={text}
              maxLength={2000}
              onChange={(event) => setText(event.target.value)}
            />
          </Labelled>
        ) : (
          <Labelled label={way === 'join' ? 'Text between them' : 'Text at which a cell is parted'}>
            <input
              className="field figure w-24"
              value={by}
              maxLength={20}
              onChange={(event) => setBy(event.target.value)}
            />
          </Labelled>
        )}
        <div aria-label="How it comes out" role="group" className="text-[13px]">
          <span className="text-soft">In the first rows:</span>
          <ul>
            {file.rows.slice(0, SHOWN).map((cells, i) => (
              <li key={i} className="figure truncate">
                {madeCell(column, cells) || <span className="text-soft">nothing</span>}
              </li>
            ))}
          </ul>
        </div>
        <div className="flex items-center justify-end gap-2">
          {trouble && <span className="mr-auto text-[13px] text-soft">{trouble}</span>}
          <Button type="button" onClick={onClose}>
            Leave it
          </Button>
          <Button look="ink" type="submit" disabled={trouble !== null}>
            Make it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** Columns in the order in which they are joined: one more is chosen, or one goes. */
function Joined({
  own,
  of,
  onOf,
}: {
  own: readonly string[];
  of: readonly number[];
  onOf(of: number[]): void;
}) {
  const nameOf = (at: number) => own[at] || `column ${at + 1}`;
  return (
    <div className="flex flex-wrap items-center gap-2 text-[13px]">
      {of.map((at, i) => (
        <Button
          key={at}
          type="button"
          aria-label={`Leave out ${nameOf(at)}`}
          onClick={() => onOf(of.filter((_, nth) => nth !== i))}
        >
          {nameOf(at)} ×
        </Button>
      ))}
      <Choice
        aria="One more column to join"
        value=""
        options={[
          ['', of.length === 0 ? 'first column' : 'and then'],
          ...own.flatMap((_, at) => (of.includes(at) ? [] : [[String(at), nameOf(at)] as const])),
        ]}
        onChange={(at) => at !== '' && onOf([...of, Number(at)])}
      />
    </div>
  );
}
