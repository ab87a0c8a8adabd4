import { useMutation, useQueryClient } from '@tanstack/react-query';
import { FileUp, Shapes } from 'lucide-react';
import { Link } from 'react-router';
import type { Job } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { JobProgress } from '../ui/JobProgress.tsx';
import { Button, Trouble } from '../ui/controls.tsx';

/** The first sight of an empty workspace: what this is, and the two ways to fill it. */
export function EmptyUniverse() {
  const client = useQueryClient();
  const demo = useMutation({ mutationFn: () => call<{ job: Job }>('POST', '/demo', { companies: 48_000 }) });
  return (
    <main className="min-h-0 flex-1 overflow-auto">
      <div className="mx-auto max-w-3xl px-8 py-14">
        <h1 className="title text-4xl">The universe is empty</h1>
        <p className="mt-3 max-w-xl text-base text-soft">
          Just Tally starts from everybody and ends with a list of companies that somebody will act on. Add a
          condition, read the count, look at who is left, correct the condition. First it needs companies to
          count.
        </p>
        <div className="mt-8 grid grid-cols-2 gap-5 max-[800px]:grid-cols-1">
          <section className="rounded-lg border border-edge bg-paper p-5">
            <FileUp size={22} />
            <h2 className="title mt-2 text-xl">Load a file of your own</h2>
            <p className="mt-1 text-soft">
              A CSV or XLSX with one company a row. Encoding, delimiter, headings and codes are recognised;
              you see how each column is read before anything is kept.
            </p>
            <Link
              to="/sources?load"
              className="mt-4 inline-block rounded-md border border-ink bg-ink px-3 py-1.5 font-semibold text-paper"
            >
              Choose a file
            </Link>
          </section>
          <section className="rounded-lg border border-edge bg-paper p-5">
            <Shapes size={22} />
            <h2 className="title mt-2 text-xl">Make the demo</h2>
            <p className="mt-1 text-soft">
              48,000 made-up companies from three made-up sources that overlap and disagree a little, in real
              towns with real codes. It takes about a quarter of a minute and can be removed again.
            </p>
            {demo.data ? (
              <div className="mt-4">
                <JobProgress id={demo.data.job.id} onDone={() => void client.invalidateQueries()} />
              </div>
            ) : (
              <Button className="mt-4" onClick={() => demo.mutate()} disabled={demo.isPending}>
                Make the demo
              </Button>
            )}
            <Trouble error={demo.error} />
          </section>
        </div>
      </div>
    </main>
  );
}
