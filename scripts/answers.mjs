import { readFileSync, writeFileSync } from 'node:fs';
import prettier from 'prettier';
import { createGenerator } from 'ts-json-schema-generator';

/** `npm run answers`: makes `contract/answers.schema.json` of the types of the answers; with `--check` it only says whether that is up to date. */
const path = 'contract/answers.schema.json';
const schema = createGenerator({
  path: 'contract/answers.ts',
  tsconfig: 'tsconfig.json',
  type: 'Answers',
  skipTypeCheck: true,
  topRef: false,
  additionalProperties: false,
}).createSchema('Answers');
const options = { ...(await prettier.resolveConfig(path)), parser: 'json' };
const text = await prettier.format(JSON.stringify(schema), options);
if (!process.argv.includes('--check')) writeFileSync(path, text);
else if (readFileSync(path, 'utf8') !== text) {
  console.error(`${path} is not what the types of the answers make; run npm run answers.`);
  process.exit(1);
}
