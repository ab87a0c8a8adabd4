import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { answerSchemas } from './answer-schemas.ts';
import type { Endpoint } from '../../contract/endpoint.ts';
import { ENDPOINTS } from '../../contract/endpoints.ts';

/** Where schemas stand in the document. */
const SCHEMAS = '#/components/schemas/';

/** The API as an OpenAPI 3.1 document, its bodies made from the classes that check them. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const endpoint of ENDPOINTS)
    (paths[`/api${endpoint.path}`] ??= {})[endpoint.method] = operation(endpoint);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Just Tally',
      version: '1',
      description: 'Compiles target company lists. JSON over HTTP, on the machine it runs on only.',
    },
    paths,
    components: { schemas: { ...bodySchemas(), ...answerSchemas().definitions, Error: ERROR } },
  };
}

function operation({ method, path, does, body, upload, query, status = 200, file }: Endpoint): object {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({ name, in: 'path', required: true }));
  const inQuery = (query ?? []).map((name) => ({ name, in: 'query' }));
  const parameters = [...inPath, ...inQuery].map((one) => ({ ...one, schema: { type: 'string' } }));
  const content = body
    ? { 'application/json': { schema: { $ref: SCHEMAS + body.name } } }
    : upload && {
        'multipart/form-data': {
          schema: {
            type: 'object',
            required: ['file'],
            properties: { file: { type: 'string', format: 'binary' } },
          },
        },
      };
  return {
    operationId: [method, ...path.split('/').map((part) => part.replaceAll(/[{}]/g, ''))]
      .filter(Boolean)
      .join('-'),
    summary: does,
    ...(parameters.length ? { parameters } : {}),
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: {
      [status]: {
        description: does,
        ...(status === 204
          ? {}
          : {
              content: {
                [file ?? 'application/json']: {
                  schema: file ? {} : (answerSchemas().properties[`${method} ${path}`] ?? { type: 'object' }),
                },
              },
            }),
      },
      default: {
        description: 'what is wrong, with the field, the value and the rule where there are any',
        content: { 'application/json': { schema: { $ref: `${SCHEMAS}Error` } } },
      },
    },
  };
}

const ERROR = {
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      required: ['code', 'message'],
      properties: {
        code: { type: 'string' },
        message: { type: 'string' },
        field: { type: 'string' },
        value: {},
        rule: { type: 'string' },
        current: {},
      },
    },
  },
};

interface Schema {
  properties?: Record<string, object>;
  required?: string[];
}

/** Bodies by the name of their class. What a class sets by itself may be left out, and says what it is then. */
function bodySchemas(): Record<string, Schema> {
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: SCHEMAS,
  }) as Record<string, Schema>;
  for (const { body } of ENDPOINTS) {
    const schema = body && schemas[body.name];
    if (!schema?.properties) continue;
    for (const [name, value] of Object.entries(new body!())) {
      if (value === undefined || !schema.properties[name]) continue;
      schema.properties[name] = { ...schema.properties[name], default: value as unknown };
      schema.required = schema.required?.filter((one) => one !== name);
    }
  }
  return schemas;
}
