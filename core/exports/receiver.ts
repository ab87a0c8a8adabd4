import { fold } from '../text/fold.ts';

/** Whom exports went to where nobody was named. */
export const NOT_SAID = { key: 'not-said', name: 'not said' } as const;

/** The receiver of a name: names that differ in case, accents and signs alone are one. */
export function receiverOf(name: string): { key: string; name: string } {
  const own = name.trim().replace(/\s+/g, ' ');
  const key = fold(own)
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');
  return key === '' ? NOT_SAID : { key, name: own };
}
