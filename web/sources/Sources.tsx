import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, ListChecks, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Job, JobAnswer, SourceView } from '../../contract/responses.ts';
import { JOBS_BESIDE } from '../../core/jobs-beside.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';
import { LoadFile } from './LoadFile.tsx';
import { AddressBook } from './AddressBook.tsx';
import { RefreshPlace } from './RefreshPlace.tsx';
import { CleanAddresses } from './CleanAddresses.tsx';
import { CoveragePlace } from './CoveragePlace.tsx';
import { WinsPlace } from './WinsPlace.tsx';
import { LoadResult } from './LoadResult.tsx';
import { Doubles } from './match/Doubles.tsx';
import { Matches } from './match/Matches.tsx';
import { MatchPlace } from './match/MatchPlace.tsx';

/** The loaded files and databases: what they are, how much of them landed, and loading or removing one. */
export function Sources() {
  const format = useFormat();
  const client = useQueryClient();
  const [params, setParams] = useSearchParams();
  const [removing, setRemoving] = useState<SourceView | null>(null);
  const [cleaning, setCleaning] = useState(false);
  const load = params.get('load');
  const match = params.get('match');
  /** A file to be loaded that was made here. */
  const [given, setGiven] = useState<File | null>(null);
  const { data, error } = useQuery({
    queryKey: ['sources'],
    queryFn: ({ signal }) => call<{ sources: SourceView[] }>('GET', '/sources', undefined, signal),
  });
  const { data: jobs } = useQuery({
    queryKey: ['jobs'],
    queryFn: ({ signal }) => call<{ jobs: Job[] }>('GET', '/jobs', undefined, signal),
  });
  const refresh = () =>
    void client.invalidateQueries({
      predicate: (query) => query.queryKey[0] !== 'job' && query.queryKey[0] !== 'settings',
    });
  const remove = useMutation({
    mutationFn: (key: string) => call<{ job: Job }>('DELETE', `/sources/${key}`),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const demo = useMutation({
    mutationFn: () => call<{ job: Job }>('POST', '/demo', { companies: 48_000 }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const {
    sorted: sources,
    order,
    setOrder,
  } = useOrder<'name' | 'asOf' | 'companies' | 'rowsRead', SourceView>(data?.sources ?? [], {
    by: 'companies',
    descending: true,
  });
  const writing = (jobs?.jobs ?? []).filter((job) => job.kind !== 'export' && job.kind !== 'correct');
  const going = writing.filter((job) => job.state === 'running');
  const running = going.filter((job) => !JOBS_BESIDE.has(job.kind));
  const ofCompanies = (data?.sources ?? []).filter(({ subject }) => subject === 'companies').length;
  const hasDemo = data?.sources.some((source) => source.licence === 'made up for the demo');
  const changes = data?.sources.find(({ key }) => key === params.get('changes'));
  if (changes?.refreshed)
    return <RefreshPlace source={changes} refreshed={changes.refreshed} onLeave={() => setParams({})} />;
  if (params.has('wins')) return <WinsPlace onLeave={() => setParams({})} />;
  if (params.has('coverage'))
    return <CoveragePlace sources={data?.sources ?? []} onLeave={() => setParams({})} />;
  if (match !== null)
    return (
      <MatchPlace
        key={match}
        id={match}
        onLeave={() => setParams({})}
        onLoad={(file) => {
          setGiven(file);
          setParams({ load: '' });
        }}
      />
    );
  if (load !== null)
    return (
      <LoadFile
        use={load === 'match' ? 'match' : 'source'}
        given={given}
        onLeave={() => {
          setGiven(null);
          setParams({});
        }}
        onStarted={() => {
          setGiven(null);
          setParams({});
          void client.invalidateQueries({ queryKey: ['jobs'] });
        }}
        onMatched={(id) => setParams({ match: id })}
      />
    );
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      <div className="flex items-center gap-4">
        <h1 className="title text-[25px]">Sources</h1>
        <p className="text-soft">
          The universe is made of these; records of an equal country and registration number, or of an equal
          name and domain, are one company, and doubles that were joined.
        </p>
        <span className="ml-auto flex gap-2">
          {data && !hasDemo && (
            <Button onClick={() => demo.mutate()} disabled={running.length > 0}>
              Make the demo
            </Button>
          )}
          {ofCompanies > 0 && (
            <>
              <Button onClick={() => setParams({ coverage: '' })}>What each knows</Button>
              {ofCompanies > 1 && <Button onClick={() => setParams({ wins: '' })}>Which wins</Button>}
            </>
          )}
          <Button onClick={() => setCleaning(true)}>Clean addresses</Button>
          <Button onClick={() => setParams({ load: 'match' })}>
            <ListChecks size={15} /> Match a file
          </Button>
          <Button
            look="ink"
            onClick={() => setParams({ load: '' })}
            disabled={running.length > 0}
            title={running.length ? 'Another load is running' : undefined}
          >
            <FileUp size={15} /> Load a file
          </Button>
        </span>
      </div>
      {cleaning && (
        <CleanAddresses
          onClose={() => setCleaning(false)}
          onMatch={(file) => {
            setCleaning(false);
            setGiven(file);
            setParams({ load: 'match' });
          }}
        />
      )}
      <Trouble error={error ?? remove.error ?? demo.error} />
      {going.map((job) => (
        <section key={job.id} className="mt-4 rounded-lg border border-edge bg-paper p-4">
          <h2 className="pb-2 font-semibold">{job.title}</h2>
          <JobProgress id={job.id} onDone={refresh} />
        </section>
      ))}
      {sources.length > 0 && (
        <table className="mt-5 w-full">
          <thead className="border-b border-edge text-[13px]">
            <tr>
              <SortHead by="name" label="Source" order={order} onOrder={setOrder} />
              <SortHead by="companies" label="Holds" order={order} onOrder={setOrder} right />
              <SortHead by="rowsRead" label="Rows" order={order} onOrder={setOrder} right />
              <SortHead by="asOf" label="As of" order={order} onOrder={setOrder} />
              <th className="py-2 pr-6 text-left font-semibold">Countries</th>
              <th className="py-2 pr-6 text-left font-semibold">Licence</th>
              <th>
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sources.map((source) => (
              <tr key={source.key} className="border-b border-rule align-top">
                <td className="py-3 pr-6">
                  <strong>{source.name}</strong>
                  <span className="block text-[12px] text-soft">{source.fileName ?? 'made by the demo'}</span>
                  {source.refreshed && (
                    <Link
                      to={`/sources?changes=${encodeURIComponent(source.key)}`}
                      className="block text-[12px] underline underline-offset-2"
                    >
                      newer version: <span className="figure">{format.number(source.refreshed.added)}</span>{' '}
                      new, <span className="figure">{format.number(source.refreshed.changed)}</span> changed,{' '}
                      <span className="figure">{format.number(source.refreshed.gone)}</span> gone
                    </Link>
                  )}
                </td>
                <td className="figure py-3 pr-6 text-right">
                  {source.subject === 'companies' ? format.number(source.companies) : ''}{' '}
                  <span className="font-sans text-[13px] text-soft">{source.subject}</span>
                </td>
                <td className="figure py-3 pr-6 text-right">
                  {format.number(source.rowsRead)}
                  {source.rowsRefused > 0 && (
                    <span className="block text-[12px] text-cut">
                      {format.number(source.rowsRefused)} refused
                    </span>
                  )}
                </td>
                <td className="py-3 pr-6 whitespace-nowrap">{format.date(source.asOf)}</td>
                <td className="max-w-sm py-3 pr-6 text-[13px]">
                  {source.countries.slice(0, 6).map(({ country, companies }) => (
                    <span key={country} className="mr-3 inline-block">
                      {country || 'unknown'}{' '}
                      <span className="figure text-soft">{format.number(companies)}</span>
                    </span>
                  ))}
                  {source.countries.length > 6 && (
                    <span className="text-soft">and {source.countries.length - 6} more</span>
                  )}
                </td>
                <td className="py-3 pr-6 text-[13px]">
                  {source.licence ?? <span className="text-soft italic">not stated</span>}
                </td>
                <td className="py-2.5 text-right">
                  <Button
                    look="quiet"
                    aria-label={`Remove ${source.name}`}
                    title="Take it out of the universe"
                    disabled={running.length > 0}
                    onClick={() => setRemoving(source)}
                  >
                    <Trash2 size={15} />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {data && sources.length === 0 && running.length === 0 && (
        <p className="mt-8 rounded-lg border border-dashed border-edge p-8 text-center text-soft">
          Nothing is loaded yet. Load a CSV or XLSX of companies, or make the demo.
        </p>
      )}
      <Matches />
      {jobs && <Doubles jobs={jobs.jobs} />}
      <AddressBook />
      {writing.some((job) => job.state !== 'running') && (
        <section className="mt-8">
          <h2 className="title border-b border-edge pb-1 text-[17px]">Lately</h2>
          <ul>
            {writing
              .filter((job) => job.state !== 'running')
              .slice(0, 8)
              .map((job) => (
                <JobRow key={job.id} job={job} />
              ))}
          </ul>
        </section>
      )}
      <RemoveDialog
        name={removing?.name ?? null}
        onClose={() => setRemoving(null)}
        onRemove={() => remove.mutate(removing!.key)}
      >
        Its <span className="figure">{format.number(removing?.rowsRead ?? 0)}</span> records leave the
        universe. Companies that no other source has leave with them; the others keep what their other sources
        say. Loading the file again brings it back.
      </RemoveDialog>
    </main>
  );
}

function JobRow({ job }: { job: Job }) {
  const [open, setOpen] = useState(false);
  const { data } = useQuery({
    queryKey: ['job', job.id],
    queryFn: ({ signal }) => call<JobAnswer>('GET', `/jobs/${job.id}`, undefined, signal),
  });
  const found = job.result !== null && ('found' in job.result || !!job.result.left || !!job.result.notData);
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-baseline gap-3">
        <strong>{job.title}</strong>
        <span className={job.state === 'failed' ? 'text-cut' : 'text-soft'}>{job.state}</span>
        {job.message && <span className="min-w-0 flex-1 text-[13px] text-soft">{job.message}</span>}
        {(data?.refusals || found) && (
          <Button look="quiet" className="ml-auto underline" onClick={() => setOpen(!open)}>
            {data?.refusals ? 'refused rows' : 'what was found'}
          </Button>
        )}
      </div>
      {open && data && <LoadResult answer={data} />}
    </li>
  );
}
