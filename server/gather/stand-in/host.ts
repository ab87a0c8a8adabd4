import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { hashOf } from '../../../core/text/hash.ts';
import { addressBefore, companySite } from './company-site.ts';
import type { StandInFirms } from './firms.ts';
import { htmlAnswer, page, type StandInAnswer } from './html.ts';
import { REGISTER_HOST, REGISTER_NAME, tradesRegister } from './trades-register.ts';
import { GUIDE_HOST, GUIDE_NAME, workshopGuide } from './workshop-guide.ts';

/** How the stand-in behaves towards those who read it. */
export interface Manners {
  /** One page in so many fails at its first two readings, and one in so many is slow. */
  failing: number;
  slow: number;
  /** How slow, in ms. */
  slowMs: number;
  /** Pages that may be read within a second before readers are asked to wait. */
  quickest: number;
}

const MANNERS: Manners = { failing: 17, slow: 29, slowMs: 700, quickest: 12 };
/** Bytes of what is posted, at most. */
const MOST_POSTED = 64 * 1024;

const ROBOTS: Readonly<Record<string, string>> = {
  [GUIDE_HOST]: 'User-agent: *\nDisallow: /members/\n',
  [REGISTER_HOST]: 'User-agent: *\nCrawl-delay: 1\nDisallow: /private/\n',
};

/**
 * The stand-in web: two directories and the sites of their firms, on a port of their own of this machine. Each is a host
 * below .example, which is told by the Host of a request, or by a path that begins with /on/ and the host's name.
 */
export class StandInWeb {
  private readonly server: Server;
  private readonly firms: StandInFirms;
  private readonly manners: Manners;
  private readonly readings = new Map<string, number>();
  /** When the pages of each host were read within the last second. */
  private readonly lately = new Map<string, number[]>();

  private constructor(firms: StandInFirms, manners: Manners) {
    this.firms = firms;
    this.manners = manners;
    this.server = createServer((request, response) => void this.answer(request, response));
  }

  static async start(firms: StandInFirms, manners: Partial<Manners> = {}): Promise<StandInWeb> {
    const web = new StandInWeb(firms, { ...MANNERS, ...manners });
    await new Promise<void>((resolve) => web.server.listen(0, '127.0.0.1', resolve));
    web.server.unref();
    return web;
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port;
  }

  get origin(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async stop(): Promise<void> {
    this.server.closeAllConnections();
    await new Promise((resolve) => this.server.close(resolve));
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const posted = await bodyOf(request);
    const answer = posted === null ? htmlAnswer('too much', 413) : await this.answerTo(request, posted);
    response.writeHead(answer.status, { 'content-type': answer.type, ...answer.headers });
    response.end(answer.body);
  }

  private async answerTo(request: IncomingMessage, posted: string): Promise<StandInAnswer> {
    const named = (request.headers.host ?? '').split(':')[0]!.toLowerCase();
    let url: URL;
    try {
      url = new URL(request.url ?? '/', this.origin);
    } catch {
      return htmlAnswer('<h1>400</h1>', 400);
    }
    const within = /^\/on\/([a-z0-9.-]{1,253})(\/.*)?$/.exec(url.pathname);
    const [host, root, path] = within
      ? [within[1]!, `/on/${within[1]!}`, within[2] ?? '/']
      : [named, '', url.pathname];
    if (path === '/robots.txt') return { status: 200, type: 'text/plain', body: ROBOTS[host] ?? '' };
    const trouble = await this.trouble(host, `${host}${path}${url.search}`);
    if (trouble) return trouble;
    const asked = request.method === 'POST' ? new URLSearchParams(posted) : url.searchParams;
    return (
      this.pageOf(host, root, path, asked) ?? htmlAnswer('<h1>404</h1><p>There is no such page.</p>', 404)
    );
  }

  private pageOf(host: string, root: string, path: string, asked: URLSearchParams): StandInAnswer | null {
    if (host === GUIDE_HOST) return workshopGuide(this.firms.all, root, path, asked);
    if (host === REGISTER_HOST) return tradesRegister(this.firms.all, root, path, asked);
    const firm = this.firms.at(addressBefore(host));
    if (firm) return companySite(firm, host, root, path);
    return path === '/' && (host === '127.0.0.1' || host === 'localhost') ? htmlAnswer(FRONT) : null;
  }

  /** Whether a page fails, is slow, or its reader is too quick; null where it is answered as it is. */
  private async trouble(host: string, what: string): Promise<StandInAnswer | null> {
    const { failing, slow, slowMs, quickest } = this.manners;
    const now = Date.now();
    const lately = (this.lately.get(host) ?? []).filter((at) => at > now - 1000);
    if (lately.length >= quickest)
      return { ...htmlAnswer('<h1>429</h1><p>Not so quick.</p>', 429), headers: { 'retry-after': '1' } };
    this.lately.set(host, [...lately, now]);
    const nth = (this.readings.get(what) ?? 0) + 1;
    this.readings.set(what, nth);
    if (failing && nth <= 2 && hashOf(`fails ${what}`) % failing === 0)
      return htmlAnswer('<h1>503</h1>', 503);
    if (slow && hashOf(`slow ${what}`) % slow === 0)
      await new Promise((resolve) => setTimeout(resolve, slowMs));
    return null;
  }
}

const FRONT = page(
  'The stand-in web',
  'body{font:15px sans-serif;margin:30px}',
  `<h1>The stand-in web</h1><p>Made-up directories of made-up firms, on this machine alone.</p><ul><li><a href="/on/${GUIDE_HOST}/">${GUIDE_NAME}</a></li><li><a href="/on/${REGISTER_HOST}/">${REGISTER_NAME}</a></li></ul>`,
);

async function bodyOf(request: IncomingMessage): Promise<string | null> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_POSTED) return null;
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}
