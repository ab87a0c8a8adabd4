import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { SettingsBody } from '../../contract/settings.ts';
import { call } from '../api.ts';

export type Settings = { [key in keyof SettingsBody]: SettingsBody[key] };

const DEFAULTS: Settings = {
  currency: 'EUR',
  distance: 'km',
  numbers: 'comma',
  dates: 'words',
  theme: 'system',
  paper: 'A4',
  keys: true,
  asOf: null,
};

/** The workspace's settings; the defaults until they are read. */
export function useSettings(): Settings {
  const { data } = useQuery({
    queryKey: ['settings'],
    queryFn: ({ signal }) => call<Settings>('GET', '/settings', undefined, signal),
    staleTime: Infinity,
  });
  return data ?? DEFAULTS;
}

/** Writes changed settings and shows them at once. */
export function useSaveSettings(): (change: Partial<Settings>) => Promise<void> {
  const client = useQueryClient();
  const now = useSettings();
  return async (change) => {
    const saved = await call<Settings>('PUT', '/settings', { ...now, ...change });
    client.setQueryData(['settings'], saved);
    if (change.asOf !== undefined)
      await client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'settings' });
  };
}

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
