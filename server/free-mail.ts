import { createRequire } from 'node:module';

const FREE: ReadonlySet<string> = new Set(
  createRequire(import.meta.url)('email-providers/all.json') as string[],
);

/** Whether anybody may have a mail box at a domain, so that it says nothing of where somebody works. */
export const isFreeMail = (domain: string): boolean => FREE.has(domain);
