import { parentPort, workerData } from 'node:worker_threads';
import type { Settings } from '../../core/settings.ts';
import { makePaper, type PaperWish } from './pages.ts';

/** What the thread is given: a paper without what cannot be sent, and how figures are written. */
export type PaperWorkerData = PaperWish extends infer W
  ? W extends PaperWish
    ? Omit<W, 'figuring'> & { numbers: Settings['numbers'] }
    : never
  : never;

const LOCALES = { comma: 'en-GB', point: 'de-DE', space: 'fr-FR' } as const;
const SYMBOLS: Record<string, string> = { EUR: '€', GBP: '£', USD: '$' };

/** The thread that lays out one paper, so that counts need not wait for it. */
const { numbers, ...wish } = workerData as PaperWorkerData;
const figuring = {
  symbol: SYMBOLS[wish.currency] ?? `${wish.currency} `,
  number: (value: number, decimals = 0) =>
    value
      .toLocaleString(LOCALES[numbers], { maximumFractionDigits: decimals })
      .replaceAll(/[\u202f\u00a0]/g, ' '),
};
const bytes = new Uint8Array(await makePaper({ ...wish, figuring }));
parentPort!.postMessage(bytes, [bytes.buffer]);
