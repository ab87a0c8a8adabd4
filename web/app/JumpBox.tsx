import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { CompletionsAnswer, JumpAnswer, TypedAnswer } from '../../contract/responses.ts';
import { lineFields, SUBJECTS, subjectOf } from '../../core/fields/registry.ts';
import { putLines } from '../../core/tape/also.ts';
import { freeId, putPart, renamed } from '../../core/tape/edit.ts';
import { emptyTape, type Line, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { fold, foldedWords } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { putAtOnce } from '../lists/acts.ts';
import { tapeOfList } from '../lists/use-lists.ts';
import { Kbd } from '../ui/controls.tsx';
import { actedNow } from '../desk/acted.ts';
import { addressOf } from '../desk/address.ts';
import { putOneOnList } from '../desk/putting.ts';
import { countedPart } from '../desk/queries.ts';
import { useDesk } from '../desk/store.ts';
import { turnTo } from '../desk/SubjectMenu.tsx';
import { useFormat } from './format.ts';
import { groupEntries, type Entry } from './jump-entries.ts';

const MOST_COMMANDS = 8;
const NONE = 'none ';
/** Typed before the name of a list that what is at hand goes on. */
const PUT_ON = /^put (?:these )?on /i;

type JumpEntry = Entry<() => void>;

/** Finds companies, people, brands, deals, conditions, lines, tapes, lists and commands by typing; exact names first. */
export function JumpBox({ onClose }: { onClose(): void }) {
  const [text, setText] = useState('');
  const [selected, setSelected] = useState('');
  /** Whether a hand has moved the selection since the text changed; until then what is only alike is not selected. */
  const [moved, setMoved] = useState(false);
  /** The same at once, for what the list says within one key. */
  const movedNow = useRef(false);
  const move = (by: boolean) => {
    movedNow.current = by;
    setMoved(by);
  };
  // The list takes a value for its own until another is given, so "none" must be another each time.
  const nones = useRef(0);
  const noneNow = () => `${NONE}${++nones.current}`;
  const navigate = useNavigate();
  const format = useFormat();
  const tape = countedPart(useDesk((state) => state.tape));
  const client = useQueryClient();
  const wanted = text.trim();
  const named = wanted.replace(PUT_ON, '');
  const { data: found, isPlaceholderData: foundBefore } = useQuery({
    queryKey: ['jump', named],
    queryFn: ({ signal }) =>
      call<JumpAnswer>('GET', `/jump?text=${encodeURIComponent(named)}`, undefined, signal),
    enabled: named !== '',
    placeholderData: keepPreviousData,
  });
  const { data: lines, isPlaceholderData: linesBefore } = useQuery({
    queryKey: ['complete', tape, wanted],
    queryFn: ({ signal }) => call<CompletionsAnswer>('POST', '/complete', { tape, text: wanted }, signal),
    enabled: wanted !== '',
    placeholderData: keepPreviousData,
    retry: false,
  });
  const show = (next: Tape, sort: readonly SortKey[]) =>
    void navigate(addressOf({ tape: next, sort, company: null, openLine: null }));
  const put = (change: (tape: Tape) => Tape) => {
    const { tape: now, sort } = useDesk.getState();
    show(change(now), sort);
  };
  const take = async (typed: string, also: boolean) => {
    const { tape: now } = useDesk.getState();
    const { lines: read } = await call<TypedAnswer>('POST', '/typed', {
      text: typed,
      subject: now.subject,
      stem: `${freeId(now)}-`,
    });
    put((whole) => {
      const named: Line[] = [];
      for (const line of read)
        named.push(renamed(line, freeId({ ...whole, lines: [...whole.lines, ...named] })));
      return putLines(whole, named, also ? 'also' : 'and');
    });
  };
  /** All that is at hand on a list that takes it. */
  const putEntries = (list: JumpAnswer['lists'][number]): JumpEntry[] => {
    const acted = actedNow();
    const { company } = useDesk.getState();
    if (list.subject !== acted.tape.subject) return [];
    return [
      {
        id: `put ${list.key}`,
        kind: 'command',
        name: `Put these on ${list.name}`,
        also: [`put on ${list.name}`],
        note: company === null ? 'what is picked, or all of the tape' : 'the record that is open',
        act: () => void putAtOnce(client, list, acted, format.number),
      },
    ];
  };
  const entries: JumpEntry[] = [
    ...commands(navigate)
      .filter(({ name }) => fold(name).includes(fold(wanted)))
      .slice(0, MOST_COMMANDS),
    ...(wanted === '' ? [] : fieldsNamed(wanted, tape.subject, (field) => openPicker(navigate, field))),
    ...(wanted === '' ? [] : (lines?.completions ?? [])).map(
      ({ typed, meaning, what, alike, exact, also, count }): JumpEntry => ({
        id: `line ${also ? 'also ' : ''}${typed}`,
        kind: 'line',
        name: meaning,
        also: exact ? [wanted] : [],
        note: what ? `${what} · ${typed}` : typed,
        count,
        alike: alike === true,
        act: () =>
          void take(typed, also === true).catch((failure: unknown) =>
            toast.error((failure as Error).message),
          ),
      }),
    ),
    ...(wanted === '' || !found ? [] : foundEntries(found, { text: wanted, navigate, show, put })),
    ...(named === '' ? [] : (found?.lists ?? []).flatMap(putEntries)),
  ];
  const groups = groupEntries(entries, wanted);
  // What was found of an earlier text stays in sight until that of this one comes, and is not taken for it.
  const stale = wanted !== '' && (foundBefore || linesBefore);
  const unsure = new Set(
    entries
      .filter(({ alike, kind }) => alike || (stale && kind !== 'command' && kind !== 'field'))
      .map(({ id }) => id),
  );
  const first = groups[0]?.entries[0];
  const sure = stale || !first || first.alike ? null : first;
  /** Whether Enter was pressed on a text before what it means had come. */
  const asked = useRef(false);
  const go = (act: () => void) => {
    try {
      act();
    } catch (failure) {
      toast.error((failure as Error).message);
    }
    onClose();
  };
  const held = unsure.has(selected) && !moved ? NONE + wanted : selected;
  const selectedEntry = entries.find(({ id }) => id === held);
  useEffect(() => {
    if (moved || sure === null || !held.startsWith(NONE)) return;
    if (asked.current) go(sure.act);
    else setSelected(sure.id);
  });
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find a company, condition, tape, list or command"
      shouldFilter={false}
      value={held}
      onValueChange={(value) => setSelected(unsure.has(value) && !movedNow.current ? noneNow() : value)}
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown' || event.key === 'ArrowUp') move(true);
        if (event.key === 'Enter' && !selectedEntry && stale) asked.current = true;
        if (event.key !== 'Enter' || !event.altKey || !selectedEntry?.list) return;
        event.preventDefault();
        selectedEntry.list();
        onClose();
      }}
      overlayClassName="fixed inset-0 z-40 bg-shade"
      contentClassName="fixed top-20 left-1/2 z-50 w-[620px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-lg border border-edge bg-paper shadow-xl"
    >
      <Command.Input
        value={text}
        onValueChange={(value) => {
          move(false);
          asked.current = false;
          setText(value);
        }}
        placeholder="A company, a trade, a code, a place, a tape, a list, a command"
        className="w-full border-b border-rule bg-transparent px-4 py-3 text-base outline-none placeholder:text-soft"
      />
      <Command.List
        className="max-h-[60vh] overflow-auto py-2 [&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft"
        onPointerMove={() => move(true)}
      >
        <Command.Empty className="px-4 py-3 text-soft">Nothing of that name.</Command.Empty>
        {groups.map(({ heading, entries: own }) => (
          <Command.Group key={heading} heading={heading}>
            {own.map(({ id, name, note, count, act, list }) => (
              <Command.Item
                key={id}
                value={id}
                className="flex cursor-pointer items-baseline gap-3 px-4 py-1.5 data-[selected=true]:bg-picked"
                onSelect={() => go(act)}
              >
                <span className="min-w-0 truncate font-semibold">{name}</span>
                {note && <span className="min-w-0 flex-1 truncate text-[13px] text-soft">{note}</span>}
                {count !== undefined && (
                  <span className="figure ml-auto text-[13px]">{format.number(count)}</span>
                )}
                {list && id === held && (
                  <span className="ml-auto shrink-0 text-[12px] text-soft">
                    on a list <Kbd>Alt Enter</Kbd>
                  </span>
                )}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}

type Navigate = ReturnType<typeof useNavigate>;

function commands(navigate: Navigate): JumpEntry[] {
  const command = (name: string, act: () => unknown, also: readonly string[] = []): JumpEntry => ({
    id: `command ${name}`,
    kind: 'command',
    name,
    also,
    act: () => void act(),
  });
  return [
    command('Desk', () => navigate(addressOf(useDesk.getState()))),
    command('Lists', () => navigate('/lists')),
    command('Outreach', () => navigate('/outreach'), ['campaigns', 'write to people']),
    command('Replies', () => navigate('/outreach?part=replies')),
    command('Outbox', () => navigate('/outreach?part=outbox')),
    command('How titles are read', () => navigate('/titles'), ['titles', 'department and level of a title']),
    command('Gather', () => navigate('/gather')),
    command('Exports', () => navigate('/exports')),
    command('Sources', () => navigate('/sources')),
    command('Settings', () => navigate('/settings')),
    ...[...SUBJECTS.values()].map(({ id, many }) =>
      command(`Turn the tape round to ${many}`, () => {
        turnTo(id);
        return navigate(addressOf(useDesk.getState()));
      }),
    ),
    command(
      'New tape',
      () => navigate(addressOf({ tape: emptyTape(), sort: [], openLine: null, company: null })),
      ['empty tape'],
    ),
  ];
}

/** Opens the picker of a condition that has no line yet. */
function openPicker(navigate: Navigate, field: string): void {
  void navigate(addressOf({ ...useDesk.getState(), company: null, openLine: `new:${field}` }));
}

/** Conditions of a subject with a name that begins with a text. */
function fieldsNamed(text: string, subject: string, open: (field: string) => void): JumpEntry[] {
  const wanted = fold(text);
  return lineFields(subject)
    .filter(({ label, openers }) => [label, ...openers].some((name) => fold(name).startsWith(wanted)))
    .slice(0, 5)
    .map(({ id, label, openers, meaning }) => ({
      id: `field ${id}`,
      kind: 'field',
      name: label,
      also: openers,
      note: meaning,
      act: () => open(id),
    }));
}

/** What the universe and the workspace have of a name. */
function foundEntries(
  { companies, more, related, tapes, lists }: JumpAnswer,
  {
    text,
    navigate,
    show,
    put,
  }: {
    text: string;
    navigate: Navigate;
    show(tape: Tape, sort: readonly SortKey[]): void;
    put(change: (tape: Tape) => Tape): void;
  },
): JumpEntry[] {
  const open = (key: string) =>
    void navigate(addressOf({ ...useDesk.getState(), company: key, openLine: null }));
  return [
    ...companies.map(({ key, name, town, country }): JumpEntry => ({
      id: `company ${key}`,
      kind: 'company',
      name,
      note: [town, country].filter(Boolean).join(', '),
      act: () => open(key),
      list: () => putOneOnList('companies', key),
    })),
    ...(more
      ? [
          {
            id: 'company more',
            kind: 'company',
            name: 'More with such a name',
            note: `a line on the words ${text} in the name`,
            act: () =>
              put((tape) =>
                putPart(tape, {
                  subject: 'companies',
                  lines: [{ id: '', field: 'words', test: { text: wordsFor(text), in: 'name' } }],
                }),
              ),
          } satisfies JumpEntry,
        ]
      : []),
    ...related.map(({ subject, key, name, about }): JumpEntry => ({
      id: `related ${key}`,
      kind: 'related',
      name,
      note: [subjectOf(subject).one, about].filter(Boolean).join(', '),
      act: () => open(`${subject}/${key}`),
      list: () => putOneOnList(subject, key),
    })),
    ...tapes.map((saved): JumpEntry => ({
      id: `tape ${saved.id}`,
      kind: 'tape',
      name: saved.name,
      note: saved.kind === 'part' ? 'a part: put on the tape' : 'a tape',
      act: () => {
        const { sort, ...tape } = saved.tape;
        show(saved.kind === 'part' ? putPart(useDesk.getState().tape, saved.tape) : tape, sort ?? []);
      },
    })),
    ...lists.map((list): JumpEntry => ({
      id: `list ${list.key}`,
      kind: 'list',
      name: list.name,
      note: `a list of ${list.members} ${list.subject}, ${list.subject === useDesk.getState().tape.subject ? 'as a line' : 'opened'}`,
      act: () => {
        // Records of another kind are no line of this tape.
        if (list.subject !== useDesk.getState().tape.subject) show(tapeOfList(list), []);
        else
          put((tape) =>
            putPart(tape, {
              subject: list.subject,
              lines: [{ id: '', field: 'list', test: { any: [list.key] } }],
            }),
          );
      },
    })),
  ];
}

/** The words of a text, each as the beginning of one, as the names were looked for. */
function wordsFor(text: string): string {
  return foldedWords(text)
    .map((word) => `${word}*`)
    .join(' ');
}
