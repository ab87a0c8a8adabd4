import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { GathererAnswer, GatherRunAnswer } from '../../contract/gather-views.ts';
import { call } from '../api.ts';
import { undo, useHistory } from '../app/history.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd, Segments, Trouble } from '../ui/controls.tsx';
import { BeforeRun } from './BeforeRun.tsx';
import { RunRoll } from './RunRoll.tsx';
import { RunRows } from './RunRows.tsx';
import { TaughtPage } from './TaughtPage.tsx';
import { useChangeSpec, useGatherer, useLook, useRun } from './use-gather.ts';
import { WordsPlaces } from './WordsPlaces.tsx';

/** One gatherer: its page, on which examples are pointed at, with what comes of it; or a run of it as its rows come. */
export function Teach() {
  const { id } = useParams();
  const { data, error } = useGatherer(id!);
  if (error)
    return (
      <main className="p-5">
        <Trouble error={error} />
        <Link className="mt-3 inline-block underline" to="/gather">
          All gatherers
        </Link>
      </main>
    );
  return data ? <Gatherer key={data.id} gatherer={data} /> : <main className="p-5 text-soft">Looking …</main>;
}

function Gatherer({ gatherer }: { gatherer: GathererAnswer }) {
  const [query, setQuery] = useSearchParams();
  const run = query.get('run') ?? null;
  const shownRun = run ?? (query.has('page') ? null : (gatherer.runs[0]?.id ?? null));
  const { data: ran } = useRun(shownRun);
  const ofSites = Boolean(gatherer.spec.sites);
  const showRows = run !== null || ofSites;
  const navigate = useNavigate();
  const client = useQueryClient();
  const change = useChangeSpec(gatherer);
  const begin = useMutation({
    mutationFn: () => call<GatherRunAnswer>('POST', `/gather/gatherers/${gatherer.id}/runs`),
    onSuccess: async ({ run: made }) => {
      client.setQueryData(['gather run', made.id], { run: made });
      await client.invalidateQueries({ queryKey: ['gatherer', gatherer.id] });
      void navigate(`/gather/${gatherer.id}?run=${made.id}`);
    },
  });
  const [setting, setSetting] = useState(false);
  const detailPage = gatherer.spec.detail?.page ?? null;
  const pageId =
    Number(query.get('page')) || (gatherer.pages.find(({ id }) => id !== detailPage)?.id ?? null);
  const look = useLook(pageId, gatherer.spec);
  const [renaming, setRenaming] = useState(false);
  const taught = ofSites || gatherer.spec.examples.some(({ as }) => as === 'row');
  useKey('w', () => setSetting(true), { off: ofSites });
  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-w-0 flex-1 flex-col px-5 pt-3 pb-2">
        <div className="flex flex-wrap items-center gap-3 border-b border-edge pb-2.5">
          <Link to="/gather" className="text-soft hover:text-ink" title="All gatherers">
            Gather /
          </Link>
          {renaming ? (
            <input
              className="field title w-72 text-[20px]"
              aria-label="Name of the gatherer"
              defaultValue={gatherer.name}
              autoFocus
              maxLength={120}
              onBlur={(event) => {
                setRenaming(false);
                const name = event.target.value.trim();
                if (name && name !== gatherer.name)
                  void change('rename the gatherer', gatherer.spec, name).catch(() => {});
              }}
              onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
            />
          ) : (
            <h1 className="title max-w-96 truncate text-[22px]">
              <button type="button" onClick={() => setRenaming(true)} title="Give it another name">
                {gatherer.name}
              </button>
            </h1>
          )}
          {!ofSites && (
            <Segments
              label="Shown"
              value={showRows ? 'rows' : 'page'}
              options={[
                { key: 'page', label: 'What to read' },
                {
                  key: 'rows',
                  label: 'What was found',
                  ...(shownRun ? {} : { off: 'Nothing has run yet.' }),
                },
              ]}
              onChange={(key) => setQuery(key === 'rows' && shownRun ? { run: shownRun } : {})}
            />
          )}
          <span className="ml-auto flex gap-2">
            <TakeBack />
            {!ofSites && (
              <Button onClick={() => setSetting(true)}>
                Words and places <Kbd>w</Kbd>
              </Button>
            )}
          </span>
        </div>
        <Trouble error={begin.error} />
        {showRows && ran ? (
          <RunRows run={ran.run} />
        ) : ofSites ? (
          <p className="py-4 text-soft">Nothing has been read yet.</p>
        ) : (
          <TaughtPage gatherer={gatherer} pageId={pageId} look={look} onChange={change} />
        )}
      </main>
      {ran ? (
        <RunRoll
          run={ran.run}
          to={`/gather/${gatherer.id}?run=${ran.run.id}`}
          onAgain={taught && !begin.isPending ? () => begin.mutate() : undefined}
        />
      ) : (
        <BeforeRun
          spec={gatherer.spec}
          look={look.data}
          busy={look.isFetching}
          onRun={taught ? () => begin.mutate() : null}
          running={begin.isPending}
        />
      )}
      {setting && (
        <WordsPlaces
          spec={gatherer.spec}
          forms={look.data?.forms ?? []}
          onSave={(spec) => change('words and places', spec)}
          onClose={() => setSetting(false)}
        />
      )}
    </div>
  );
}

function TakeBack() {
  const last = useHistory(({ past }) => past.at(-1));
  return (
    <Button
      look="quiet"
      disabled={!last}
      onClick={() => void undo()}
      aria-label="Undo"
      title={last && `Undo: ${last.name}`}
    >
      <Undo2 size={16} />
    </Button>
  );
}
