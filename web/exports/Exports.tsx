import clsx from 'clsx';
import { useSearchParams } from 'react-router';
import { HandedOver } from './HandedOver.tsx';
import { OtherPrograms } from './OtherPrograms.tsx';
import { Templates } from './Templates.tsx';

const TABS = [
  ['handed', 'Handed over'],
  ['templates', 'Templates'],
  ['programs', 'Other programs'],
] as const;
type Tab = (typeof TABS)[number][0];

/** What was handed over to whom, by which templates, and what other programs are given. */
export function Exports() {
  const [query, setQuery] = useSearchParams();
  const tab = TABS.find(([key]) => key === query.get('tab'))?.[0] ?? 'handed';
  const tabs = (
    <nav aria-label="Exports" className="mt-2 flex gap-4 border-b border-edge">
      {TABS.map(([key, label]) => (
        <button
          key={key}
          type="button"
          aria-current={tab === key ? 'page' : undefined}
          className={clsx(
            '-mb-px border-b-2 px-0.5 pb-1.5',
            tab === key ? 'border-ink font-semibold' : 'border-transparent text-soft hover:text-ink',
          )}
          onClick={() => setQuery(key === 'handed' ? {} : { tab: key satisfies Tab })}
        >
          {label}
        </button>
      ))}
    </nav>
  );
  const head = (
    <>
      <h1 className="title text-[25px]">Exports</h1>
      {tabs}
    </>
  );
  if (tab === 'templates') return <Templates head={head} />;
  if (tab === 'programs') return <OtherPrograms head={head} />;
  return <HandedOver head={head} />;
}
