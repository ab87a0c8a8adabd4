import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../reference.ts';

/** A JSON schema, as far as it is looked at here. */
export type Schema = Readonly<Record<string, unknown>>;

interface Made {
  /** By "method /path": the schema of the answer. */
  properties: Record<string, Schema>;
  /** What those refer to, by name. */
  definitions: Record<string, Schema>;
}

let read: Made | null = null;

/**
 * The schemas of all answers, made by `npm run answers` of the types in `contract/answers.ts`. References are to the parts of
 * the API's description, where each definition stands under a name of its own.
 */
export function answerSchemas(): Made {
  read ??= renamed(JSON.parse(readFileSync(join(ROOT, 'contract/answers.schema.json'), 'utf8')) as Made);
  return read;
}

/** Names that a description allows, told apart from those of bodies. */
function nameOf(definition: string): string {
  return `Answered.${definition.replace(/\W+/g, '_')}`;
}

function renamed({ properties, definitions }: Made): Made {
  const text = JSON.stringify({ properties, definitions: {} }).replace(/"#\/definitions\/([^"]+)"/g, refTo);
  const inner = Object.entries(definitions).map(([name, schema]) => [
    nameOf(name),
    JSON.parse(JSON.stringify(schema).replace(/"#\/definitions\/([^"]+)"/g, refTo)) as Schema,
  ]);
  return { ...(JSON.parse(text) as Made), definitions: Object.fromEntries(inner) as Made['definitions'] };
}

function refTo(_whole: string, name: string): string {
  return JSON.stringify(`#/components/schemas/${nameOf(decodeURIComponent(name))}`);
}
