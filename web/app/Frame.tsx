import clsx from 'clsx';
import { Keyboard, Moon, Search, Settings2, Sun } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { Toaster } from 'sonner';
import { useHealth } from '../desk/queries.ts';
import { usePutting } from '../desk/putting.ts';
import { useDesk } from '../desk/store.ts';
import { addressOf } from '../desk/address.ts';
import { Kbd } from '../ui/controls.tsx';
import { Bell } from '../runs/Bell.tsx';
import { useFormat } from './format.ts';
import { redo, undo } from './history.ts';
import { JumpBox } from './JumpBox.tsx';
import { useKey } from './keys.ts';
import { KeysDialog } from './KeysDialog.tsx';
import { useSaveSettings, useSettings, useTheme } from './settings.ts';

const AddToListDialog = lazy(() =>
  import('../desk/AddToListDialog.tsx').then((module) => ({ default: module.AddToListDialog })),
);

/** The bar with the places, and the place below it. */
export function Frame() {
  useTheme();
  const [jumping, setJumping] = useState(false);
  const [keysShown, setKeysShown] = useState(false);
  const putting = usePutting((state) => state.acted);
  const { data: health } = useHealth();
  const format = useFormat();
  const location = useLocation();
  // Going back to the Desk finds it as it was left.
  const state = useDesk();
  const desk = location.pathname === '/desk' ? '/desk' : addressOf(state);
  useKey('ctrl+k', () => setJumping(true), { everywhere: true });
  useKey('?', () => setKeysShown(true));
  useKey('ctrl+z', () => void undo());
  useKey('ctrl+shift+z', () => void redo());

  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[46px] shrink-0 items-center gap-6 border-b border-edge px-5">
        <NavLink to={desk} className="flex items-center gap-2.5" aria-label="Just Tally: the Desk">
          <TallyMark />
          <span className="title text-[19px] whitespace-nowrap">Just Tally</span>
        </NavLink>
        <nav aria-label="Places" className="flex gap-1">
          <Place to={desk} at="/desk" name="Desk" />
          <Place to="/lists" at="/lists" name="Lists" />
          <Place to="/outreach" at="/outreach" name="Outreach" />
          <Place to="/gather" at="/gather" name="Gather" />
          <Place to="/runs" at="/runs" name="Runs" />
          <Place to="/exports" at="/exports" name="Exports" />
          <Place to="/sources" at="/sources" name="Sources" />
        </nav>
        <button
          type="button"
          onClick={() => setJumping(true)}
          className="field ml-auto flex w-[300px] items-center gap-2 py-1 text-left text-soft hover:border-ink max-[900px]:w-40"
        >
          <Search size={14} />
          <span className="flex-1 truncate">Find a company, code, tape, list</span>
          <Kbd>Ctrl K</Kbd>
        </button>
        <span className="text-[13px] whitespace-nowrap text-soft max-[900px]:hidden">
          {health && `as of ${format.date(health.asOf)}`}
        </span>
        <span className="flex items-center gap-1">
          <Bell />
          <ThemeSwitch />
          <button
            type="button"
            className="rounded p-1.5 text-soft hover:bg-paper hover:text-ink"
            aria-label="Keys"
            title="Keys (?)"
            onClick={() => setKeysShown(true)}
          >
            <Keyboard size={16} />
          </button>
          <NavLink
            to="/settings"
            className="rounded p-1.5 text-soft hover:bg-paper hover:text-ink"
            aria-label="Settings"
            title="Settings"
          >
            <Settings2 size={16} />
          </NavLink>
        </span>
      </header>
      <Outlet />
      {jumping && <JumpBox onClose={() => setJumping(false)} />}
      {putting && (
        <Suspense>
          <AddToListDialog acted={putting} onClose={() => usePutting.setState({ acted: null })} />
        </Suspense>
      )}
      <KeysDialog open={keysShown} onClose={() => setKeysShown(false)} />
      <Toaster
        position="bottom-left"
        // Above the foot of the sheet and its acts.
        offset={{ bottom: 96, left: 24 }}
        style={{ fontFamily: 'inherit' }}
        toastOptions={{
          style: { background: 'var(--ink)', color: 'var(--paper)', border: 'none', fontFamily: 'inherit' },
        }}
      />
    </div>
  );
}

function Place({ to, at, name }: { to: string; at: string; name: string }) {
  const { pathname } = useLocation();
  const here = pathname === at || pathname.startsWith(`${at}/`);
  return (
    <NavLink
      to={to}
      aria-current={here ? 'page' : undefined}
      className={clsx(
        'rounded-md px-3 py-1',
        here
          ? 'border border-edge bg-paper font-semibold'
          : 'border border-transparent text-soft hover:text-ink',
      )}
    >
      {name}
    </NavLink>
  );
}

/** Day or night at once; Settings has "as the system does". */
function ThemeSwitch() {
  const { theme } = useSettings();
  const save = useSaveSettings();
  const night =
    theme === 'night' || (theme === 'system' && window.matchMedia('(prefers-color-scheme: dark)').matches);
  return (
    <button
      type="button"
      className="rounded p-1.5 text-soft hover:bg-paper hover:text-ink"
      aria-label={night ? 'Day' : 'Night'}
      title={night ? 'Day' : 'Night'}
      onClick={() => void save({ theme: night ? 'day' : 'night' })}
    >
      {night ? <Sun size={16} /> : <Moon size={16} />}
    </button>
  );
}

function TallyMark() {
  return (
    <svg viewBox="0 0 24 24" className="size-6" fill="none" strokeLinecap="round" aria-hidden="true">
      <path d="M5 4v16M9.5 4v16M14 4v16M18.5 4v16" stroke="var(--ink)" strokeWidth="2.2" />
      <path d="M1.8 16.5 22.2 7.5" stroke="var(--cut)" strokeWidth="2.4" />
    </svg>
  );
}
