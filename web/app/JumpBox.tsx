import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { JumpAnswer } from '../../contract/responses.ts';
import { SUBJECTS, subjectOf } from '../../core/fields/registry.ts';
import { emptyTape, type FieldLine, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { putPart } from '../../core/tape/edit.ts';
import { call } from '../api.ts';
import { useDesk } from '../desk/store.ts';
import { addressOf } from '../desk/address.ts';
import { turnTo } from '../desk/SubjectMenu.tsx';

const MOST_COMMANDS = 8;

/** A line on companies put on a tape of any subject. */
function putLine(tape: Tape, line: FieldLine): Tape {
  return putPart(tape, { subject: 'companies', lines: [line] });
}

/** Finds companies, people, brands, deals, codes, towns, tapes, lists and places of the program by typing. */
export function JumpBox({ onClose }: { onClose(): void }) {
  const [text, setText] = useState('');
  const navigate = useNavigate();
  const { data } = useQuery({
    queryKey: ['jump', text],
    queryFn: ({ signal }) =>
      call<JumpAnswer>('GET', `/jump?text=${encodeURIComponent(text)}`, undefined, signal),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
  });
  const go = (act: () => void) => () => {
    try {
      act();
    } catch (failure) {
      toast.error((failure as Error).message);
    }
    onClose();
  };
  const show = (tape: Tape, sort: readonly SortKey[]) =>
    void navigate(addressOf({ tape, sort, company: null, openLine: null }));
  const item = 'flex cursor-pointer items-baseline gap-3 px-4 py-1.5 data-[selected=true]:bg-picked';
  const found = text.trim() === '' ? undefined : data;
  const places = (
    [
      ['Desk', () => navigate(addressOf(useDesk.getState()))],
      ['Lists', () => navigate('/lists')],
      ['Exports', () => navigate('/exports')],
      ['Sources', () => navigate('/sources')],
      ['Settings', () => navigate('/settings')],
      ...[...SUBJECTS.values()].map(
        ({ id, many }) =>
          [
            `Turn the tape round to ${many}`,
            () => {
              turnTo(id);
              return navigate(addressOf(useDesk.getState()));
            },
          ] as const,
      ),
      ['New tape', () => navigate(addressOf({ tape: emptyTape(), sort: [], openLine: null, company: null }))],
    ] as const
  )
    .filter(([name]) => name.toLowerCase().includes(text.trim().toLowerCase()))
    .slice(0, MOST_COMMANDS);
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find a company, code, tape or list"
      shouldFilter={false}
      overlayClassName="fixed inset-0 z-40 bg-shade"
      contentClassName="fixed top-20 left-1/2 z-50 w-[620px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-lg border border-edge bg-paper shadow-xl"
    >
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="A company, a trade, a code, a town, a tape, a list"
        className="w-full border-b border-rule bg-transparent px-4 py-3 text-base outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[60vh] overflow-auto py-2 [&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft">
        <Command.Empty className="px-4 py-3 text-soft">
          {text.trim() === ''
            ? 'Type a name, a trade, a code, a town, a tape or a list.'
            : 'Nothing of that name.'}
        </Command.Empty>
        {found && found.companies.length > 0 && (
          <Command.Group heading="Companies">
            {found.companies.map((company) => (
              <Command.Item
                key={company.key}
                value={company.key}
                className={item}
                onSelect={go(
                  () =>
                    void navigate(addressOf({ ...useDesk.getState(), company: company.key, openLine: null })),
                )}
              >
                <span className="font-semibold">{company.name}</span>
                <span className="text-[13px] text-soft">
                  {[company.town, company.country].filter(Boolean).join(', ')}
                </span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {found && found.related.length > 0 && (
          <Command.Group heading="People, brands and deals">
            {found.related.map(({ subject, key, name, about }) => (
              <Command.Item
                key={key}
                value={key}
                className={item}
                onSelect={go(
                  () =>
                    void navigate(
                      addressOf({ ...useDesk.getState(), company: `${subject}/${key}`, openLine: null }),
                    ),
                )}
              >
                <span className="font-semibold">{name}</span>
                <span className="text-[13px] text-soft">
                  {[subjectOf(subject).one, about].filter(Boolean).join(', ')}
                </span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {found && found.codes.length > 0 && (
          <Command.Group heading="Industry codes, as a line">
            {found.codes.map((code) => (
              <Command.Item
                key={code.code}
                value={`code ${code.code}`}
                className={item}
                onSelect={go(() => {
                  const { tape, sort } = useDesk.getState();
                  const test = { scheme: code.scheme, any: [code.code] };
                  show(putLine(tape, { id: '', field: 'industry', test }), sort);
                })}
              >
                <span className="figure">{code.code}</span> {code.title}
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {found && found.towns.length > 0 && (
          <Command.Group heading="Towns, as a line of 40 km around">
            {found.towns.map((town) => (
              <Command.Item
                key={town.key}
                value={`town ${town.key}`}
                className={item}
                onSelect={go(() => {
                  const { tape, sort } = useDesk.getState();
                  const near = { lat: town.lat, lon: town.lon, km: 40, label: town.name };
                  show(putLine(tape, { id: '', field: 'place', test: { near } }), sort);
                })}
              >
                <span className="font-semibold">{town.name}</span>
                <span className="text-[13px] text-soft">{town.key.split(', ').at(-1)}</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {found && found.tapes.length > 0 && (
          <Command.Group heading="Saved tapes and parts">
            {found.tapes.map((saved) => (
              <Command.Item
                key={saved.id}
                value={`tape ${saved.id}`}
                className={item}
                onSelect={go(() => {
                  const { sort, ...tape } = saved.tape;
                  show(
                    saved.kind === 'part' ? putPart(useDesk.getState().tape, saved.tape) : tape,
                    sort ?? [],
                  );
                })}
              >
                <span className="font-semibold">{saved.name}</span>
                <span className="text-[13px] text-soft">
                  {saved.kind === 'part' ? 'a part: put on the tape' : 'a tape'}
                </span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {found && found.lists.length > 0 && (
          <Command.Group heading="Lists, as a line">
            {found.lists.map((list) => (
              <Command.Item
                key={list.key}
                value={`list ${list.key}`}
                className={item}
                onSelect={go(() => {
                  const { tape, sort } = useDesk.getState();
                  show(putLine(tape, { id: '', field: 'list', test: { any: [list.key] } }), sort);
                })}
              >
                <span className="font-semibold">{list.name}</span>
                <span className="text-[13px] text-soft">{list.members} companies</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {places.length > 0 && (
          <Command.Group heading="Go to">
            {places.map(([name, act]) => (
              <Command.Item key={name} value={`go ${name}`} className={item} onSelect={go(() => void act())}>
                {name}
              </Command.Item>
            ))}
          </Command.Group>
        )}
      </Command.List>
    </Command.Dialog>
  );
}
