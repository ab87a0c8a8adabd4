import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { SiteSignatures } from '../../core/gather/read-site.ts';
import { ROOT } from '../reference.ts';

let read: SiteSignatures | null = null;

/** What offers, pages and technologies are told by, from `data/`. */
export const siteSignatures = (): SiteSignatures =>
  (read ??= JSON.parse(readFileSync(join(ROOT, 'data/site-signatures.json'), 'utf8')) as SiteSignatures);
