import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { lazy, Suspense, useState } from 'react';
import { toast } from 'sonner';
import type { AddresseeView, CampaignAnswer } from '../../contract/outreach-views.ts';
import { STEPS, type Step } from '../../core/outreach/steps.ts';
import { spellFunctions } from '../../core/people/functions.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import type { Acted } from '../desk/acted.ts';
import { useOpenTape } from '../desk/open-tape.ts';
import { withoutTape } from '../people/right-people.ts';
import { NO_PICKS, withPicked } from '../desk/picks.ts';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { leaveOut } from './acts.ts';
import { JobButton } from './JobButton.tsx';
import { outreachChanged, PEOPLE_A_PAGE, useAddressees, useWhere } from './use-outreach.ts';
import { STATE_WORDS } from './words.ts';

const AddToListDialog = lazy(() =>
  import('../desk/AddToListDialog.tsx').then((module) => ({ default: module.AddToListDialog })),
);

type By = 'nth' | 'name' | 'companyName' | 'title' | 'certainty' | 'stands' | 'words';

const HEADS: readonly { by: By; label: string; right?: true }[] = [
  { by: 'name', label: 'Person' },
  { by: 'title', label: 'Post' },
  { by: 'companyName', label: 'Company' },
  { by: 'certainty', label: 'Address', right: true },
  { by: 'words', label: 'Words', right: true },
  { by: 'stands', label: 'Today' },
];

const STEP_WORDS: Readonly<Record<Step, string>> = {
  'left-out': 'left out',
  'gone-out': 'in the outbox or gone',
  'no-address': 'no address',
  refuted: 'address came back',
  uncertain: 'address too unsure',
  'opted-out': 'opted out',
  suppressed: 'on a suppression list',
  'written-lately': 'written to lately',
  'same-company': 'second of the company',
  unfilled: 'fields not filled',
  'too-long': 'too long',
  'no-proof': 'names no proof',
  'same-text': 'same wording as others',
  'over-limit': 'over today’s limit',
};

