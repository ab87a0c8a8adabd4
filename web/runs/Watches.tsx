import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { NoticesAnswer, WatchView } from '../../contract/runs.ts';
import { HAPPENING_WORDS } from '../../core/runs/happenings.ts';
import { fold } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { said } from '../app/history.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { RATE_WORDS } from './TellFields.tsx';
import { useNotices, useWatches } from './use-runs.ts';
import { WatchDialog } from './WatchDialog.tsx';

type By = 'name' | 'subject' | 'rate' | 'madeAt';

/** What is watched, and how one is told. */
export function Watches({ words }: { words: string }) {
  const format = useFormat();
  const { data, error } = useWatches();
  const notices = useNotices();
  const [editing, setEditing] = useState<WatchView | null>(null);
  const shown = (data ?? []).filter(({ name }) => fold(name).includes(fold(words)));
  const { sorted, order, setOrder } = useOrder<By, WatchView>(shown, { by: 'name', descending: false });
  return (
    <>
      <Trouble error={error ?? notices.error} />
      {data?.length === 0 && (
        <p className="py-4 text-soft">
          Nothing is watched yet. On a company, a person, a list or a tape that runs, “Watch” tells you when
          something happens.
        </p>
      )}
      {sorted.length > 0 && (
        <table className="w-full" aria-label="What is watched">
          <thead className="border-b border-edge text-[13px]">
            <tr>
              <SortHead by="name" label="Watched" order={order} onOrder={setOrder} />
              <SortHead by="subject" label="Among" order={order} onOrder={setOrder} />
              <th className="py-2 pr-5 text-left font-semibold">Of what</th>
              <SortHead by="rate" label="Told" order={order} onOrder={setOrder} />
              <SortHead by="madeAt" label="Since" order={order} onOrder={setOrder} />
              <td />
            </tr>
          </thead>
          <tbody>
            {sorted.map((watch) => (
              <tr key={watch.id} className="border-b border-rule align-top">
                <td className="max-w-0 w-[24%] truncate py-1.5 pr-4 pl-1 font-semibold" title={watch.name}>
                  <Link
                    className="hover:underline"
                    to={`/watched/${watch.subject}/${encodeURIComponent(watch.key)}`}
                  >
                    {watch.name}
                  </Link>
                </td>
                <td className="py-1.5 pr-4 text-soft">{watch.subject}</td>
                <td className="py-1.5 pr-4 text-[13px]">
                  {watch.kinds
                    .map((kind) =>
                      kind === 'growth'
                        ? `growth beyond ${format.number(watch.growth ?? 0)} %`
                        : HAPPENING_WORDS[kind].label,
                    )
                    .join(', ')}
                </td>
                <td className="py-1.5 pr-4 whitespace-nowrap">{RATE_WORDS[watch.rate]}</td>
                <td className="figure py-1.5 pr-4 whitespace-nowrap">
                  {format.date(watch.madeAt.slice(0, 10))}
                </td>
                <td className="py-1 pr-1 text-right">
                  <Button look="quiet" onClick={() => setEditing(watch)}>
                    Change
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {notices.data && <HowTold key={JSON.stringify(notices.data.settings)} {...notices.data} />}
      {editing && <WatchDialog of={editing} onClose={() => setEditing(null)} />}
    </>
  );
}

function HowTold({ settings, feed }: Pick<NoticesAnswer, 'settings' | 'feed'>) {
  const client = useQueryClient();
  const [mail, setMail] = useState(settings.mail);
  const [hour, setHour] = useState(settings.hour);
  const [error, setError] = useState<Error | null>(null);
  const save = async () => {
    try {
      await call('PUT', '/notices/settings', { mail: mail.trim(), hour });
      setError(null);
      said('Saved how you are told');
      void client.invalidateQueries({ queryKey: ['notices'] });
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <section className="mt-6 border-t border-edge pt-3" aria-label="How I am told">
      <h2 className="title text-[17px]">How I am told</h2>
      <form
        className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="flex items-center gap-2">
          mails go to
          <input
            className="field w-64 py-1"
            type="text"
            value={mail}
            onChange={(event) => setMail(event.target.value)}
          />
        </label>
        <label className="flex items-center gap-2">
          digests at
          <select
            className="field py-1"
            value={hour}
            onChange={(event) => setHour(Number(event.target.value))}
          >
            {Array.from({ length: 24 }, (_, at) => (
              <option key={at} value={at}>
                {at}:00
              </option>
            ))}
          </select>
        </label>
        <Button type="submit">Save</Button>
      </form>
      <Trouble error={error} />
      <p className="mt-2 text-[13px] text-soft">
        Once a week is on Mondays. Readers of feeds find what goes there under{' '}
        <a className="figure break-all text-ink underline" href={feed}>
          {new URL(feed, location.href).href}
        </a>
        . Mails go out by the server that is set under Outreach; without one, the stand-in of this machine
        takes them.
      </p>
    </section>
  );
}
