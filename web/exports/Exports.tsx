import { useSearchParams } from 'react-router';
import { Tabs } from '../ui/Tabs.tsx';
import { HandedOver } from './HandedOver.tsx';
import { OtherPrograms } from './OtherPrograms.tsx';
import { Templates } from './Templates.tsx';

const TABS = [
  ['handed', 'Handed over'],
  ['templates', 'Templates'],
  ['programs', 'Other programs'],
] as const;

/** What was handed over to whom, by which templates, and what other programs are given. */
export function Exports() {
  const [query, setQuery] = useSearchParams();
  const tab = TABS.find(([key]) => key === query.get('tab'))?.[0] ?? 'handed';
  const tabs = (
    <div className="mt-2">
      <Tabs
        label="Exports"
        tabs={TABS}
        current={tab}
        onChange={(key) => setQuery(key === 'handed' ? {} : { tab: key })}
      />
    </div>
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
