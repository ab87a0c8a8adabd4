import { hold, randomFrom, type Harness } from './harness.ts';
import { companiesCsv, inFolder, Program, tape } from './program.ts';

/** Calls of every kind with what nobody would send, made from the description of the API: no 500, no hang, no foreign text back at length. */

interface Operation {
  method: string;
  path: string;
  schema: Schema | null;
}

interface Schema {
  $ref?: string;
  type?: string | string[];
  enum?: unknown[];
  properties?: Record<string, Schema>;
  items?: Schema;
  minimum?: number;
  maximum?: number;
  maxLength?: number;
}

interface Document {
  paths: Record<string, Record<string, { requestBody?: { content: Record<string, { schema: Schema }> } }>>;
  components: { schemas: Record<string, Schema> };
}

/** What shutdowns, loads and downloads would do is the matter of other checks. */
const LEFT_OUT = /^\/api\/(demo|uploads|contacts|papers)$/;

const ODD: readonly unknown[] = [
  ...[
    null,
    true,
    false,
    0,
    -1,
    1e308,
    0.1,
    '',
    ' ',
    '\n',
    '\u0000',
    '\ud800',
    'constructor',
    '__proto__',
    'toString',
  ],
  ...[
    [],
    {},
    [null],
    { a: 1 },
    [[[[]]]],
    'x'.repeat(5000),
    '=cmd',
    '../../etc/passwd',
    '%00',
    '(((((((',
    '"""',
    'a;b;c',
  ],
  ...[
    '9'.repeat(400),
    '1e999',
    '🦊',
    'NaN',
    -0,
    2 ** 53,
    '2026-02-30',
    '0000-00-00',
    '"or" 1=1 --',
    "' or 1=1 --",
  ],
];

