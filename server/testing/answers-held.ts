import { Ajv, type ValidateFunction } from 'ajv';
import type { Express, Response } from 'express';
import { answerSchemas } from '../http/answer-schemas.ts';

/** Holds every answer of a server under test to the shape that the API's description gives it. */
export function holdAnswers(app: Express): { wrong: string[] } {
  const { properties, definitions } = answerSchemas();
  const ajv = new Ajv({ strict: false, allErrors: false });
  ajv.addSchema({ $id: 'api', components: { schemas: definitions } });
  const checks = new Map<string, ValidateFunction>();
  const wrong: string[] = [];
  const checkOf = (call: string): ValidateFunction | undefined => {
    const schema = properties[call];
    if (schema && !checks.has(call)) {
      const text = JSON.stringify(schema).replaceAll('"#/components', '"api#/components');
      checks.set(call, ajv.compile(JSON.parse(text) as object));
    }
    return checks.get(call);
  };
  // eslint-disable-next-line @typescript-eslint/unbound-method -- called below with the response it is of
  const send = app.response.json;
  app.response.json = function (this: Response, body: unknown) {
    const { route, method } = this.req as { route?: { path: string }; method: string };
    const call = `${method.toLowerCase()} ${route?.path.replaceAll(/:(\w+)/g, '{$1}')}`;
    const check = this.statusCode < 300 ? checkOf(call) : undefined;
    // As it is sent: without what is undefined.
    const sent = JSON.parse(JSON.stringify(body)) as unknown;
    if (check && !check(sent)) wrong.push(`${call}: ${ajv.errorsText(check.errors)}`);
    return send.call(this, body);
  };
  return { wrong };
}
