import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { CheckAnswer, CheckedMember } from '../../../contract/checks.ts';
import type { RowsAnswer } from '../../../contract/responses.ts';
import type { CodeCell, PlaceCell, Row } from '../../../core/cells.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import { emptyTape, isBlock, isHas, isLive, type CodesTest, type Line } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { WebAddress } from '../../profile/WebAddress.tsx';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { VerdictButtons } from '../../lists/review/VerdictButtons.tsx';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { Cell } from '../sheet/Cell.tsx';
import { columnOf } from '../sheet/columns.ts';

const HEAD = [
  'name',
  'place',
  'founded',
  'status',
  'description',
  'web',
  'site-state',
  'site-moved-to',
  'site-checked',
];

const LABELS = { in: 'Fits', out: 'Does not', unsure: 'Cannot tell' };

/** One record of the sample, large and plain: what it is, why it is here, and the question. */
export function CheckCard({
  answer,
  member,
  place,
  noting,
  onNoting,
  onNote,
  onGive,
  onOpen,
}: {
  answer: CheckAnswer;
  member: CheckedMember;
  place: number;
  noting: boolean;
  onNoting(noting: boolean): void;
  onNote(note: string): void;
  onGive(verdict: 'in' | 'out' | 'unsure'): void;
  onOpen(): void;
}) {
  const format = useFormat();
  const link = useRef<HTMLAnchorElement>(null);
  useKey('w', () => link.current?.click());
  const { check, strata, members } = answer;
  const bare = emptyTape(check.subject);
  const { data: tally } = useTally();
  const words = new Map(tally?.lines.map((line) => [line.id, line.words]));
  const lines = check.tape.lines.filter(isLive);
  const fields = lines.flatMap((line) => (isBlock(line) || isHas(line) ? [] : [line.field]));
  const columns = [...new Set([...HEAD, ...fields])].filter((id) => fieldOf(check.subject, id)?.column);
  const { data, error } = useQuery({
    queryKey: ['rows', 'checked', check.subject, member.key, columns],
    queryFn: ({ signal }) =>
      call<RowsAnswer>('POST', '/rows', { tape: bare, columns, keys: [member.key], limit: 1 }, signal),
    retry: false,
  });
  const row = data?.rows[0];
  const cells = row?.cells ?? {};
  const home = cells.place as PlaceCell | null | undefined;
  const web = cells.web as string | null | undefined;
  const stratum = strata.find(({ key }) => key === member.stratum);
  return (
    <article className="flex max-h-full min-h-0 min-w-0 flex-col self-start rounded-md border border-edge bg-paper">
      <div className="min-h-0 flex-1 overflow-y-auto px-5 pt-4 pb-3">
        <p className="flex items-baseline justify-between text-[13px] text-soft">
          <span>
            number <span className="figure font-semibold text-ink">{place + 1}</span> of{' '}
            <span className="figure font-semibold text-ink">{members.length}</span>
            {check.by && stratum && `, drawn for ${stratum.label}`}
          </span>
          <Button look="quiet" onClick={onOpen}>
            Open its page <Kbd>Enter</Kbd>
          </Button>
        </p>
        <Trouble error={error} />
        <h2 className="title mt-2 text-[24px] break-words">{(cells.name as string | null) ?? member.key}</h2>
        <p className="text-soft">
          {[
            [home?.town, home?.region, home?.countryName].filter(Boolean).join(', '),
            cells.founded != null && `since ${cells.founded as number}`,
            cells.status as string | null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        {columns.includes('description') && row && (
          <p className="mt-1.5">
            {(cells.description as string | null) ?? (
              <span className="text-soft italic">No description recorded.</span>
            )}
          </p>
        )}
        <h3 className="title mt-4 border-b border-edge pb-1 text-[15px]">Why it is here</h3>
        <dl className="text-[14px]">
          {lines.map((line) => {
            const column = isBlock(line) || isHas(line) ? null : columnOf(bare, line.field);
            return (
              <div key={line.id} className="grid grid-cols-[116px_1fr] gap-3 border-b border-rule py-1.5">
                <dt className="font-semibold">
                  {line.not && <span className="text-cut">not </span>}
                  {words.get(line.id)?.label ?? (isBlock(line) ? 'Either' : '')}
                  {column?.field?.kind === 'money' && `, ${format.symbol}k`}
                </dt>
                <dd className="min-w-0">
                  {column && row ? (
                    <Cell column={column} row={matched(row, line)} format={format} />
                  ) : (
                    words.get(line.id)?.text
                  )}
                </dd>
              </div>
            );
          })}
          {web !== undefined && (
            <div className="grid grid-cols-[116px_1fr] gap-3 py-1.5">
              <dt>Web</dt>
              <dd>
                <WebAddress link={link} cells={cells} />
              </dd>
            </div>
          )}
        </dl>
        {member.note && !noting && (
          <p className="mt-2 text-[13px] whitespace-pre-wrap">Note: {member.note}</p>
        )}
        {noting && <NoteForm note={member.note ?? ''} onNote={onNote} onClose={() => onNoting(false)} />}
      </div>
      <div className="border-t-3 border-double border-ink px-5 pt-3 pb-4">
        <h3 className="title text-[18px]">Does it fit?</h3>
        <div className="mt-2 grid grid-cols-3 gap-2">
          <VerdictButtons labels={LABELS} given={member.verdict} onGive={onGive} />
        </div>
      </div>
    </article>
  );
}

/** A row whose codes begin with the one that passed the line. */
function matched(row: Row, line: Line): Row {
  if (isBlock(line) || isHas(line) || fieldOf('companies', line.field)?.kind !== 'codes') return row;
  const codes = row.cells[line.field] as CodeCell[] | null;
  const { any } = line.test as CodesTest;
  const hit = codes?.find(({ code }) => any.some((one) => code.startsWith(one)));
  return hit ? { ...row, cells: { ...row.cells, [line.field]: [hit] } } : row;
}

function NoteForm({ note, onNote, onClose }: { note: string; onNote(note: string): void; onClose(): void }) {
  const [text, setText] = useState(note);
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onNote(text.trim());
        onClose();
      }}
    >
      <input
        autoFocus
        aria-label="Note"
        maxLength={2000}
        value={text}
        className="field flex-1 py-1"
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && onClose()}
      />
      <Button type="submit" look="ink">
        Keep
      </Button>
    </form>
  );
}
