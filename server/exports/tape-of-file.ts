import type { Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { startWorker } from '../threads.ts';

/** Longest that a file is searched, in ms, and the memory of the thread that does, in MB. */
const LONGEST = 60_000;
const MEMORY = 512;

/** The tape in a file, looked for in a thread of its own, since the file may be anybody's. @throws Problem where it has none */
export async function tapeOfFile(path: string): Promise<Tape> {
  const text = await new Promise<string | null>((resolve) => {
    const worker = startWorker(
      'server/exports/tape-worker',
      { path },
      { resourceLimits: { maxOldGenerationSizeMb: MEMORY } },
    );
    const end = (tape: string | null) => {
      clearTimeout(timer);
      void worker.terminate();
      resolve(tape);
    };
    const timer = setTimeout(() => end(null), LONGEST);
    worker.once('message', ({ tape }: { tape: string | null }) => end(tape));
    worker.once('error', () => end(null));
    worker.once('exit', () => end(null));
  });
  const tape = text === null ? null : parsed(text);
  if (tape === null)
    throw new Problem(
      'no-tape',
      'There is no tape in this file. It is neither a tape file nor an export of Just Tally, or somebody has changed it since.',
      {
        field: 'file',
        rule: 'a .tape.json, or an exported file with “How this list was made”',
      },
    );
  return tape;
}

function parsed(text: string): Tape | null {
  try {
    const tape = JSON.parse(text) as Tape | null;
    return tape && typeof tape === 'object' && Array.isArray(tape.lines)
      ? { ...tape, format: 'just-tally.tape', version: 1 }
      : null;
  } catch {
    return null;
  }
}
