import { keepPreviousData, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useId, useRef, useState } from 'react';
import type { CompletionsAnswer, TypedAnswer } from '../../../contract/responses.ts';
import type { Joint } from '../../../core/tape/also.ts';
import { SECTIONS } from '../../../core/fields/field.ts';
import { lineFields, relationsOf } from '../../../core/fields/registry.ts';
import { spellFunctions, type PersonFunction } from '../../../core/people/functions.ts';
import { freeId, renamed } from '../../../core/tape/edit.ts';
import type { Line, Tape } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useRightPeople } from '../../people/right-people.ts';
import { Kbd } from '../../ui/controls.tsx';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

/** The part of the text that completions are for: after the last `;`. */
function lastPart(text: string): { before: string; part: string } {
  const at = text.lastIndexOf(';');
  return { before: text.slice(0, at + 1), part: text.slice(at + 1).trim() };
}

/** Whether a text begins with a word that opens a line, marks before it left aside. */
function opensLine(text: string, subject: string): boolean {
  const body = text.replace(/^((not|must|parked|keep unknowns?|drop unknowns?)\s+)+/i, '').toLowerCase();
  if (/^has(\s|$)/.test(body)) return true;
  return lineFields(subject).some((field) =>
    field.openers.some((opener) => body === opener || body.startsWith(`${opener} `)),
  );
}

/** A completion as it is typed: “also” before what joins a line that is there. */
function spelled({ typed, also }: { typed: string; also?: true }): string {
  return also ? `also ${typed}` : typed;
}

interface EntryProps {
  /** What the lines are put on: the tape of the Desk, or the lines of a has-line as a tape of their own. */
  tape: Tape;
  /** Puts lines there, under the ids they have. */
  onLines(lines: readonly Line[], joint: Joint): void;
  /** Opens a picker for a field that has no line yet, or a has-line that looks through to something. */
  onField(field: string): void;
  onHas?(has: string): void;
  /** Takes a line that asks for whoever holds one of some functions. */
  onRight?(functions: readonly PersonFunction[]): void;
  placeholder: string;
  label?: string;
  /** The entry of the tape itself, which a key goes to. */
  main?: boolean;
}

