import { startWorker } from '../threads.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { ReadingReply, ReadingWish } from './reading-worker.ts';

/** What reading one file may take: a file that needs more is refused, and nobody waits for it. */
const MOST_MS = 30_000;
const MOST_MEGABYTES = 1024;

const TOO_MUCH = { field: 'file', rule: 'a file that is read in half a minute and a gigabyte of memory' };

/**
 * Reads a file in a thread of its own, so that no file holds up the others' answers.
 * @throws Problem where the file is broken, or takes too long or too much memory
 */
export function readInThread<W extends ReadingWish>(
  wish: W,
): Promise<Extract<ReadingReply, { of: W['of'] }>> {
  return new Promise((resolve, reject) => {
    const worker = startWorker('server/load/reading-worker', wish, {
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    });
    const end = (act: () => void) => {
      clearTimeout(timer);
      act();
      void worker.terminate();
    };
    const timer = setTimeout(
      () =>
        end(() =>
          reject(
            new Problem(
              'too-slow',
              `The file could not be read within ${MOST_MS / 1000} seconds. Is it what its name says? Save it as CSV, or split it.`,
              TOO_MUCH,
            ),
          ),
        ),
      MOST_MS,
    );
    worker.once('message', (reply: ReadingReply) =>
      end(() => {
        if (reply.of === 'problem') reject(new Problem(reply.code, reply.message, reply));
        else resolve(reply as Extract<ReadingReply, { of: W['of'] }>);
      }),
    );
    worker.once('error', (error: NodeJS.ErrnoException) =>
      end(() =>
        reject(
          error.code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? new Problem(
                'too-large',
                'The file takes more memory than there is for reading one. Save it as CSV, or split it.',
                TOO_MUCH,
              )
            : error,
        ),
      ),
    );
    worker.once('exit', () =>
      end(() => reject(new Error('The thread that reads a file ended without an answer.'))),
    );
  });
}
