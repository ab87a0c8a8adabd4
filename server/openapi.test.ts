import { FORMAT_IDS } from '../core/exports/formats.ts';
import { expect, test } from '@jest/globals';
import { ENDPOINTS } from '../contract/endpoints.ts';
import { apiRoutes } from './app.ts';
import { openApiDocument } from './http/openapi.ts';
import { answerSchemas } from './http/answer-schemas.ts';
import type { Metrics } from './metrics.ts';
import type { Services } from './services.ts';

/** The description of the API, held to the routes that answer and to the classes that check. */

interface Document {
  openapi: string;
  paths: Record<
    string,
    Record<string, { requestBody?: object; parameters?: { name: string; in: string }[] }>
  >;
  components: {
    schemas: Record<string, { properties: Record<string, Record<string, unknown>>; required?: string[] }>;
  };
}
const document = openApiDocument() as Document;

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
}

test('names every route of the server, and no other', () => {
  const routes = apiRoutes(
    { uploadLimit: 1, dir: '/tmp', outreach: {}, gather: {}, runs: {} } as Services,
    {} as Metrics,
  ).flatMap((router) =>
    (router.stack as unknown as Layer[]).flatMap(({ route }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method} ${route.path.replaceAll(/:(\w+)/g, '{$1}')}`)
        : [],
    ),
  );
  expect(ENDPOINTS.map(({ method, path }) => `${method} ${path}`).sort()).toEqual(routes.sort());
  expect(Object.keys(document.paths)).toHaveLength(new Set(ENDPOINTS.map(({ path }) => path)).size);
});

test('has bodies with the rules of their classes; what a class sets by itself may be left out', () => {
  const { ExportBody: wish, ClustersBody: view } = document.components.schemas;
  expect(wish!.properties.format).toMatchObject({ enum: [...FORMAT_IDS] });
  expect(wish!.properties.name).toMatchObject({ type: 'string', maxLength: 120 });
  expect(wish!.properties.delimiter).toMatchObject({ default: ',' });
  expect(wish!.properties.sort).toMatchObject({ items: { $ref: '#/components/schemas/SortBody' } });
  expect([...wish!.required!].sort()).toEqual(['columns', 'format', 'name', 'tape']);
  expect(view!.properties.west).toMatchObject({ type: 'number', minimum: -180 });
});

test('leaves no reference and no part of a path open', () => {
  const names = new Set(Object.keys(document.components.schemas));
  for (const [, name] of JSON.stringify(document).matchAll(/"#\/components\/schemas\/([\w.]+)"/g))
    expect(names).toContain(name);
  for (const [path, calls] of Object.entries(document.paths))
    for (const { parameters } of Object.values(calls))
      expect((parameters ?? []).filter((one) => one.in === 'path').map(({ name }) => `{${name}}`)).toEqual(
        path.match(/\{\w+\}/g) ?? [],
      );
});

test('has the shape of every answer that is JSON, but of its own and that of the fields', () => {
  const open = ENDPOINTS.filter(
    ({ method, path, file, status }) =>
      !file && status !== 204 && !(`${method} ${path}` in answerSchemas().properties),
  );
  expect(open.map(({ path }) => path)).toEqual(['/fields', '/openapi.json']);
  const known = new Set(ENDPOINTS.map(({ method, path }) => `${method} ${path}`));
  for (const call of Object.keys(answerSchemas().properties)) expect(known).toContain(call);
});
