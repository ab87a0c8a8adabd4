import type { Response } from 'express';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { HttpProblem } from './check.ts';

/**
 * Sends a file as it is now, also where it is removed meanwhile. The file is closed when it is sent or the client has gone.
 * @throws HttpProblem where there is none, or it cannot be read; nothing has been sent then
 */
export async function sendFile(response: Response, path: string, gone: HttpProblem): Promise<void> {
  const file = await open(path, 'r').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') throw gone;
    throw new HttpProblem(
      500,
      'unreadable-file',
      `The file is there but cannot be read (${error.code ?? error.message}). Check the rights of the data folder.`,
    );
  });
  try {
    response.set('content-length', String((await file.stat()).size));
    await pipeline(file.createReadStream({ autoClose: false }), response);
  } catch (error) {
    // A client that goes before it has all is no fault; what was begun cannot be answered otherwise.
    if (!response.headersSent) throw error;
    response.destroy();
  } finally {
    await file.close();
  }
}
