import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Globe } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { GatherSpecBody } from '../../contract/gather.ts';
import type { AroundAnswer, GathererAnswer, PageAnswer } from '../../contract/gather-views.ts';
import { headingOf } from '../../core/gather/fields.ts';
import { recorded, stepWords, type Done, type Step } from '../../core/gather/forms.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { ExampleBar, FieldBar, type FieldWish } from './ExampleBar.tsx';
import { PageFrame, type Pointed } from './PageFrame.tsx';
import { TaughtTable } from './TaughtTable.tsx';
import {
  learnedWords,
  marksOf,
  rowAt,
  withAdvert,
  withField,
  withNode,
  withoutExample,
  withoutField,
  withRow,
  type Pointing,
} from './teaching.ts';
import type { useLook } from './use-gather.ts';

const POINTS: readonly { key: Pointing; label: string }[] = [
  { key: 'row', label: 'a row' },
  { key: 'field', label: 'a field of it' },
  { key: 'advert', label: 'an advert' },
  { key: 'next', label: 'the way to the next page' },
  { key: 'step', label: 'what is done before' },
];
const KEY_OF: Readonly<Record<string, Pointing>> = {
  r: 'row',
  f: 'field',
  a: 'advert',
  n: 'next',
  d: 'step',
};

/** The page as it came, what is pointed at on it, and what comes of that. */
export function TaughtPage({
  gatherer,
  pageId,
  look,
  onChange,
}: {
  gatherer: GathererAnswer;
  pageId: number | null;
  look: ReturnType<typeof useLook>;
  onChange(what: string, spec: GatherSpecBody): Promise<void>;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const [, setQuery] = useSearchParams();
  const { spec, pages } = gatherer;
  const page = pages.find(({ id }) => id === pageId) ?? null;
  const [pointing, setPointing] = useState<Pointing>('row');
  const [wish, setWish] = useState<FieldWish | null>(null);
  const [open, setOpen] = useState<{ at: number; around: AroundAnswer | null } | null>(null);
  const [show, setShow] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const isDetail = spec.detail?.page === pageId && pageId !== null;
  const marks = useMemo(
    () =>
      pageId === null || !look.data
        ? []
        : isDetail
          ? spec.detail!.fields.map(({ node, field }) => ({
              nodes: [node],
              kind: 'field' as const,
              label: headingOf(field).toLowerCase(),
            }))
          : marksOf(spec, pageId, look.data),
    [spec, pageId, look.data, isDetail],
  );
  const attempt = (work: Promise<unknown>) => {
    setTrouble(null);
    void work.catch((error: Error) => setTrouble(error));
  };
  const fetchPage = useMutation({
    mutationFn: (wanted: object) =>
      call<PageAnswer>('POST', `/gather/gatherers/${gatherer.id}/pages`, wanted),
    onSuccess: async ({ page: made }) => {
      await client.invalidateQueries({ queryKey: ['gatherer', gatherer.id] });
      setQuery({ page: String(made.id) });
    },
  });

  const ask = (node: number) =>
    call<AroundAnswer>('POST', '/gather/around', {
      ...{ page: pageId, node },
      rows: (look.data?.rows ?? []).slice(0, 500).map((row) => row.node),
    });
  const point = async ({ node, part }: Pointed) => {
    if (pageId === null || !look.data) return;
    const around = await ask(node);
    if (isDetail || pointing === 'field') {
      const row = isDetail ? null : rowAt(look.data, around.choices);
      if (!isDetail && !row) throw new Error('This is in no row that was found. Point at its row first.');
      setWish({ node, part, text: around.text, guess: around.field });
    } else if (pointing === 'row') {
      const next = withRow(spec, pageId, around);
      const chosen = around.choices[around.best]?.node;
      if (next !== spec) await onChange('an example of a row', next);
      const at = next.examples.findIndex((one) => one.page === pageId && one.node === chosen);
      if (at >= 0) setOpen({ at, around });
    } else if (pointing === 'advert') await onChange('an advert', withAdvert(spec, pageId, around));
    else {
      if (around.next === null) throw new Error('This leads to no page.');
      await onChange('the way to the next page', { ...spec, next: { how: 'pointed', page: pageId, node } });
    }
  };
  // What is done comes faster than it is kept: one after the other, each upon what the one before has left.
  const doing = useRef<Promise<unknown>>(Promise.resolve());
  const did = async (done: Done) => {
    if (!look.data || pointing !== 'step') return;
    const now = client.getQueryData<GathererAnswer>(['gatherer', gatherer.id])?.spec ?? spec;
    const search = { word: now.words[0] ?? '', place: now.places[0] ?? '' };
    const steps = recorded(now.steps as Step[], look.data.forms, done, search);
    await onChange('a step before the list', { ...now, steps });
    const buttons = look.data.forms.flatMap((form) => form.buttons);
    if (buttons.some(({ node }) => node === done.node)) fetchPage.mutate(search);
  };
  const takeField = async (fields: string[]) => {
    if (!wish || pageId === null || !look.data) return;
    const { node, part } = wish;
    const taught = fields.map((field) => ({ field, node, ...(part === null ? {} : { part }) }));
    if (isDetail) {
      const others = spec.detail!.fields.filter(({ field }) => !fields.includes(field));
      await onChange('a field of the page', {
        ...spec,
        detail: { page: pageId, fields: [...others, ...taught] },
      });
    } else {
      const around = await ask(node);
      const row = rowAt(look.data, around.choices)!;
      let next = spec;
      taught.forEach((one, i) => {
        const at = row.example ?? (i === 0 ? null : next.examples.length - 1);
        next = withField(next, pageId, { ...row, example: at }, one);
      });
      await onChange('a field of a row', next);
    }
    setWish(null);
  };
  const followPages = async (on: boolean) => {
    if (!on) return onChange('no page of each company', { ...spec, detail: null });
    const first = look.data?.rows.flatMap(({ values }) => values.filter(({ field }) => field === 'page'))[0];
    if (!first)
      throw new Error(
        'No row leads to a page of its company. Point at a link of a row as “page of its own”.',
      );
    const { page: made } = await call<PageAnswer>('POST', `/gather/gatherers/${gatherer.id}/pages`, {
      address: first.value,
    });
    const { guess } = await call<{ guess: { field: string; node: number }[] }>('POST', '/gather/look', {
      page: made.id,
      spec,
    });
    await onChange('the page of each company', { ...spec, detail: { page: made.id, fields: guess } });
    await client.invalidateQueries({ queryKey: ['gatherer', gatherer.id] });
  };
  const follow = useMutation({ mutationFn: followPages });
  const key = (pressed: string) => {
    const wanted = KEY_OF[pressed];
    if (wanted) setPointing(wanted);
    else {
      setWish(null);
      setOpen(null);
    }
  };
  useKey('escape', () => key(''));
  for (const one of Object.keys(KEY_OF))
    // eslint-disable-next-line react-hooks/rules-of-hooks -- the same keys in the same order each time
    useKey(one, () => key(one));
  const example = open === null ? null : (spec.examples[open.at] ?? null);
  const level = open?.around?.choices.findIndex(({ node }) => node === example?.node) ?? -1;
  if (pageId === null || !page)
    return (
      <div className="py-6">
        <p className="text-soft">No page is here to point at yet.</p>
        <Button
          className="mt-2"
          onClick={() => fetchPage.mutate({ word: spec.words[0] ?? '', place: spec.places[0] ?? '' })}
        >
          {fetchPage.isPending ? 'Reading it …' : 'Read the first page'}
        </Button>
        <div className="mt-3">
          <Trouble error={fetchPage.error} />
        </div>
      </div>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
        {isDetail ? (
          <span>I point at what this company’s page says</span>
        ) : (
          <>
            <span className="text-soft">I point at</span>
            <Segments label="I point at" value={pointing} options={POINTS} onChange={setPointing} />
          </>
        )}
        <span className="ml-auto text-[13px] text-soft" role="status">
          {isDetail
            ? `${look.data?.detail.length ?? 0} fields found`
            : pointing === 'step'
              ? spec.steps.map((step) => stepWords(step as Step)).join(', ') ||
                'fill a box of the page, then press its button'
              : learnedWords(look.data)}
        </span>
      </div>
      {(wish || example || trouble || follow.error || fetchPage.error || look.error) && (
        <div className="grid gap-1.5 pb-2">
          {wish && (
            <FieldBar
              key={`${wish.node} ${wish.part}`}
              wish={wish}
              onField={(fields) => attempt(takeField(fields))}
              onClose={() => setWish(null)}
            />
          )}
          {!wish && example && (
            <ExampleBar
              nth={spec.examples.slice(0, open!.at + 1).filter(({ as }) => as === 'row').length}
              example={example}
              look={look.data}
              wider={open?.around?.choices[level + 1] ?? null}
              narrower={level > 0 ? open!.around!.choices[level - 1]! : null}
              onNode={(node) => attempt(onChange('the width of an example', withNode(spec, open!.at, node)))}
              onDropField={(field) =>
                attempt(onChange('a field taken off', withoutField(spec, open!.at, field)))
              }
              onRemove={() => {
                attempt(onChange('an example taken out', withoutExample(spec, open!.at)));
                setOpen(null);
              }}
              onClose={() => setOpen(null)}
            />
          )}
          <Trouble error={trouble ?? follow.error ?? fetchPage.error ?? look.error} />
        </div>
      )}
      <div className="flex min-h-40 flex-[3] flex-col rounded-md border border-edge bg-paper p-2">
        <div className="flex items-center gap-2 px-1 pb-1.5 text-[13px]">
          <Globe size={14} className="shrink-0" />
          <span className="figure min-w-0 flex-1 truncate" title={page.url}>
            {page.url}
          </span>
          <span className="whitespace-nowrap text-soft">
            as it came {format.date(page.fetchedAt.slice(0, 10))}, {page.fetchedAt.slice(11, 16)}; nothing in
            it runs
          </span>
        </div>
        <PageFrame
          page={pageId}
          marks={marks}
          show={show}
          stepping={pointing === 'step'}
          onPoint={(pointed) => attempt(point(pointed))}
          onDid={(done) => attempt((doing.current = doing.current.then(() => did(done))))}
        />
      </div>
      <div className="flex flex-wrap items-baseline gap-x-3 pt-2 pb-0.5">
        <h2 className="title text-[16px]">What comes of it</h2>
        <label className="flex items-center gap-1.5 text-[13px]">
          <input
            type="checkbox"
            checked={follow.isPending ? follow.variables : Boolean(spec.detail)}
            disabled={follow.isPending}
            onChange={(event) => follow.mutate(event.target.checked)}
          />
          open each company’s page, too
        </label>
        {spec.detail && !isDetail && (
          <button
            type="button"
            className="text-[13px] underline underline-offset-4"
            onClick={() => setQuery({ page: String(spec.detail!.page) })}
          >
            see one
          </button>
        )}
        <span className="ml-auto flex items-center gap-2 text-[13px]">
          <select
            className="field max-w-64 py-0.5"
            aria-label="Page shown"
            value={pageId}
            onChange={(event) => setQuery({ page: event.target.value })}
          >
            {pages.map(({ id, url }) => (
              <option key={id} value={id}>
                {url.length > 60 ? `${url.slice(0, 28)} … ${url.slice(-28)}` : url}
              </option>
            ))}
          </select>
          <Button
            look="quiet"
            disabled={!look.data?.next || fetchPage.isPending}
            onClick={() => look.data?.next && fetchPage.mutate({ address: look.data.next })}
          >
            {fetchPage.isPending ? 'Reading …' : 'Read the next page'}
          </Button>
        </span>
      </div>
      {isDetail ? (
        <dl
          className="grid min-h-0 flex-[2] grid-cols-[10rem_1fr] content-start overflow-auto"
          aria-label="What comes of it"
        >
          {look.data?.detail.map(({ field, value }) => (
            <div key={field} className="col-span-2 grid grid-cols-subgrid border-b border-rule py-1">
              <dt className="text-soft">{headingOf(field)}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      ) : (
        <div className="flex min-h-0 flex-[2]">
          {look.data ? (
            <TaughtTable look={look.data} needs={spec.needs} onShow={setShow} />
          ) : (
            !look.error && <p className="py-2 text-soft">Looking …</p>
          )}
        </div>
      )}
    </>
  );
}
