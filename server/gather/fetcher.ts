import iconv from 'iconv-lite';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import robotsParser from 'robots-parser';
import { bareHost } from '../../core/gather/site-state.ts';
import type { PageRequest } from '../../core/gather/forms.ts';
import type { Db } from '../db/open.ts';
import { resolvedHost, type LookUp } from '../programs/hosts.ts';
import { gatherHost } from '../tables/gather/gatherers.ts';

/** Who reads, as pages and robots.txt know it. */
export const AGENT = 'JustTally';
/** Bytes of a page at most; more is no page that somebody reads. */
export const MOST_BYTES = 6 * 2 ** 20;
/** Longest that a page is waited for, and how often it may lead on, in ms. */
const [LONGEST, REDIRECTS] = [20_000, 5];
/** How long what robots.txt says is believed, in ms. */
const BELIEVED = 3_600_000;

/** Why a page was not read. */
export class PageTrouble extends Error {
  /** What is the matter: it may be tried again, it is not allowed, or it is no page for good. */
  readonly kind: 'again' | 'not-allowed' | 'never';
  /** Seconds that the host asks to wait. */
  readonly wait: number | null;
  /** The host that the page leads on to. */
  readonly movedTo: string | null;

  constructor(
    kind: PageTrouble['kind'],
    message: string,
    { wait = null, movedTo = null }: { wait?: number | null; movedTo?: string | null } = {},
  ) {
    super(message);
    this.kind = kind;
    this.wait = wait;
    this.movedTo = movedTo;
  }
}

export interface FetchedPage {
  url: string;
  html: string;
}

interface Robots {
  at: number;
  allows(url: string): boolean;
  /** Seconds between pages that it asks for. */
  delay: number;
}

export interface FetcherNeeds {
  db: Db;
  /** Port of the stand-in web, which has all hosts below .example. */
  standIn(): number;
  lookUp?: LookUp;
}

/**
 * Reads pages politely: one at a time of a host, a pause between two, what robots.txt forbids left alone. Only the stand-in
 * and hosts that the owner named are read, and none in a private network unless it was named as that.
 */
export class Fetcher {
  private readonly needs: FetcherNeeds;
  private readonly robots = new Map<string, Robots>();
  private readonly lines = new Map<string, { free: number; last: Promise<unknown> }>();

  constructor(needs: FetcherNeeds) {
    this.needs = needs;
  }

  /** @param pause seconds between two pages of a host; longer where robots.txt asks for it. @throws PageTrouble */
  async page(request: PageRequest, pause: number): Promise<FetchedPage> {
    const url = this.addressOf(request.url);
    const robots = await this.robotsOf(url);
    if (!robots.allows(url.href))
      throw new PageTrouble('not-allowed', `robots.txt of ${url.hostname} asks that this page is not read.`);
    return this.inLine(url.host, Math.max(pause, robots.delay) * 1000, () =>
      this.read({ ...request, url: url.href }, REDIRECTS),
    );
  }

  /**
   * The front page of a website, with or without "www.". No pause is kept, since it is one page of its host.
   * @throws PageTrouble
   */
  async front(address: string): Promise<FetchedPage> {
    const url = this.addressOf(address);
    const robots = await this.robotsOf(url);
    if (!robots.allows(url.href))
      throw new PageTrouble('not-allowed', `robots.txt of ${url.hostname} asks that this page is not read.`);
    return this.read({ method: 'get', url: url.href, body: null }, REDIRECTS, true);
  }

  /** Seconds between two pages of an address's host. */
  async pauseOf(address: string, pause: number): Promise<number> {
    const robots = await this.robotsOf(this.addressOf(address)).catch(() => null);
    return Math.max(pause, robots?.delay ?? 0);
  }

  /** One after the other of a host, with a pause between. */
  private async inLine<T>(host: string, pause: number, work: () => Promise<T>): Promise<T> {
    const line = this.lines.get(host) ?? { free: 0, last: Promise.resolve() };
    this.lines.set(host, line);
    const own = line.last.then(async () => {
      const wait = line.free - Date.now();
      if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
      try {
        return await work();
      } finally {
        line.free = Date.now() + pause;
      }
    });
    line.last = own.catch(() => undefined);
    return own;
  }

  private addressOf(text: string): URL {
    let url: URL;
    try {
      url = new URL(text);
    } catch {
      throw new PageTrouble('never', `“${text}” is no address.`);
    }
    if (url.protocol !== 'http:' && url.protocol !== 'https:')
      throw new PageTrouble('never', `A page is not read by ${url.protocol}`);
    if (url.username || url.password)
      throw new PageTrouble('never', 'An address with a name and a password is not read.');
    // The stand-in speaks no TLS.
    if (this.isStandIn(url)) url.protocol = 'http:';
    return url;
  }

  private isStandIn(url: URL): boolean {
    return (
      /(?:^|\.)example$/.test(url.hostname) ||
      ((url.hostname === '127.0.0.1' || url.hostname === 'localhost') &&
        url.port === String(this.needs.standIn()))
    );
  }

