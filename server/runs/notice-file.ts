import { existsSync } from 'node:fs';
import { join } from 'node:path';

/** Folder of what webhooks are told. */
export const NOTICES_FOLDER = 'notices';

/** The file of what a webhook is told, by the name of its delivery; null for that of something else. */
export function noticeFile(dir: string, id: string): string | null {
  const path = join(dir, NOTICES_FOLDER, `${id}.jsonl`);
  return id.startsWith('notice-') && existsSync(path) ? path : null;
}
