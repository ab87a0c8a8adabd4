import { isParked } from '../../core/gather/site-state.ts';
import type { SiteState } from '../../core/records/record.ts';
import { PageTrouble, type Fetcher } from './fetcher.ts';

/** What came of trying a website; null where it may not be read. */
export interface Tried {
  state: SiteState | null;
  movedTo: string | null;
  /** Why it is dead or was not tried. */
  why: string | null;
}

/** How often a site that does not answer is asked, and how long it is left alone between, in ms. */
const [TRIES, PAUSE] = [3, 700];

/** Tries the front page of a website: whether it is there, leads to another, or only waits for a buyer. */
export async function trySite(
  fetcher: Fetcher,
  web: string,
  pause: (ms: number) => Promise<void>,
): Promise<Tried> {
  for (let nth = 1; ; nth++)
    try {
      const { html } = await fetcher.front(`https://${web}`);
      return { state: isParked(html) ? 'parked' : 'works', movedTo: null, why: null };
    } catch (error) {
      if (!(error instanceof PageTrouble)) throw error;
      if (error.kind === 'not-allowed') return { state: null, movedTo: null, why: error.message };
      if (error.movedTo !== null) return { state: 'moved', movedTo: error.movedTo, why: null };
      if (error.kind === 'never' || nth === TRIES)
        return { state: 'dead', movedTo: null, why: error.message };
      await pause(error.wait === null ? PAUSE * nth : Math.min(5, error.wait) * 1000);
    }
}
