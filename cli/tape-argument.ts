import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { SavedTapeView } from '../contract/responses.ts';
import { emptyTape, type Line, type Tape } from '../core/tape/nodes.ts';
import type { Client } from './client.ts';
import { Ended, EXIT } from './client.ts';

/** The tape that an argument means: a tape file or an export, the name of a saved tape, or typed lines parted by ";". */
export async function tapeOf(client: Client, argument: string, subject: string): Promise<Tape> {
  if (existsSync(argument)) {
    if (!argument.endsWith('.json'))
      return (await client.upload<{ tape: Tape }>('/tape-files', argument)).tape;
    try {
      return JSON.parse(await readFile(argument, 'utf8')) as Tape;
    } catch (error) {
      throw new Ended(EXIT.refused, `${argument} is no tape file: ${(error as Error).message}.`);
    }
  }
  const { tapes } = await client.call<{ tapes: SavedTapeView[] }>('GET', '/tapes');
  const saved = tapes.find(
    ({ name, kind }) => kind === 'tape' && name.toLowerCase() === argument.toLowerCase(),
  );
  if (saved) return saved.tape;
  if (argument.trim() === '') return emptyTape(subject);
  const { lines } = await client.call<{ lines: Line[] }>('POST', '/typed', {
    text: argument,
    stem: 'l',
    subject,
  });
  return { ...emptyTape(subject), lines };
}