/** Who of a campaign is to be written to, and how each stands; all, or those of one step of the roll. */
export function People({ data }: { data: CampaignAnswer }) {
  const format = useFormat();
  const client = useQueryClient();
  const { step, go } = useWhere();
  const { campaign } = data;
  const [offset, setOffset] = useState(0);
  const [current, setCurrent] = useState<string | null>(null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [listing, setListing] = useState<Acted | null>(null);
  const { data: found, error } = useAddressees(campaign.id, step, offset);
  const rows = (found?.people ?? []).map((one, nth) => ({
    ...one,
    nth,
    stands: one.step === null ? -1 : STEPS.indexOf(one.step),
  }));
  const { sorted, order, setOrder } = useOrder<By, (typeof rows)[number]>(rows, {
    by: 'nth',
    descending: false,
  });
  const at = Math.max(
    0,
    sorted.findIndex(({ person }) => person === current),
  );
  const here = sorted[at];
  const move = (by: number) => {
    const next = sorted[Math.max(0, Math.min(sorted.length - 1, at + by))];
    if (!next) return;
    setCurrent(next.person);
    document.querySelector(`[data-person="${next.person}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  const toggle = (key: string) => {
    const now = new Set(picked);
    if (!now.delete(key)) now.add(key);
    setPicked(now);
  };
  const open = (person: string) => go({ tab: 'messages', person, step: 'chosen' });
  const acted = (): AddresseeView[] =>
    picked.size ? sorted.filter(({ person }) => picked.has(person)) : here ? [here] : [];
  const leave = () => {
    const people = acted().filter(({ state }) => state === 'draft');
    if (people.length === 0) return;
    const out = people.some(({ step: one }) => one !== 'left-out');
    const whom = people.length === 1 ? people[0]!.name : `${people.length} people`;
    leaveOut(
      client,
      campaign.id,
      people.map(({ person }) => person),
      out,
      out ? `Left out ${whom}` : `Took in ${whom} again`,
    ).catch((failure: Error) => toast.error(failure.message));
  };
  const list = () => {
    const keys = acted().map(({ person }) => person);
    if (keys.length === 0) return;
    setListing({
      tape: emptyTape('people'),
      sort: [],
      picks: withPicked(
        NO_PICKS,
        keys.map((key, nth) => ({ key, at: nth })),
        true,
      ),
      one: false,
      count: keys.length,
      gone: 0,
      total: keys.length,
    });
  };
  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('arrowdown', () => move(1));
  useKey('arrowup', () => move(-1));
  useKey('space', () => here && toggle(here.person));
  useKey('enter', () => here && open(here.person));
  useKey('0', leave);
  useKey('s', list);
  const openTape = useOpenTape();
  const openWithout = async () => {
    const path = `/campaigns/${encodeURIComponent(campaign.id)}/without`;
    try {
      const { companies } = await call<{ companies: string[] }>('GET', path);
      openTape(withoutTape(campaign.functions ?? [], companies));
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const label = data.roll.steps.find((one) => one.step === step)?.label;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      {(step !== 'chosen' || campaign.without > 0) && (
        <p className="flex flex-wrap items-baseline gap-x-4 py-1.5 text-[13px]">
          {step !== 'chosen' && (
            <span>
              <strong>{step === 'today' ? 'Go out today' : (label ?? step)}</strong>{' '}
              <Button look="quiet" className="underline" onClick={() => go({ step: 'chosen' })}>
                show all {format.number(campaign.people)}
              </Button>
            </span>
          )}
          {campaign.without > 0 && (
            <span className="text-soft">
              <Button look="quiet" className="px-0 text-[13px] underline" onClick={() => void openWithout()}>
                <span className="figure">{format.number(campaign.without)}</span>
                {campaign.without === 1 ? 'company has' : 'companies have'} nobody
              </Button>{' '}
              who is {spellFunctions(campaign.functions ?? [])}
            </span>
          )}
        </p>
      )}
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-y-auto">
        {found && found.total === 0 && <p className="py-4 text-soft">Nobody stands here.</p>}
        {sorted.length > 0 && (
          <table className="w-full" aria-label="People of the campaign">
            <thead>
              <tr className="border-b border-edge text-[12px]">
                <th className="w-8">
                  <span className="sr-only">Picked</span>
                </th>
                {HEADS.map((head) => (
                  <SortHead key={head.by} {...head} order={order} onOrder={setOrder} />
                ))}
              </tr>
            </thead>
            <tbody>
              {sorted.map((one) => {
                const isHere = one === here;
                return (
                  <tr
                    key={one.person}
                    data-person={one.person}
                    aria-selected={isHere}
                    className={clsx('border-b border-rule', isHere ? 'bg-picked' : 'hover:bg-paper')}
                    onClick={() => setCurrent(one.person)}
                    onDoubleClick={() => open(one.person)}
                  >
                    <td className={clsx('border-l-3 pl-2', isHere ? 'border-ink' : 'border-transparent')}>
                      <input
                        type="checkbox"
                        aria-label={`Pick ${one.name}`}
                        checked={picked.has(one.person)}
                        onClick={(event) => event.stopPropagation()}
                        onChange={() => toggle(one.person)}
                      />
                    </td>
                    <td className="max-w-44 truncate py-1 pr-4">
                      <button
                        type="button"
                        className="max-w-full truncate text-left font-semibold hover:underline"
                        title={`The message to ${one.name}`}
                        onClick={() => open(one.person)}
                      >
                        {one.name}
                      </button>
                    </td>
                    <td className="max-w-40 truncate pr-4 text-[13px]" title={one.title ?? undefined}>
                      {one.title ?? <span className="text-soft">–</span>}
                    </td>
                    <td className="max-w-52 truncate pr-4 text-[13px]" title={one.companyName ?? undefined}>
                      {one.companyName ?? <span className="text-soft">–</span>}
                    </td>
                    <td
                      className="pr-4 text-right text-[13px] whitespace-nowrap"
                      title={one.mail ?? undefined}
                    >
                      {one.mail === null ? (
                        <span className="text-soft">none</span>
                      ) : (
                        <>
                          {one.address} <span className="figure">{one.certainty}</span> %
                        </>
                      )}
                    </td>
                    <td className="figure pr-5 text-right text-[13px]">{format.number(one.words)}</td>
                    <td className="text-[13px] whitespace-nowrap">
                      {one.state !== 'draft' ? (
                        <span className={one.state === 'bounced' ? 'text-cut' : undefined}>
                          {STATE_WORDS[one.state]}
                        </span>
                      ) : one.step ? (
                        <span className="text-cut">{STEP_WORDS[one.step]}</span>
                      ) : (
                        <span className="text-kept">{one.seen ? 'goes out' : 'goes out, to look at'}</span>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
      <footer className="flex items-center gap-3 border-t border-edge py-2 text-[13px]">
        <span>
          <span className="figure font-semibold">{format.number(picked.size)}</span> picked
        </span>
        {picked.size > 0 && (
          <Button look="quiet" onClick={() => setPicked(new Set())}>
            Let go
          </Button>
        )}
        <Button look="quiet" onClick={leave}>
          Leave out or take in <Kbd>0</Kbd>
        </Button>
        <Button look="quiet" onClick={list}>
          To list <Kbd>S</Kbd>
        </Button>
        <JobButton
          path={`/campaigns/${campaign.id}/check`}
          label="Ask their mail hosts"
          body={() => (picked.size ? { people: [...picked] } : {})}
          onDone={({ accepts, refuses, asked }) => {
            void outreachChanged(client);
            toast(
              `Of ${String(asked)} addresses ${String(accepts)} are there, ${String(refuses)} are not; of the others their hosts do not say`,
            );
          }}
        />
        {found && found.total > PEOPLE_A_PAGE && (
          <span className="ml-auto flex items-center gap-1">
            <Button
              look="quiet"
              disabled={offset === 0}
              onClick={() => setOffset(Math.max(0, offset - PEOPLE_A_PAGE))}
            >
              earlier
            </Button>
            <span className="figure">
              {format.number(offset + 1)}–{format.number(Math.min(found.total, offset + PEOPLE_A_PAGE))}
            </span>
            of <span className="figure">{format.number(found.total)}</span>
            <Button
              look="quiet"
              disabled={offset + PEOPLE_A_PAGE >= found.total}
              onClick={() => setOffset(offset + PEOPLE_A_PAGE)}
            >
              further
            </Button>
          </span>
        )}
      </footer>
      {listing && (
        <Suspense>
          <AddToListDialog acted={listing} onClose={() => setListing(null)} />
        </Suspense>
      )}
    </div>
  );
}