export async function fuzz(harness: Harness, callsMade: number, seed: number): Promise<void> {
  await inFolder(async (dir) => {
    const program = await Program.started(dir);
    const random = randomFrom(seed);
    const pick = <T>(some: readonly T[]): T => some[Math.floor(random() * some.length)]!;
    try {
      await program.ended(await program.beginLoad('First', companiesCsv('A', 300)));
      const document = await program.get<Document>('/openapi.json');
      const operations: Operation[] = Object.entries(document.paths)
        .filter(([path]) => !LEFT_OUT.test(path))
        .flatMap(([path, methods]) =>
          Object.entries(methods).map(([method, { requestBody }]) => ({
            method: method.toUpperCase(),
            path: path.replace('/api', ''),
            schema: requestBody?.content['application/json']?.schema ?? null,
          })),
        );
      const made = (schema: Schema | undefined, deep: number): unknown => {
        if (!schema || random() < 0.12 || deep > 6) return pick(ODD);
        if (schema.$ref) return made(document.components.schemas[schema.$ref.split('/').at(-1)!], deep + 1);
        if (schema.enum && random() < 0.8) return pick(schema.enum);
        const type = Array.isArray(schema.type) ? pick(schema.type) : schema.type;
        if (type === 'object' || schema.properties) {
          if (!schema.properties) return random() < 0.5 ? anyTape() : pick(ODD);
          const body: Record<string, unknown> = {};
          for (const [name, one] of Object.entries(schema.properties))
            if (random() < 0.85)
              body[name] = name === 'tape' || name === 'against' ? anyTape() : made(one, deep + 1);
          if (random() < 0.04) body[pick(['constructor', 'what', '', 'length'])] = pick(ODD);
          return body;
        }
        if (type === 'array')
          return Array.from({ length: Math.floor(random() * 4) }, () => made(schema.items, deep + 1));
        if (type === 'number' || type === 'integer')
          return pick([schema.minimum ?? 0, schema.maximum ?? 10, Math.floor(random() * 100), -1, 1e9]);
        if (type === 'boolean') return random() < 0.5;
        return pick(['name', 'headcount', 'EUR', 'nace-2.1', 'sqlite', 'a', 'people', 'l1', pick(ODD)]);
      };
      const FIELDS = [
        'status',
        'headcount',
        'revenue',
        'industry',
        'place',
        'words',
        'growth',
        'departments',
        'technology',
        'list',
        'peers',
        'rank',
        'checked',
        'company',
        'constructor',
      ];
      const TESTS: readonly (() => unknown)[] = [
        () => ({ any: [pick(['active', 'x', 'constructor', pick(ODD)])] }),
        () => ({ from: pick([1, 10, pick(ODD)]), to: pick([5, 1e6, pick(ODD)]), currency: 'EUR' }),
        () => ({ scheme: 'nace-2.1', any: [pick(['25.51', pick(ODD)])] }),
        () => ({ near: { lat: pick([49, pick(ODD)]), lon: 16, km: pick([10, pick(ODD)]) } }),
        () => ({ text: pick(['oak or ash', pick(ODD)]) }),
        () => ({ key: pick(['sales', 'constructor', pick(ODD)]), from: 1 }),
        () => ({ of: 'headcount', over: '1y', from: pick([5, pick(ODD)]) }),
        () => pick(ODD),
      ];
      const anyTape = (): unknown => {
        if (random() < 0.1) return pick(ODD);
        const lines = Array.from({ length: Math.floor(random() * 4) }, (_, i) => ({
          ...{ id: random() < 0.95 ? `l${i}` : pick(ODD), field: pick(FIELDS), test: pick(TESTS)() },
          ...(random() < 0.2 ? { not: pick([true, pick(ODD)]) } : {}),
          ...(random() < 0.1 ? { unknown: pick(['keep', 'drop', pick(ODD)]) } : {}),
        }));
        return tape(lines, random() < 0.1 ? { subject: pick(['people', 'deals', 'sites', pick(ODD)]) } : {});
      };

      await harness.check(
        `${callsMade.toLocaleString('en-GB')} calls that nobody would make: none is a 500, each is answered and says what is wrong`,
        async () => {
          const statuses = new Map<number, number>();
          let slowest = 0;
          for (let n = 0; n < callsMade; n++) {
            const { method, path, schema } = pick(operations);
            const part = () =>
              encodeURIComponent(
                String(
                  pick(['GB-A1', 'a', 'companies', 'constructor', '__proto__', '..', '🦊', 'x'.repeat(300)]),
                ),
              );
            const at =
              path.replaceAll(/\{\w+\}/g, part) +
              (random() < 0.2 ? `?text=${part()}&search=${part()}&currency=${part()}` : '');
            const body = schema ? made(schema, 0) : undefined;
            const sent =
              body === undefined
                ? undefined
                : random() < 0.03
                  ? pick(['{', '', '[]', 'null', '"', '{"a":1e999}'])
                  : body;
            const answer = await program.ask(method, at, sent);
            statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
            slowest = Math.max(slowest, answer.ms);
            const said = () =>
              `${method} ${at.slice(0, 200)} with ${JSON.stringify(sent)?.slice(0, 600)}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 400)}`;
            hold(answer.status < 500, said());
            if (answer.status >= 400) {
              const { error } = answer.body as {
                error?: { code?: string; message?: string; value?: unknown };
              };
              hold(typeof error?.code === 'string' && typeof error.message === 'string', said());
              hold(
                error.message.length <= 1100 && JSON.stringify(error.value ?? '').length <= 400,
                `it answers at length: ${said()}`,
              );
            }
          }
          hold(program.running, 'the server has ended');
          const health = await program.ask('GET', '/health');
          hold(health.status === 200 && health.ms < 1000, `health took ${health.ms.toFixed(0)} ms`);
          harness.figure(
            'fuzzed calls',
            `${[...statuses]
              .sort()
              .map(([status, count]) => `${status}: ${count}`)
              .join(', ')}; slowest ${slowest.toFixed(0)} ms`,
          );
        },
      );
      await harness.check(
        'what reaches no call is answered as JSON: wrong addresses, paths, hosts, origins, bodies',
        async () => {
          const raw = (path: string, init: RequestInit = {}) => fetch(`${program.address}${path}`, init);
          for (const [path, init, status] of [
            ['/api/nowhere', {}, 404],
            ['/api/companies/%E0%A4%A', {}, 400],
            ['/%E0%A4%A', {}, 400],
            [
              '/api/tally',
              { method: 'POST', headers: { 'content-type': 'multipart/form-data' }, body: 'x' },
              400,
            ],
            [
              '/api/uploads',
              { method: 'POST', headers: { 'content-type': 'multipart/form-data' }, body: 'x' },
              400,
            ],
            [
              '/api/contacts',
              { method: 'POST', headers: { 'content-type': 'multipart/form-data' }, body: 'x' },
              400,
            ],
            [
              '/api/tally',
              {
                method: 'POST',
                headers: { 'content-type': 'application/json' },
                body: '{"tape":{"__proto__":{"a":1}}}',
              },
              400,
            ],
            ['/api/health', { headers: { origin: 'http://elsewhere.example' } }, 403],
          ] as const) {
            const answer = await raw(path, init);
            const body = (await answer.json()) as { error?: { message?: string } };
            hold(
              answer.status === status && typeof body.error?.message === 'string',
              `${path}: ${answer.status} ${JSON.stringify(body)}`,
            );
            hold(
              answer.headers.get('content-security-policy') !== null,
              `${path}: answered without the security headers`,
            );
          }
        },
      );
      await harness.check(
        'completions of a thousand characters and thousands of postcodes are quick',
        async () => {
          const texts = [
            'a '.repeat(499),
            '('.repeat(999),
            `postcode ${'CZ 60200, '.repeat(99)}`,
            '1'.repeat(999),
            ' \t'.repeat(499),
            '"'.repeat(999),
          ];
          let slowest = 0;
          for (const text of texts)
            slowest = Math.max(slowest, (await program.ask('POST', '/complete', { text, tape: tape() })).ms);
          const postcodes = Array.from({ length: 5000 }, (_, i) => `GB ${10_000 + i}`);
          const many = await program.ask('POST', '/tally', {
            tape: tape([{ id: 'l1', field: 'place', test: { postcodes } }]),
          });
          harness.figure(
            'hostile typing',
            `slowest completion ${slowest.toFixed(0)} ms; 5,000 postcodes ${many.ms.toFixed(0)} ms (${many.status})`,
          );
          // What grows with the square of a text takes minutes; a slow and busy machine takes two seconds.
          hold(slowest < 4000 && many.ms < 4000, `${slowest.toFixed(0)} ms and ${many.ms.toFixed(0)} ms`);
        },
      );
    } finally {
      await program.end('SIGKILL');
    }
  });
}
