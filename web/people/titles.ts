import type { QueryClient } from '@tanstack/react-query';
import type { TitleReadingView } from '../../contract/people.ts';
import type { Job } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { jobEnded } from '../ui/job-ended.ts';

/** How a title is read by us; null leaves it to the source and the table of words. */
export type TitleWish = Pick<TitleReadingView, 'department' | 'level'> | null;

/** Reads a title otherwise, for everybody who has it, as a step that can be taken back. */
export async function readTitleAs(
  client: QueryClient,
  title: string,
  wish: TitleWish,
  before: TitleWish,
): Promise<void> {
  const send = async (reading: TitleWish) => {
    const { job } = await call<{ job: Job }>('POST', '/people/titles', { title, ...reading });
    return jobEnded(job);
  };
  const sendAnew = async (reading: TitleWish) => {
    await send(reading);
    await client.invalidateQueries();
  };
  await send(wish);
  did(wish ? `“${title}” is read so from now on` : `“${title}” is read as before`, {
    name: `${wish ? 'reading' : 'leaving as it was'} “${title}”`,
    undo: () => sendAnew(before),
    redo: () => sendAnew(wish),
  });
  await client.invalidateQueries();
}
