import { Popover } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { Bell as BellIcon } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useNotices } from './use-runs.ts';
import { dayHere, timeWords } from './words.ts';

/** Items of a notice that are shown at once. */
const SHOWN = 4;

/** The bell in the bar, with how much is unread; pressed, it says what there is to tell, each with why. */
export function Bell() {
  const format = useFormat();
  const client = useQueryClient();
  const { data } = useNotices();
  const [open, setOpen] = useState(false);
  const unread = data?.unread ?? 0;
  const read = async (ids?: string[]) => {
    await call('POST', '/notices/read', ids ? { ids } : {}).catch(() => {});
    void client.invalidateQueries({ queryKey: ['notices'] });
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="relative rounded p-1.5 text-soft hover:bg-paper hover:text-ink"
        aria-label={unread ? `What there is to tell: ${unread} unread` : 'What there is to tell'}
        title="What there is to tell"
      >
        <BellIcon size={16} />
        {unread > 0 && (
          <span className="figure absolute -top-0.5 -right-1 min-w-4 rounded-full bg-ink px-1 text-center text-[10px] leading-4 font-semibold text-paper">
            {unread > 99 ? '99+' : unread}
          </span>
        )}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="What there is to tell"
          className="z-40 flex max-h-[70vh] w-[420px] max-w-[94vw] flex-col rounded-lg border border-edge bg-paper shadow-xl"
        >
          <div className="flex items-baseline gap-3 border-b border-rule px-4 py-2">
            <h2 className="title flex-1 text-[17px]">What there is to tell</h2>
            {unread > 0 && (
              <button
                type="button"
                className="text-[13px] text-soft underline underline-offset-4 hover:text-ink"
                onClick={() => void read()}
              >
                all read
              </button>
            )}
            <Link
              to="/runs?tab=watches"
              className="text-[13px] text-soft underline underline-offset-4 hover:text-ink"
              onClick={() => setOpen(false)}
            >
              how I am told
            </Link>
          </div>
          <ul className="min-h-0 overflow-y-auto" aria-label="Notices">
            {data?.notices.length === 0 && (
              <li className="px-4 py-4 text-soft">
                Nothing yet. Watch a company, a person or a list, or say of a run that you want to be told.
              </li>
            )}
            {data?.notices.map(({ id, at, title, why, items, link, read: seen, trouble, kind }) => (
              <li key={id} className={`border-b border-rule px-4 py-2 ${seen ? '' : 'bg-picked'}`}>
                <Link
                  to={link}
                  className={`font-semibold hover:underline ${kind === 'failure' ? 'text-cut' : ''}`}
                  onClick={() => {
                    setOpen(false);
                    void read([id]);
                  }}
                >
                  {title}
                </Link>
                {items.length > 0 && items[0] !== title && (
                  <ul className="mt-0.5 text-[13px]">
                    {items.slice(0, SHOWN).map((item) => (
                      <li key={item} className="truncate" title={item}>
                        {item}
                      </li>
                    ))}
                    {items.length > SHOWN && (
                      <li className="text-soft">and {format.number(items.length - SHOWN)} more</li>
                    )}
                  </ul>
                )}
                {trouble && <p className="text-[13px] text-cut">{trouble}</p>}
                <p className="text-[12px] text-soft">
                  {format.date(dayHere(at))} {timeWords(at)} · {why}
                </p>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
