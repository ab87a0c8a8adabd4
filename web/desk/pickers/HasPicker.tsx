import { Ban, Pause, Play, X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { relationsOf, rolesOf } from '../../../core/fields/registry.ts';
import { putLines } from '../../../core/tape/also.ts';
import { editLine, freeId, renamed, toggleMark } from '../../../core/tape/edit.ts';
import {
  COUNT_COLUMN,
  emptyTape,
  type HasLine,
  type Line,
  type NumberTest,
} from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useColumns, useDesk } from '../store.ts';
import { Entry } from '../tape/Entry.tsx';
import { useSavedTapes } from '../tape/SaveTapeDialog.tsx';
import { nameOf, wordedById } from '../worded.ts';
import { Ends } from './range/Ends.tsx';

/** The large chooser of a has-line: in which role, how many, and which conditions the related records must pass. */
export function HasPicker({ line, subject }: { line: HasLine; subject: string }) {
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const columns = useColumns();
  const { change, set, setColumns } = useDesk.getState();
  const { data: tally } = useTally();
  const format = useFormat();
  const related = relationsOf(subject).get(line.has)!;
  const roles = rolesOf(subject, related.id);
  const top = tape.lines.some(
    (one) => one.id === line.id || ('either' in one && one.either.some(({ id }) => id === line.id)),
  );
  const figures = tally?.lines.flatMap((one) => one.related ?? []).find((one) => one.id === line.id);
  const own = tally?.lines.find((one) => one.id === line.id);
  const words = wordedById(tally?.lines ?? []);
  const alone = new Map(figures?.lines.map((one) => [one.id, one.alone]));
  const edit = (next: HasLine) =>
    change(
      editLine(tape, line.id, () => next),
      `line ${line.id}`,
    );
  // What stands for one or more is emptied on the way to “to 0”, and must not come back under the hand.
  const [emptied, setEmptied] = useState(false);
  const { data: saved } = useSavedTapes();
  const parts = saved?.tapes.filter((one) => one.kind === 'part' && one.tape.subject === related.id) ?? [];
  const putHere = (lines: readonly Line[]) => {
    let whole = tape;
    const put: Line[] = [];
    for (const one of lines) {
      put.push(renamed(one, freeId(whole)));
      whole = { ...whole, lines: [...whole.lines, put.at(-1)!] };
    }
    edit({ ...line, lines: [...line.lines, ...put] });
  };
  const column = COUNT_COLUMN + line.id;
  const sorted = sort.some(({ by }) => by === column);
  return (
    <div className="flex h-full min-h-0 flex-col gap-5 overflow-y-auto pr-1">
      {roles.length > 0 && (
        <Row name={subject === 'companies' ? 'The company is' : 'It is'}>
          <Segments
            label="Role"
            value={line.as ?? ''}
            options={[
              { key: '', label: 'any part of it' },
              ...roles.map(({ key, label }) => ({ key, label })),
            ]}
            onChange={(as) => {
              const { as: _, ...rest } = line;
              edit(as === '' ? rest : { ...rest, as });
            }}
          />
        </Row>
      )}
      <Row name="How many">
        <Ends
          key={line.id}
          test={line.count ?? (emptied ? null : { from: 1 })}
          onRange={(range) => {
            setEmptied(range.from === undefined);
            edit(withCount(line, range));
          }}
        />
        <p className="pt-1 text-[12px] text-soft">
          Counted are {related.many} that surely pass the lines below. Where it would take those that only
          may, the line does not know. “to 0” asks for none.
        </p>
      </Row>
      <Row name={`Which ${related.many}`}>
        <ul aria-label={`Lines on ${related.many}`}>
          {line.lines.map((one) => (
            <li key={one.id} className="flex items-center border-b border-rule">
              <button
                type="button"
                className="flex min-w-0 flex-1 items-baseline gap-3 py-1.5 text-left hover:bg-picked"
                onClick={() => set({ openLine: one.id, company: null })}
              >
                <span className="min-w-0 flex-1">
                  {one.not && <strong className="text-cut">not </strong>}
                  <strong>{words.get(one.id)?.words.label ?? nameOf(one)}</strong>{' '}
                  {words.get(one.id)?.words.text}
                  {one.parked && <span className="text-soft"> (parked)</span>}
                </span>
                <span className="figure">{format.number(alone.get(one.id) ?? 0)}</span>
              </button>
              <Button
                look="quiet"
                aria-pressed={one.not === true}
                aria-label={`${one.not ? 'Keep what matches' : 'Take out what matches'} ${words.get(one.id)?.words.label ?? nameOf(one)}`}
                title={one.not ? 'Keep what matches (N)' : 'Take out what matches (N)'}
                onClick={() => change(editLine(tape, one.id, (own) => toggleMark(own, 'not')))}
              >
                <Ban size={14} className={one.not ? 'text-ink' : ''} />
              </Button>
              <Button
                look="quiet"
                aria-pressed={one.parked === true}
                aria-label={`${one.parked ? 'Count again' : 'Park'} ${words.get(one.id)?.words.label ?? nameOf(one)}`}
                title={one.parked ? 'Count it again (P)' : 'Park it (P)'}
                onClick={() => change(editLine(tape, one.id, (own) => toggleMark(own, 'parked')))}
              >
                {one.parked ? <Play size={14} /> : <Pause size={14} />}
              </Button>
              <Button
                look="quiet"
                aria-label={`Take off ${words.get(one.id)?.words.label ?? nameOf(one)}`}
                title="Take the line off"
                onClick={() => edit({ ...line, lines: line.lines.filter(({ id }) => id !== one.id) })}
              >
                <X size={14} />
              </Button>
            </li>
          ))}
          {line.lines.length === 0 && (
            <li className="py-1.5 text-soft">any; type or pick what they must be</li>
          )}
        </ul>
        <div className="-mx-4 max-w-xl">
          <Entry
            label={`Add a line on ${related.many}`}
            tape={{ ...emptyTape(related.id), lines: line.lines }}
            placeholder={PLACEHOLDERS[related.id] ?? ''}
            onLines={(lines, joint) =>
              edit({
                ...line,
                lines: putLines({ ...emptyTape(related.id), lines: line.lines }, lines, joint).lines,
              })
            }
            onField={(field) => set({ openLine: `new:${line.id}/${field}`, company: null })}
            {...(top
              ? {
                  onHas: (has: string) => {
                    const id = freeId(tape);
                    edit({ ...line, lines: [...line.lines, { id, has, lines: [] }] });
                    set({ openLine: id });
                  },
                }
              : {})}
          />
        </div>
        {parts.length > 0 && (
          <select
            aria-label={`Put a part of ${related.many} here`}
            className="field w-60 py-1 text-[13px]"
            value=""
            onChange={(event) => {
              const part = parts.find(({ id }) => id === event.target.value);
              if (part) putHere(part.tape.lines);
            }}
          >
            <option value="">put a saved part here …</option>
            {parts.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
        {figures && (
          <p className="pt-2">
            <span className="figure text-[17px] font-semibold">{format.number(figures.sure)}</span> of{' '}
            <span className="figure">{format.number(figures.all)}</span> {related.many} pass
            {figures.possible > 0 && (
              <span className="text-unsure">, {format.number(figures.possible)} more may</span>
            )}
            {own && (
              <>
                ; the line keeps <span className="figure font-semibold">{format.number(own.alone)}</span>{' '}
                {tape.subject} by itself
              </>
            )}
          </p>
        )}
      </Row>
      {top && (
        <Row name="Their number">
          <div className="flex flex-wrap gap-2">
            <Button
              aria-pressed={columns.includes(column)}
              look={columns.includes(column) ? 'ink' : 'plain'}
              onClick={() =>
                setColumns(
                  columns.includes(column)
                    ? columns.filter((id) => id !== column)
                    : withCounted(columns, column),
                )
              }
            >
              {columns.includes(column) ? 'a column of the sheet' : 'show as a column'}
            </Button>
            <Button
              aria-pressed={sorted}
              look={sorted ? 'ink' : 'plain'}
              onClick={() => {
                change(tape, undefined, {
                  sort: sorted ? [] : [{ by: column, descending: true }],
                  ...(sorted || columns.includes(column) ? {} : { columns: withCounted(columns, column) }),
                });
              }}
            >
              {sorted ? 'sorted by it, most first' : 'sort by it, most first'}
            </Button>
          </div>
        </Row>
      )}
    </div>
  );
}

const PLACEHOLDERS: Readonly<Record<string, string>> = {
  companies: '“nace 25.51”, “in Germany”, “50-249 staff” …',
  sites: '“works”, “in Czechia”, “headcount 20+” …',
  people: '“purchasing”, “director+”, “title paint* not assistant” …',
  deals: '“growth loan”, “past 18 months”, “bidders 5-20” …',
  brands: '“channel dealers 40+”, “category coatings” …',
  events: '“job opening”, “past 3 months”, “says paint line” …',
};

/** The count stands beside the name, where it is seen. */
function withCounted(columns: readonly string[], column: string): string[] {
  return [...columns.slice(0, 1), column, ...columns.slice(1)];
}

function withCount(line: HasLine, { from, to }: NumberTest): HasLine {
  const { count: _, ...rest } = line;
  const plain = (value: number | undefined) =>
    value === undefined ? undefined : Math.max(0, Math.round(value));
  const [low, high] = [plain(from), plain(to)];
  if ((low ?? 1) === 1 && high === undefined) return rest;
  return {
    ...rest,
    count: { ...(low === undefined ? {} : { from: low }), ...(high === undefined ? {} : { to: high }) },
  };
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[112px_1fr] gap-4">
      <span className="pt-1.5 text-soft">{name}</span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}
