import { writeFileSync } from 'node:fs';
import { register } from 'tsx/esm/api';
import { run } from './setup.mjs';

/** Writes docs/fields.md from the registry of fields. */
register();
const { fieldsPage } = await import('../core/fields/page.ts');
writeFileSync('docs/fields.md', fieldsPage());
process.exit(run('npx', ['prettier', '--write', 'docs/fields.md']));
