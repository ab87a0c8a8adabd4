import 'reflect-metadata';
import { describe, expect, jest, test } from '@jest/globals';
import { Type } from 'class-transformer';
import { IsArray, IsInt, IsOptional, IsString, Max, Min, ValidateNested } from 'class-validator';
import type { Request, Response } from 'express';
import multer from 'multer';
import { Problem } from '../../core/tape/problem.ts';
import { EngineGone, GivenUp } from '../engine/host.ts';
import { answerError, body, checked, HttpProblem, noteForbiddenKeys, queryText } from './check.ts';

/** How requests are checked at the edge, and how every error is answered. */

class Inner {
  @IsInt()
  @Min(1)
  @Max(9)
  size!: number;
}
class Outer {
  @IsString()
  name!: string;

  @IsOptional()
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => Inner)
  parts?: Inner[];
}
const problemOf = (work: () => unknown): Pick<Problem, 'code' | 'field' | 'value' | 'rule' | 'message'> => {
  try {
    work();
  } catch (error) {
    if (error instanceof Problem) return error;
    throw error;
  }
  throw new Error('nothing was refused');
};

describe('a body', () => {
  const read = (plain: unknown, bytes?: string) => {
    const request = { body: plain } as Request;
    if (bytes !== undefined) noteForbiddenKeys(request, null, Buffer.from(bytes));
    return body(Outer, request);
  };
  test('becomes an instance of its class, its parts too', () => {
    const found = read({ name: 'Rivals', parts: [{ size: 3 }] });
    expect(found).toBeInstanceOf(Outer);
    expect(found.parts![0]).toBeInstanceOf(Inner);
  });
  test('that is no object is refused as such', () => {
    for (const plain of [undefined, null, 7, 'text', [1]])
      expect(problemOf(() => read(plain))).toMatchObject({
        code: 'wrong-body',
        rule: expect.stringContaining('JSON object'),
      });
  });
  test('is refused naming the field within, the value and the rule', () => {
    const { code, field, value, rule, message } = problemOf(() => read({ name: 'a', parts: [{ size: 12 }] }));
    expect([code, field, value]).toEqual(['wrong-value', 'parts.0.size', 12]);
    expect(rule).toBe('size must not be greater than 9');
    expect(message).toBe('size must not be greater than 9.');
  });
  test('with a key nobody knows is refused by its name, also within', () => {
    expect(problemOf(() => read({ name: 'a', colour: 'red' }))).toMatchObject({
      code: 'unknown-key',
      field: 'colour',
    });
    expect(problemOf(() => read({ name: 'a', parts: [{ size: 1, depth: 2 }] }))).toMatchObject({
      code: 'unknown-key',
      field: 'parts.0.depth',
    });
  });
  test('with the key that names what every object has is refused, however deep', () => {
    const text = '{"name":"a","parts":[{"size":1,"__proto__":{"size":2}}]}';
    expect(problemOf(() => read(JSON.parse(text), text))).toMatchObject({
      code: 'unknown-key',
      field: '__proto__',
    });
    // A text that speaks of it is none.
    expect(read({ name: 'about __proto__' }, '{"name":"about __proto__"}').name).toBe('about __proto__');
  });
  test('checked for itself says the same', () => {
    expect(problemOf(() => checked(Outer, { name: 7 }))).toMatchObject({ field: 'name', value: 7 });
  });
});

