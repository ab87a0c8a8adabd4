import type { PastRunView, RunState, RunView } from '../../contract/runs.ts';
import type { PlanKind } from '../../core/runs/kinds.ts';

/** Runs in the words of the place. */

export const KIND_WORDS: Readonly<Record<PlanKind | PastRunView['kind'], string>> = {
  tape: 'tape',
  gatherer: 'gatherer',
  batch: 'batch',
  refresh: 'refresh',
  export: 'export',
  load: 'load',
  remove: 'removal',
  match: 'match',
  demo: 'demo',
  addresses: 'addresses',
};

export const STATE_WORDS: Readonly<Record<RunState, string>> = {
  waits: 'in line',
  running: 'running',
  done: 'done',
  failed: 'failed',
  cancelled: 'left',
};

export const CAUSE_WORDS: Readonly<Record<RunView['cause'], string>> = {
  hand: 'by hand',
  clock: 'by the clock',
  after: 'after another run',
};

/** How long something took: "2.1 s", "41 min", "3 h 5 min". */
export function tookWords(ms: number | null): string {
  if (ms === null) return '–';
  if (ms < 60_000) return `${(ms / 1000).toFixed(1)} s`;
  const minutes = Math.round(ms / 60_000);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

const two = (figure: number) => String(figure).padStart(2, '0');

/** The time of day of a moment, where the program is used. */
export function timeWords(iso: string): string {
  const at = new Date(iso);
  return `${at.getHours()}:${two(at.getMinutes())}`;
}

/** The day of a moment as ISO, where the program is used. */
export function dayHere(iso: string): string {
  const at = new Date(iso);
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
