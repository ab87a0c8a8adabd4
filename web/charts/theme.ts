import { useSyncExternalStore } from 'react';

/** The colours of charts: the roles of paper and ink. */
export interface ChartTheme {
  ground: string;
  paper: string;
  ink: string;
  soft: string;
  rule: string;
  edge: string;
  bar: string;
  unsure: string;
}

function read(): ChartTheme {
  const style = getComputedStyle(document.documentElement);
  const role = (name: string) => style.getPropertyValue(`--${name}`).trim();
  return {
    ground: role('ground'),
    paper: role('paper'),
    ink: role('ink'),
    soft: role('soft'),
    rule: role('rule'),
    edge: role('edge'),
    bar: role('bar'),
    unsure: role('unsure'),
  };
}

let shown: ChartTheme | null = null;

function subscribe(changed: () => void): () => void {
  const renew = () => {
    shown = null;
    changed();
  };
  const observer = new MutationObserver(renew);
  observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
  const dark = window.matchMedia('(prefers-color-scheme: dark)');
  dark.addEventListener('change', renew);
  return () => {
    observer.disconnect();
    dark.removeEventListener('change', renew);
  };
}

/** The colours by the theme that is on. */
export function useChartTheme(): ChartTheme {
  return useSyncExternalStore(subscribe, () => (shown ??= read()));
}
