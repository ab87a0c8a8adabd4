import type { QueryClient } from '@tanstack/react-query';
import type { CorrectionView } from '../../contract/own-values.ts';
import type { Job } from '../../contract/responses.ts';
import type { Correctable } from '../../core/records/own-values.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { jobEnded } from '../ui/job-ended.ts';

/** Corrections as they are sent; null takes one back. */
export type Wish = { field: Correctable; value: string | null; reason: string };

/** Corrects values of a company by hand, as a step that can be taken back. */
export async function correct(
  client: QueryClient,
  company: { key: string; name: string; corrections: readonly CorrectionView[] },
  wishes: readonly Wish[],
): Promise<void> {
  const send = async (corrections: readonly Wish[]) => {
    const { job } = await call<{ job: Job }>(
      'POST',
      `/companies/${encodeURIComponent(company.key)}/corrections`,
      { corrections },
    );
    await jobEnded(job);
  };
  const sendAnew = async (corrections: readonly Wish[]) => {
    await send(corrections);
    await client.invalidateQueries();
  };
  const before = wishes.map(({ field }): Wish => {
    const known = company.corrections.find((one) => one.field === field);
    return { field, value: known?.value ?? null, reason: known?.reason ?? '' };
  });
  await send(wishes);
  const back = wishes.every(({ value }) => value === null);
  did(back ? 'The sources are shown again' : `${company.name} is corrected`, {
    name: `${back ? 'taking back a correction' : 'a correction'} of ${company.name}`,
    undo: () => sendAnew(before),
    redo: () => sendAnew(wishes),
  });
  await client.invalidateQueries();
}
