import type { GatherState, RunPart } from '../../contract/gather-views.ts';

export const STATE_WORDS: Record<GatherState, string> = {
  running: 'running',
  paused: 'paused',
  asks: 'asks something',
  done: 'done',
  stopped: 'stopped',
};

export const PART_WORDS: Record<RunPart, string> = {
  records: 'records',
  twice: 'twice',
  refused: 'refused',
  adverts: 'adverts',
  failed: 'pages not read',
  'not-allowed': 'pages not allowed',
};

/** A stretch of time in words: 2:20 of minutes and seconds, or hours. */
export function clock(seconds: number): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const whole = Math.round(seconds);
  return whole < 3600
    ? `${Math.floor(whole / 60)}:${two(whole % 60)}`
    : `${Math.floor(whole / 3600)}:${two(Math.floor((whole % 3600) / 60))}:${two(whole % 60)}`;
}
