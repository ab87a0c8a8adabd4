/** One call of the API. Parts of the path in braces are texts; bodies are checked by their class. */
export interface Endpoint {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below /api. */
  path: string;
  /** What it answers or does, in a few words. */
  does: string;
  body?: new () => object;
  /** A file instead of a body, as the part "file" of a form. */
  upload?: true;
  query?: readonly string[];
  /** Of an answer that is as wished; 200 where left out. */
  status?: 200 | 201 | 202 | 204;
  /** The kind of a file that is answered instead of JSON. */
  file?: string;
}

type More = Omit<Endpoint, 'method' | 'path' | 'does'>;
const call =
  (method: Endpoint['method']) =>
  (path: string, does: string, more: More = {}): Endpoint => ({ method, path, does, ...more });
export const [get, post, put, patch, remove] = [
  call('get'),
  call('post'),
  call('put'),
  call('patch'),
  call('delete'),
];
/** What takes long is a job, whose progress is asked for by its id. */
export const JOB = 202;
export const MADE = 201;
export const GONE = { status: 204 } as const;
