import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { JumpAnswer } from '../../contract/responses.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { addLines, freeId } from '../../core/tape/edit.ts';
import { call } from '../api.ts';
import { useDesk } from '../desk/store.ts';
import { addressOf } from '../desk/address.ts';

/** Finds companies, codes and places of the program by typing. */
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
    act();
    onClose();
  };
  const item = 'flex cursor-pointer items-baseline gap-3 px-4 py-1.5 data-[selected=true]:bg-picked';
  const found = text.trim() === '' ? undefined : data;
  const places = (
    [
      ['Desk', () => navigate(addressOf(useDesk.getState()))],
      ['Exports', () => navigate('/exports')],
      ['Sources', () => navigate('/sources')],
      ['Settings', () => navigate('/settings')],
      ['New tape', () => navigate(addressOf({ tape: emptyTape(), sort: [], openLine: null, company: null }))],
    ] as const
  ).filter(([name]) => name.toLowerCase().includes(text.trim().toLowerCase()));
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find a company or code"
      shouldFilter={false}
      overlayClassName="fixed inset-0 z-40 bg-shade"
      contentClassName="fixed top-20 left-1/2 z-50 w-[620px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-lg border border-edge bg-paper shadow-xl"
    >
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="A company’s name, a trade, a code"
        className="w-full border-b border-rule bg-transparent px-4 py-3 text-base outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[60vh] overflow-auto py-2 [&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft">
        <Command.Empty className="px-4 py-3 text-soft">
          {text.trim() === '' ? 'Type a name, a trade or a code.' : 'Nothing of that name.'}
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
        {found && found.codes.length > 0 && (
          <Command.Group heading="Industry codes, as a line">
            {found.codes.map((code) => (
              <Command.Item
                key={code.code}
                value={`code ${code.code}`}
                className={item}
                onSelect={go(() => {
                  const { tape } = useDesk.getState();
                  void navigate(
                    addressOf({
                      tape: addLines(tape, [
                        {
                          id: freeId(tape),
                          field: 'industry',
                          test: { scheme: code.scheme, any: [code.code] },
                        },
                      ]),
                      sort: useDesk.getState().sort,
                      company: null,
                      openLine: null,
                    }),
                  );
                })}
              >
                <span className="figure">{code.code}</span> {code.title}
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