/** Where lines are typed. What is typed may be completed by meaning, with what each completion would leave. */
export function Entry({
  tape,
  onLines,
  onField,
  onHas,
  onRight,
  placeholder,
  label = 'Add a line',
  main = false,
}: EntryProps) {
  const list = useId();
  const [text, setText] = useState('');
  const [focused, setFocused] = useState(false);
  const [chosen, setChosen] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const format = useFormat();
  const last = lastPart(text);
  // “or …” says how the line is put on the tape; what it may mean is asked of what follows.
  const begun = last.part.replace(/^\/+\s*/, '');
  const joint = /^or\s+/i.exec(begun)?.[0] ?? '';
  const before = last.before + (joint ? `${last.before ? ' ' : ''}or` : '');
  const part = begun.slice(joint.length);
  const asked = part !== '' && focused;
  const { data, isPlaceholderData } = useQuery({
    queryKey: ['complete', countedPart(tape), part],
    queryFn: ({ signal }) =>
      call<CompletionsAnswer>('POST', '/complete', { tape: countedPart(tape), text: part }, signal),
    enabled: asked,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const completions = asked ? (data?.completions ?? []) : [];
  const first = completions[0];
  // What reads as a line stands for itself; what opens no line is proposed by its likeliest meaning, and one
  // that is begun by how it may go on. A line begun and then misspelt is left to be mended.
  const proposes =
    first !== undefined &&
    !first.alike &&
    first.typed !== part &&
    !/\d|:/.test(part) &&
    (!opensLine(part, tape.subject) || first.typed.startsWith(part));
  const proposed = isPlaceholderData ? null : (chosen ?? (proposes ? 0 : null));

  const enter = async (wish: string) => {
    // “or …” joins what follows to the last line, “also …” to the last on the same field.
    const wished = wish.trim().replace(/^\/+\s*/, '');
    const word = tape.lines.length ? /^(or|also)\s+/i.exec(wished) : null;
    const how = (word?.[1]!.toLowerCase() ?? 'and') as Joint;
    const text = wished.slice(word?.[0].length ?? 0);
    try {
      const { lines } = await call<TypedAnswer>('POST', '/typed', {
        text,
        subject: tape.subject,
        stem: `${freeId(useDesk.getState().tape)}-`,
      });
      const whole = useDesk.getState().tape;
      const named: Line[] = [];
      for (const line of lines)
        named.push(renamed(line, freeId({ ...whole, lines: [...whole.lines, ...named] })));
      onLines(named, how);
      setText('');
      setChosen(null);
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  return (
    <div className="relative px-4 pt-3 pb-2">
      <div
        className={clsx(
          'flex items-center gap-1 rounded-md border bg-paper pr-1 pl-2',
          problem ? 'border-cut' : 'border-ink',
        )}
      >
        {main && <Kbd>/</Kbd>}
        <input
          ref={input}
          {...(main ? { 'data-entry': '' } : {})}
          value={text}
          role="combobox"
          aria-label={label}
          aria-expanded={completions.length > 0}
          aria-controls={list}
          aria-activedescendant={proposed === null ? undefined : `${list}-${proposed}`}
          aria-invalid={problem !== null}
          placeholder={placeholder}
          spellCheck={false}
          autoComplete="off"
          className="min-w-0 flex-1 bg-transparent px-1 py-2 outline-none placeholder:text-soft"
          onFocus={() => setFocused(true)}
          onBlur={() => setFocused(false)}
          onChange={(event) => {
            setText(event.target.value);
            setChosen(null);
            setProblem(null);
          }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              event.preventDefault();
              const step = event.key === 'ArrowDown' ? 1 : -1;
              const from = chosen ?? (step > 0 ? (proposed ?? -1) : completions.length);
              if (completions.length) setChosen((from + step + completions.length) % completions.length);
            } else if (event.key === 'Tab' && !event.shiftKey && completions.length && text.trim() !== '') {
              event.preventDefault();
              setText(`${before}${before ? ' ' : ''}${spelled(completions[proposed ?? 0]!)}`);
              setChosen(null);
            } else if (event.key === 'Enter' && text.trim() !== '') {
              event.preventDefault();
              const taken = proposed === null ? undefined : completions[proposed];
              void enter(taken ? `${before} ${spelled(taken)}` : text);
            } else if (event.key === 'Escape') {
              event.stopPropagation();
              if (text === '' || problem !== null) input.current?.blur();
              setText('');
              setProblem(null);
            }
          }}
        />
        <FieldMenu subject={tape.subject} onField={onField} onHas={onHas} onRight={onRight} />
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-[13px] text-cut">
          {problem}
        </p>
      )}
      {completions.length > 0 && (
        <ul
          id={list}
          role="listbox"
          aria-label="What it may mean"
          className="absolute inset-x-4 top-full z-30 -mt-1 overflow-hidden rounded-md border border-edge bg-paper shadow-lg"
        >
          {completions.map((completion, i) => (
            <li
              key={spelled(completion)}
              id={`${list}-${i}`}
              role="option"
              aria-selected={proposed === i}
              className={clsx(
                'flex cursor-pointer items-baseline gap-2 border-b border-rule px-3 py-1.5 last:border-0',
                proposed === i ? 'bg-picked' : 'hover:bg-ground',
              )}
              onMouseDown={(event) => {
                event.preventDefault();
                void enter(`${before} ${spelled(completion)}`);
              }}
            >
              <span className="min-w-0 flex-1">
                <span className="block truncate">
                  {completion.meaning}
                  {completion.what && <span className="text-soft"> · {completion.what}</span>}
                </span>
                <span className="figure block truncate text-[12px] text-soft">
                  {completion.alike && <span className="font-sans">spelled alike: </span>}
                  {spelled(completion)}
                </span>
              </span>
              <span className="figure font-semibold">{format.number(completion.count)}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Conditions by name, for those who would rather pick than type. */
function FieldMenu({
  subject,
  onField,
  onHas,
  onRight,
}: {
  subject: string;
  onField(field: string): void;
  onHas?: (has: string) => void;
  onRight?: (functions: readonly PersonFunction[]) => void;
}) {
  const fields = lineFields(subject);
  const { ready, own } = useRightPeople();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="rounded p-1.5 text-soft hover:bg-ground hover:text-ink"
        aria-label="Pick a condition"
        title="Pick a condition"
      >
        <Plus size={16} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          className="z-50 max-h-[80vh] min-w-64 overflow-y-auto rounded-md border border-edge bg-paper py-1 shadow-lg"
        >
          {onHas && (
            <DropdownMenu.Group>
              <DropdownMenu.Label className="px-3 pt-1.5 text-[12px] text-soft">
                What hangs on them
              </DropdownMenu.Label>
              {[...relationsOf(subject)].map(([has, related]) => (
                <DropdownMenu.Item
                  key={has}
                  onSelect={() => onHas(has)}
                  className="flex cursor-pointer items-baseline justify-between gap-6 px-3 py-1 outline-none data-[highlighted]:bg-picked"
                >
                  Has {related.many}
                  <span className="figure text-[12px] text-soft">has {related.one} …</span>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          )}
          {onRight && (
            <DropdownMenu.Group>
              <DropdownMenu.Label className="px-3 pt-1.5 text-[12px] text-soft">
                Where there is the right person
              </DropdownMenu.Label>
              {[...ready, ...own].map(({ key, label, functions }) => (
                <DropdownMenu.Item
                  key={key}
                  title={spellFunctions(functions)}
                  onSelect={() => onRight(functions)}
                  className="cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-picked"
                >
                  {label}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          )}
          {Object.entries(SECTIONS)
            .filter(([section]) => fields.some((field) => field.section === section))
            .map(([section, heading]) => (
              <DropdownMenu.Group key={section}>
                <DropdownMenu.Label className="px-3 pt-1.5 text-[12px] text-soft">
                  {heading}
                </DropdownMenu.Label>
                {fields
                  .filter((field) => field.section === section)
                  .map((field) => (
                    <DropdownMenu.Item
                      key={field.id}
                      onSelect={() => onField(field.id)}
                      className="flex cursor-pointer items-baseline justify-between gap-6 px-3 py-1 outline-none data-[highlighted]:bg-picked"
                    >
                      {field.label}
                      <span className="figure text-[12px] text-soft">{field.openers[0]} …</span>
                    </DropdownMenu.Item>
                  ))}
              </DropdownMenu.Group>
            ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