describe('an error', () => {
  const answered = (error: unknown, headersSent = false) => {
    const logged = jest.fn();
    const passed = jest.fn();
    let status = 200;
    let sent: { error: Record<string, unknown> } | null = null;
    const headers: Record<string, string> = { 'content-disposition': 'attachment' };
    const response = {
      headersSent,
      locals: { id: 'r1' },
      removeHeader: (name: string) => delete headers[name],
      set: (name: string, value: string) => (headers[name] = value),
      status: (code: number) => {
        status = code;
        return { json: (said: never) => (sent = said) };
      },
    } as unknown as Response;
    const request = {
      app: { get: (name: string) => (name === 'log' ? { error: logged } : 200) },
    } as unknown as Request;
    answerError(error, request, response, passed);
    return {
      status,
      error: (sent as { error: Record<string, unknown> } | null)?.error ?? null,
      headers,
      logged,
      passed,
    };
  };
  test('of the request says field, value and rule, as 400 or the status it names', () => {
    const wrong = new Problem('wrong-value', 'No.', { field: 'size', value: 12, rule: 'at most 9' });
    expect(answered(wrong)).toMatchObject({
      status: 400,
      error: { code: 'wrong-value', message: 'No.', field: 'size', value: 12, rule: 'at most 9' },
    });
    expect(answered(new HttpProblem(404, 'unknown-list', 'There is none.')).status).toBe(404);
  });
  test('shows long values cut, and large ones not at all', () => {
    const long = answered(
      new Problem('wrong-value', 'x'.repeat(5000), { field: 'f', value: 'y'.repeat(5000) }),
    );
    expect((long.error!.message as string).length).toBe(1002);
    expect((long.error!.value as string).length).toBe(202);
    const large = answered(new Problem('wrong-value', 'No.', { value: { all: 'z'.repeat(500) } }));
    expect(large.error!.value).toBeUndefined();
    expect(answered(new Problem('wrong-value', 'No.', { value: { a: 1 } })).error!.value).toEqual({ a: 1 });
  });
  test('of the counting threads asks to come again', () => {
    const { status, headers } = answered(new EngineGone('gone'));
    expect([status, headers['retry-after']]).toEqual([503, '1']);
  });
  test('of an upload, of a body too large and of no JSON each has its words', () => {
    expect(answered(new multer.MulterError('LIMIT_FILE_SIZE'))).toMatchObject({
      status: 413,
      error: { code: 'too-large', message: expect.stringContaining('at most 200 MB') },
    });
    expect(answered(new multer.MulterError('LIMIT_UNEXPECTED_FILE'))).toMatchObject({ status: 400 });
    expect(answered({ type: 'entity.too.large', status: 413 })).toMatchObject({ status: 413 });
    expect(answered(Object.assign(new Error('at 3'), { type: 'entity.parse.failed' }))).toMatchObject({
      status: 400,
      error: { code: 'malformed-json' },
    });
    expect(answered(Object.assign(new Error('gone'), { status: 410 })).status).toBe(410);
  });
  test('of a full or a read-only disk says what to do, and is not the program’s', () => {
    const full = answered(Object.assign(new Error('full'), { code: 'SQLITE_FULL' }));
    expect(full).toMatchObject({ status: 507, error: { code: 'no-space' } });
    expect(full.logged).not.toHaveBeenCalled();
    expect(answered(Object.assign(new Error('ro'), { code: 'SQLITE_READONLY' }))).toMatchObject({
      status: 507,
      error: { code: 'read-only' },
    });
  });
  test('of the program is logged, and answered without a word of where it was', () => {
    const { status, error, logged, headers } = answered(new TypeError('x is not a function'));
    expect([status, error!.code]).toEqual([500, 'program-error']);
    expect(JSON.stringify(error)).not.toMatch(/x is not|\.ts\b|node_modules/);
    expect(logged).toHaveBeenCalledTimes(1);
    // What a file would have been sent with is no header of the answer.
    expect(headers).not.toHaveProperty('content-disposition');
  });
  test('of somebody who has gone is answered to nobody, and one after the answer began is passed on', () => {
    expect(answered(new GivenUp('gone'))).toMatchObject({ error: null });
    const late = answered(new Error('late'), true);
    expect([late.error, late.passed.mock.calls.length]).toEqual([null, 1]);
  });
});

test('a text of the query is the first 200 characters, and empty where it is none', () => {
  const query = { text: 'a'.repeat(300), twice: ['a', 'b'] };
  const request = { query } as unknown as Request;
  expect([
    queryText(request, 'text').length,
    queryText(request, 'twice'),
    queryText(request, 'none'),
  ]).toEqual([200, '', '']);
});
