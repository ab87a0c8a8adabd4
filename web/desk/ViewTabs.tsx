import clsx from 'clsx';
import { useDesk, type View } from './store.ts';

const VIEWS: readonly { key: View; label: string; digit: string }[] = [
  { key: 'sheet', label: 'Sheet', digit: '1' },
  { key: 'breakdown', label: 'Breakdown', digit: '2' },
  { key: 'map', label: 'Map', digit: '3' },
  { key: 'check', label: 'Spot check', digit: '4' },
];

/** Ways to look at who is left. */
export function ViewTabs() {
  const view = useDesk((state) => state.view);
  const { set } = useDesk.getState();
  return (
    <nav aria-label="Views" className="flex shrink-0 gap-1 text-[13px]">
      {VIEWS.map(({ key, label, digit }) => (
        <button
          key={key}
          type="button"
          aria-current={view === key ? 'page' : undefined}
          title={`${label} (${digit})`}
          className={clsx(
            'border-b-[3px] px-1.5 pt-1 pb-0.5 whitespace-nowrap',
            view === key ? 'border-ink font-semibold' : 'border-transparent text-soft hover:text-ink',
          )}
          onClick={() => set({ view: key })}
        >
          {label}
        </button>
      ))}
    </nav>
  );
}
