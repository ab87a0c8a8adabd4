import { open, type FileHandle } from 'node:fs/promises';
import type { FileRow, Writer } from './writer.ts';

/** A writer of text: what stands first, some text for each batch of rows, what stands last. */
export async function textWriter(
  path: string,
  {
    first = '',
    rows,
    end = () => '',
    last = '',
  }: {
    first?: string;
    rows(rows: readonly FileRow[]): string;
    /** What comes of all rows, once they are there. */
    end?(): string;
    last?: string;
  },
): Promise<Writer> {
  const file: FileHandle = await open(path, 'wx');
  if (first) await file.appendFile(first);
  return {
    add: async (some) => {
      const text = rows(some);
      if (text) await file.appendFile(text);
    },
    finish: async () => {
      await file.appendFile(end() + last);
      await file.close();
    },
    leave: () => file.close().catch(() => {}),
  };
}
