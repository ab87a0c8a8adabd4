import { readFileSync } from 'node:fs';
import type { GatherSpecBody } from '../../contract/gather.ts';
import type {
  AroundAnswer,
  GatheredAnswer,
  GathererAnswer,
  GatherRunView,
  LookAnswer,
  PageAnswer,
  PagesAnswer,
  RunPart,
} from '../../contract/gather-views.ts';
import { TestServer } from './test-server.ts';
import { until } from './until.ts';

/** A server whose stand-in web is read as quickly as it can be: no pauses, and what fails is tried again at once. */
export class GatherDesk extends TestServer {
  async open(manners: { failing?: number; slow?: number } = {}): Promise<void> {
    await this.start(20, {
      pauses: [1, 1, 1],
      manners: { failing: 0, slow: 0, quickest: 1e9, ...manners },
    });
  }

  async made(name: string, spec: Partial<GatherSpecBody>): Promise<GathererAnswer> {
    const answer = await this.api.post('/api/gather/gatherers').send({ name, spec: { pause: 0.1, ...spec } });
    if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    return answer.body as GathererAnswer;
  }

  async page(gatherer: string, wish: object): Promise<PageAnswer['page']> {
    const answer = await this.api.post(`/api/gather/gatherers/${gatherer}/pages`).send(wish);
    if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    return (answer.body as PageAnswer).page;
  }

  /** Pages that came in a file. */
  async saved(gatherer: string, name: string, html: string | Buffer): Promise<PagesAnswer['pages']> {
    const answer = await this.api
      .post(`/api/gather/gatherers/${gatherer}/saved`)
      .attach('file', Buffer.from(html), name);
    return (answer.body as PagesAnswer).pages;
  }

  async view(page: number): Promise<string> {
    return (await this.api.get(`/api/gather/pages/${page}/view`)).text;
  }

  /** Number of the nth element of a page whose tag and class begin so: "h3", "div.firm". */
  async node(page: number, what: string, nth = 0): Promise<number> {
    const [tag, name] = what.split('.');
    const html = await this.view(page);
    const found = [
      ...html.matchAll(new RegExp(`<${tag} data-node="(\\d+)"${name ? ` class="${name}` : ''}`, 'g')),
    ];
    return Number(found[nth]![1]);
  }

  async look(page: number, spec: GatherSpecBody): Promise<LookAnswer> {
    const answer = await this.api.post('/api/gather/look').send({ page, spec });
    if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
    return answer.body as LookAnswer;
  }

  async around(page: number, node: number, rows: number[] = []): Promise<AroundAnswer> {
    return (await this.api.post('/api/gather/around').send({ page, node, rows })).body as AroundAnswer;
  }

  /** Teaches a gatherer of the Workshop Guide by its first row, and one like it that holds more. */
  async taught(name: string, spec: Partial<GatherSpecBody>): Promise<GathererAnswer> {
    const start = {
      start: 'http://workshop-guide.example/',
      steps: [
        { do: 'type' as const, into: 'What', text: '{word}' },
        { do: 'type' as const, into: 'Where', text: '{place}' },
        { do: 'press' as const, button: 'Search' },
      ],
      ...spec,
    };
    const made = await this.made(name, start);
    const page = await this.page(made.id, { word: spec.words?.[0] ?? '', place: spec.places?.[0] ?? '' });
    const rows = await this.around(page.id, await this.node(page.id, 'h3'));
    const row = {
      page: page.id,
      node: rows.choices[rows.best]!.node,
      as: 'row' as const,
      fields: rows.fields,
    };
    const small = await this.around(page.id, await this.node(page.id, 'strong'), [row.node]);
    const examples = [
      row,
      ...(rows.another ? [{ page: page.id, as: 'row' as const, ...rows.another }] : []),
      { page: page.id, node: small.choices[small.best]!.node, as: 'row' as const, fields: small.fields },
    ];
    return (
      await this.api.put(`/api/gather/gatherers/${made.id}`).send({ name, spec: { ...made.spec, examples } })
    ).body as GathererAnswer;
  }

  async run(gatherer: string): Promise<GatherRunView> {
    const answer = await this.api.post(`/api/gather/gatherers/${gatherer}/runs`);
    if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    return (answer.body as { run: GatherRunView }).run;
  }

  async act(run: string, act: string): Promise<GatherRunView> {
    return ((await this.api.post(`/api/gather/runs/${run}/act`).send({ act })).body as { run: GatherRunView })
      .run;
  }

  /** The run once it is in one of these states. */
  async until(run: string, ...states: GatherRunView['state'][]): Promise<GatherRunView> {
    return until(
      async () => ((await this.api.get(`/api/gather/runs/${run}`)).body as { run: GatherRunView }).run,
      ({ state }) => states.includes(state),
    );
  }

  async rows(run: string, part: RunPart = 'records'): Promise<GatheredAnswer> {
    return (await this.api.get(`/api/gather/runs/${run}/rows?part=${part}&limit=500`)).body as GatheredAnswer;
  }

  /** A page with markup that tries everything. */
  get hostile(): Buffer {
    return readFileSync('server/testing/hostile-page.html');
  }
}
