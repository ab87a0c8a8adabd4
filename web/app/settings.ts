import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { SETTINGS, type Settings } from '../../core/settings.ts';
import { call } from '../api.ts';
import { record } from './history.ts';

export type { Settings };

/** The workspace's settings; the defaults until they are read. */
export function useSettings(): Settings {
  const { data } = useQuery({
    queryKey: ['settings'],
    queryFn: ({ signal }) => call<Settings>('GET', '/settings', undefined, signal),
    staleTime: Infinity,
  });
  return data ?? SETTINGS;
}

/** Writes changed settings and shows them at once, as a step that can be taken back. */
export function useSaveSettings(): (change: Partial<Settings>) => Promise<void> {
  const client = useQueryClient();
  const now = useSettings();
  return async (change) => {
    const put = async (part: Partial<Settings>) => {
      const saved = await call<Settings>('PATCH', '/settings', part);
      client.setQueryData(['settings'], saved);
      if (part.asOf !== undefined || part.currency !== undefined)
        await client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'settings' });
    };
    const before = Object.fromEntries(
      (Object.keys(change) as (keyof Settings)[]).map((key) => [key, now[key]]),
    ) as Partial<Settings>;
    await put(change);
    if (JSON.stringify(before) === JSON.stringify(change)) return;
    const name = `the setting of ${Object.keys(change)
      .map((key) => WORDS[key as keyof Settings])
      .join(', ')}`;
    record({ name, undo: () => put(before), redo: () => put(change) });
  };
}

const WORDS: Readonly<Record<keyof Settings, string>> = {
  currency: 'the currency',
  distance: 'distances',
  numbers: 'numbers',
  dates: 'dates',
  theme: 'day or night',
  paper: 'the paper',
  keys: 'single keys',
  person: 'your name',
  asOf: 'the as-of date',
};

/** Puts the theme on the page and keeps it for the next start. */
export function useTheme(): void {
  const { theme } = useSettings();
  useEffect(() => {
    if (theme === 'system') {
      delete document.documentElement.dataset.theme;
      localStorage.removeItem('theme');
    } else {
      document.documentElement.dataset.theme = theme;
      localStorage.setItem('theme', theme);
    }
  }, [theme]);
}
