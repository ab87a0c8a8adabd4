import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { fieldsPage } from './page.ts';

test('docs/fields.md says what the registry says; npm run fields writes it', () => {
  const plain = (text: string) => text.replace(/\s+/g, ' ');
  expect(plain(readFileSync('docs/fields.md', 'utf8'))).toBe(plain(fieldsPage()));
});