  private async robotsOf(url: URL): Promise<Robots> {
    const known = this.robots.get(url.host);
    if (known && known.at > Date.now() - BELIEVED) return known;
    const where = `${url.protocol}//${url.host}/robots.txt`;
    let text = '';
    try {
      text = (await this.read({ method: 'get', url: where, body: null }, REDIRECTS)).html;
    } catch (error) {
      // None is no rule (RFC 9309); a host that is not allowed or not there is told when the page is asked for.
      if (error instanceof PageTrouble && error.kind === 'not-allowed') throw error;
    }
    const parsed = robotsParser(where, text);
    const robots: Robots = {
      at: Date.now(),
      allows: (address) => parsed.isAllowed(address, AGENT) !== false,
      delay: Math.min(600, parsed.getCrawlDelay(AGENT) ?? 0),
    };
    this.robots.set(url.host, robots);
    return robots;
  }

  /** @param www whether a host with and without "www." is one */
  private async read(request: PageRequest, redirects: number, www = false): Promise<FetchedPage> {
    const url = this.addressOf(request.url);
    const { status, location, bytes, charset, wait } = await this.ask(url, request);
    if (status >= 300 && status < 400 && location !== null) {
      if (redirects === 0) throw new PageTrouble('never', 'The page leads on without end.');
      const next = this.addressOf(new URL(location, url).href);
      if (www ? bareHost(next.hostname) !== bareHost(url.hostname) : next.host !== url.host)
        throw new PageTrouble('never', `The page leads on to another host, ${next.host}.`, {
          movedTo: bareHost(next.hostname),
        });
      return this.read({ method: 'get', url: next.href, body: null }, redirects - 1, www);
    }
    if (status === 429 || status >= 500)
      throw new PageTrouble(
        'again',
        `${url.hostname} answered ${status}${status === 429 ? ', not so quick' : ''}.`,
        { wait },
      );
    if (status >= 400) throw new PageTrouble('never', `${url.hostname} answered ${status}.`);
    return { url: url.href, html: decoded(bytes, charset) };
  }

  private async ask(url: URL, request: PageRequest): Promise<Answer> {
    const own = this.isStandIn(url);
    const to = own ? { address: '127.0.0.1', family: 4 } : await this.allowed(url);
    const ask = url.protocol === 'https:' ? httpsRequest : httpRequest;
    const headers: Record<string, string> = {
      'user-agent': AGENT,
      accept: 'text/html',
      'accept-encoding': 'identity',
      host: url.host,
    };
    if (request.body !== null) headers['content-type'] = 'application/x-www-form-urlencoded';
    return new Promise((resolve, reject) => {
      const trouble = (error: NodeJS.ErrnoException) =>
        reject(
          error instanceof PageTrouble
            ? error
            : new PageTrouble(
                'again',
                error.name === 'AbortError' || error.name === 'TimeoutError'
                  ? `${url.hostname} did not answer within ${LONGEST / 1000} seconds.`
                  : `${url.hostname} could not be read: ${error.code ?? error.message}.`,
              ),
        );
      const sent = ask(
        {
          host: to.address,
          family: to.family,
          port: own ? this.needs.standIn() : url.port || undefined,
          servername: url.hostname,
          path: `${url.pathname}${url.search}`,
          method: request.method.toUpperCase(),
          headers,
          signal: AbortSignal.timeout(LONGEST),
        },
        (answer) => void take(answer, url).then(resolve, trouble),
      );
      sent.on('error', trouble);
      sent.end(request.body ?? undefined);
    });
  }

  private async allowed(url: URL): Promise<{ address: string; family: number }> {
    const host = gatherHost(this.needs.db, url.hostname);
    if (!host)
      throw new PageTrouble(
        'not-allowed',
        `${url.hostname} is not among the hosts that pages may be read from. Allow it under Gather, Hosts.`,
      );
    try {
      return await resolvedHost(url.hostname, host.private, this.needs.lookUp);
    } catch (error) {
      throw new PageTrouble('not-allowed', (error as Error).message);
    }
  }
}

interface Answer {
  status: number;
  location: string | null;
  bytes: Buffer;
  charset: string | null;
  wait: number | null;
}

async function take(answer: IncomingMessage, url: URL): Promise<Answer> {
  const kind = answer.headers['content-type'] ?? 'text/html';
  const status = answer.statusCode!;
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of answer as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_BYTES) {
      answer.destroy();
      throw new PageTrouble('never', `The page is larger than ${MOST_BYTES / 2 ** 20} MB.`);
    }
    chunks.push(chunk);
  }
  if (status < 300 && !/^(?:text\/|application\/(?:xhtml|xml|json))/i.test(kind))
    throw new PageTrouble('never', `${url.pathname} is ${kind.split(';')[0]}, no page.`);
  const after = Number(answer.headers['retry-after']);
  return {
    status,
    location: answer.headers.location ?? null,
    bytes: Buffer.concat(chunks),
    charset: /charset=["']?([\w-]{2,40})/i.exec(kind)?.[1] ?? null,
    wait: Number.isFinite(after) && after > 0 ? Math.min(3600, after) : null,
  };
}

/** A page's letters: by what its host says, by what it says itself, else UTF-8 where it is that, and Western European. */
export function decoded(bytes: Buffer, said: string | null): string {
  const head = bytes.subarray(0, 2048).toString('latin1');
  const own = /<meta[^>]{1,200}charset=["']?([\w-]{2,40})/i.exec(head)?.[1] ?? null;
  const named = [said, own].find((name) => name !== null && iconv.encodingExists(name));
  if (named) return iconv.decode(bytes, named);
  const text = bytes.toString('utf8');
  return text.includes('\ufffd') ? iconv.decode(bytes, 'windows-1252') : text;
}
