import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

const server = new TestServer();
beforeAll(() => server.start(1));
afterAll(() => server.stop());

describe('bad input is refused by name, and nothing is half written', () => {
  const line = (more: object) => tape([{ id: 'a', field: 'headcount', test: { from: 1 }, ...more }]);
  test.each([
    ['an unknown field', line({ field: 'mood' }), 'unknown-field', 'lines[0].field', 'mood'],
    ['a reversed range', line({ test: { from: 9, to: 2 } }), 'reversed-range', 'lines[0].test', 'reversed'],
    [
      'an unknown code',
      line({ field: 'industry', test: { scheme: 'nace-2.1', any: ['99.99'] } }),
      'unknown-code',
      'lines[0].test.any[0]',
      '99.99',
    ],
    [
      'an unknown scheme',
      line({ field: 'industry', test: { scheme: 'nace-3', any: ['1'] } }),
      'wrong-value',
      'lines[0].test.scheme',
      'nace-3',
    ],
    [
      'an unknown source',
      line({ field: 'source', test: { any: ['nowhere'] } }),
      'unknown-value',
      'lines[0].test.any[0]',
      'nowhere',
    ],
    ['an unknown key', line({ colour: 'red' }), 'unknown-key', 'lines[0].colour', 'colour'],
    [
      'two lines of one id',
      tape([
        { id: 'a', field: 'headcount', test: { from: 1 } },
        { id: 'a', field: 'headcount', test: { from: 2 } },
      ]),
      'id-twice',
      'lines[1].id',
      '"a"',
    ],
    ['a subject that is not there', { ...tape([]), subject: 'moons' }, 'unknown-subject', 'subject', 'moons'],
    ['a has-line', tape([{ id: 'a', has: 'moons', lines: [] }]), 'unknown-subject', 'lines[0].has', 'deals'],
    [
      'a role that deals do not have',
      tape([{ id: 'a', has: 'deals', as: 'owner', lines: [] }]),
      'unknown-role',
      'lines[0].as',
      'target',
    ],
    [
      'a field of another subject in a has-line',
      tape([
        {
          id: 'a',
          has: 'people',
          lines: [{ id: 'b', field: 'revenue', test: { from: 1, currency: 'EUR' } }],
        },
      ]),
      'unknown-field',
      'lines[0].lines[0].field',
      'revenue',
    ],
    [
      'has-lines three deep',
      tape([
        {
          id: 'a',
          has: 'deals',
          lines: [{ id: 'b', has: 'company', lines: [{ id: 'c', has: 'people', lines: [] }] }],
        },
      ]),
      'nested-too-deep',
      'lines[0].lines[0].lines[0].has',
      'two',
    ],
    [
      'a count that is no whole number',
      tape([{ id: 'a', has: 'people', count: { from: 1.5 }, lines: [] }]),
      'wrong-value',
      'lines[0].count.from',
      '1.5',
    ],
    ['a file that is no tape', { hello: 1 }, 'not-a-tape', 'format', 'just-tally.tape'],
    ['no test at all', line({ test: {} }), 'wrong-value', 'lines[0].test', 'from'],
    ['a wrong type', line({ test: { from: 'ten' } }), 'wrong-value', 'lines[0].test.from', 'ten'],
  ])('%s', async (_, wrong, code, field, named) => {
    const response = await server.api.post('/api/tally').send({ tape: wrong });
    expect(response.status).toBe(400);
    const { error } = response.body as {
      error: { code: string; field: string; message: string; rule: string };
    };
    expect({ code: error.code, field: error.field }).toEqual({ code, field });
    expect(error.message).toContain(named);
    expect(error.message).not.toContain('    at ');
  });

  test('malformed JSON, a body that is too large, an unknown address, a foreign host', async () => {
    expect(
      (await server.api.post('/api/tally').set('content-type', 'application/json').send('{"tape":')).body,
    ).toMatchObject({ error: { code: 'malformed-json' } });
    const large = await server.api
      .post('/api/tally')
      .set('content-type', 'application/json')
      .send(`{"tape":"${'x'.repeat(50 * 2 ** 20)}"}`)
      .catch((error: Error) => error);
    // The server may close the connection before all of it is sent; it does nothing else with it.
    if (large instanceof Error) expect((large as NodeJS.ErrnoException).code).toMatch(/EPIPE|ECONNRESET/);
    else expect(large.body).toMatchObject({ error: { code: 'too-large' } });
    const fitting = `{"tape":"${'x'.repeat(3.9 * 2 ** 20)}"}`;
    expect(
      (await server.api.post('/api/tally').set('content-type', 'application/json').send(fitting)).status,
    ).toBe(400);
    expect((await server.api.get('/api/nowhere')).status).toBe(404);
    expect((await server.api.get('/api/health').set('host', 'evil.example')).body).toMatchObject({
      error: { code: 'wrong-host' },
    });
    expect(
      (
        await server.api
          .post('/api/tally')
          .set('origin', 'http://evil.example')
          .send({ tape: tape([]) })
      ).status,
    ).toBe(403);
    expect((await server.api.get('/api/health')).status).toBe(200);
  });

  test.each([
    ['an empty file', Buffer.alloc(0), 400, 'empty-file'],
    ['a picture named .csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]), 400, 'wrong-file'],
    ['a header without rows', Buffer.from('name;town;country\n'), 400, 'no-rows'],
    ['a quotation mark never closed', Buffer.from('name,town\n"Open,Brno\n'), 400, 'broken-csv'],
    ['a file over the limit', Buffer.alloc(2 * 2 ** 20, 'a,b\n'), 413, 'too-large'],
    ['a workbook that is none', Buffer.from('PK\u0003\u0004 nothing of the kind'), 400, 'broken-archive'],
  ])('%s', async (_, content, status, code) => {
    const response = await server.upload('some.csv', content);
    expect(response.status).toBe(status);
    expect(response.body).toMatchObject({ error: { code } });
    expect(readdirSync(join(server.dir, 'uploads'))).toEqual([]);
  });

  test('a row with too many cells is refused alone', async () => {
    const preview = await server.upload('wide.csv', Buffer.from('name,country\nOne,CZ\nTwo,CZ,and,more\n'));
    const { job } = await server.load(preview.body as UploadAnswer, { name: 'Wide' });
    expect(job.result).toMatchObject({
      read: 2,
      refused: 1,
      refusals: [{ row: 3, column: 'row', value: '4 cells' }],
    });
  });

  test('settings and requests name the key that is wrong', async () => {
    expect((await server.api.put('/api/settings').send({ currency: 'XXX' })).body).toMatchObject({
      error: { field: 'currency', value: 'XXX' },
    });
    expect((await server.api.put('/api/settings').send({ asOf: '2026-02-31' })).body).toMatchObject({
      error: { field: 'asOf' },
    });
    expect(
      (await server.api.post('/api/rows').send({ tape: tape([]), columns: ['name'], limit: 100_000 })).body,
    ).toMatchObject({ error: { field: 'limit' } });
    expect(
      (await server.api.post('/api/rows').send({ tape: tape([]), columns: ['mood'] })).body,
    ).toMatchObject({ error: { code: 'unknown-column', value: 'mood' } });
  });
});
