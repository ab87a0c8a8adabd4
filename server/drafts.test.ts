import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import type {
  CampaignAnswer,
  MessageView,
  MorePeopleAnswer,
  WritingAnswer,
} from '../contract/outreach-views.ts';
import { everybody, OutreachDesk, stepsOf } from './testing/outreach-desk.ts';
import { tape } from './testing/test-server.ts';

/** Drafts through the API: filled from what is known, changed by hand, held to what a campaign asks, handed on as files. */

const server = new OutreachDesk();
beforeAll(() => server.open([]));
afterAll(() => server.stop());

describe('drafts', () => {
  const writing = async (id: string, person: string) =>
    (await server.api.get(`/api/campaigns/${id}/messages/${person}`)).body as WritingAnswer;
  let one: CampaignAnswer;
  let person: string;
  beforeEach(async () => {
    one = await server.campaign();
    const { people: all } = (await server.api.get(`/api/campaigns/${one.campaign.id}/people`)).body as {
      people: { person: string }[];
    };
    person = all[0]!.person;
  });

  test('are filled from what is known; what is not goes with its bracket, and the proof that fits is named', async () => {
    const { message, proofs, facts } = await writing(one.campaign.id, person);
    expect(message.subject).toBe('Air for Birch 1 a.s.');
    expect(message.body).toBe(
      'Dear Oto Other, clean air for Birch 1 a.s. Solvent in the air down by 71 %. May we call?',
    );
    expect(message.words).toBe(19);
    expect(proofs.map(({ text, fits }) => [text, fits])).toEqual([
      ['Solvent in the air down by 71 %', true],
      ['Boats need less', false],
    ]);
    expect(facts!.company).toMatchObject({ name: 'Birch 1 a.s.', town: 'Brno', codes: ['25.51'] });
  });

  test('keep what one writes while the template fills the others anew', async () => {
    const path = `/api/campaigns/${one.campaign.id}/messages/${person}`;
    const { message } = await writing(one.campaign.id, person);
    const written = await server.api
      .put(path)
      .set('If-Match', `"${message.version}"`)
      .send({ body: 'Dear Iva, may I call {when}?' });
    expect((written.body as { message: MessageView }).message).toMatchObject({
      body: 'Dear Iva, may I call {when}?',
      unfilled: ['when'],
      edited: true,
      proof: null,
    });
    const other = await server.api
      .put(path)
      .set('If-Match', `"${message.version}"`)
      .send({ body: 'Too late' });
    expect(other.status).toBe(409);
    await server.api.patch(`/api/campaigns/${one.campaign.id}`).send({ trigger: 'out' });
    expect((await writing(one.campaign.id, person)).message.body).toBe('Dear Iva, may I call {when}?');
    const again = await server.api.put(path).send({ template: 'Spray lines' });
    expect((again.body as { message: MessageView }).message).toMatchObject({ edited: false, unfilled: [] });
  });

  test('change their proof in the text where it stands', async () => {
    const path = `/api/campaigns/${one.campaign.id}/messages/${person}`;
    const boats = (await server.outreach()).proofs[1]!.id;
    await server.api.put(path).send({ body: 'Before. Solvent in the air down by 71 %. After.' });
    const answer = await server.api.put(path).send({ proof: boats });
    expect((answer.body as { message: MessageView }).message).toMatchObject({
      body: 'Before. Boats need less. After.',
      proof: boats,
    });
  });

  test('that are over the limit of words, or name no proof where one is asked, are rows of the roll', async () => {
    await server.api.patch(`/api/campaigns/${one.campaign.id}`).send({ words: 10 });
    const answer = await server.api.get(`/api/campaigns/${one.campaign.id}`);
    expect(stepsOf(answer.body as CampaignAnswer)['too-long']).toBeLessThan(0);
    const strict = await server.api
      .patch(`/api/campaigns/${one.campaign.id}`)
      .send({ words: 100, askProof: true });
    expect((strict.body as CampaignAnswer).roll.steps.map(({ step }) => step)).not.toContain('no-proof');
  });

  test('of the template in the language of the country come before the English one', async () => {
    const made = await server.api.post('/api/outreach/templates').send({
      name: 'Spray lines',
      language: 'cs',
      subject: 'Vzduch pro {company}',
      body: 'Dobrý den, {name}.',
    });
    const own = await server.campaign();
    expect((await writing(own.campaign.id, person)).message).toMatchObject({
      language: 'cs',
      subject: 'Vzduch pro Birch 1 a.s.',
    });
    const { id } = (made.body as { template: { id: string } }).template;
    expect((await server.api.delete(`/api/outreach/templates/${id}`)).status).toBe(204);
    const last = (await server.outreach()).templates[0]!;
    expect((await server.api.delete(`/api/outreach/templates/${last.id}`)).status).toBe(409);
  });

  test('of more people go again where that is taken back, with the companies noted to have nobody', async () => {
    const few = await server.campaign({ tape: everybody(), keys: [person], name: 'A few' });
    const path = `/api/campaigns/${few.campaign.id}/people`;
    const wish = { tape: tape([]), functions: [{ title: ['nobody is this'] }] };
    const put = (await server.api.post(path).send(wish)).body as MorePeopleAnswer;
    expect(put.campaign.people).toBe(few.campaign.people + put.added);
    expect(put.campaign.without).toBe(put.without.length);
    expect(put.without.length).toBeGreaterThan(0);
    const more = (await server.api.post(path).send({ tape: everybody() })).body as MorePeopleAnswer;
    expect(more.added).toBeGreaterThan(0);
    const backOf = ({ after, added, without }: MorePeopleAnswer) =>
      server.api.delete(path).send({ after, added, without });
    expect((await backOf(more)).body).toMatchObject({
      removed: more.added,
      campaign: { people: put.campaign.people, without: put.without.length },
    });
    expect((await backOf(put)).body).toMatchObject({ campaign: { people: few.campaign.people, without: 0 } });
  });

  test('go as files: a sheet for a mail merge, and mails', async () => {
    const { today } = (await server.api.get(`/api/campaigns/${one.campaign.id}`)).body as CampaignAnswer;
    const csv = await server.api.get(`/api/campaigns/${one.campaign.id}/file?format=csv`);
    const rows = parse<Record<string, string>>(csv.text, { bom: true, columns: true });
    expect(rows).toHaveLength(today.length);
    expect(rows[0]).toMatchObject({ 'First name': 'Oto', 'Last name': 'Other' });
    expect(rows[0]!.Message).toContain('Answer “no” and none of us writes again.');
    const zip = await server.api
      .get(`/api/campaigns/${one.campaign.id}/file?format=eml`)
      .buffer()
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect((zip.body as Buffer).subarray(0, 2).toString()).toBe('PK');
  });
});

describe('what is wrong is said', () => {
  test.each([
    ['post', '/outreach/templates', { name: 'x', subject: 'y', body: '{nobody}' }, 'no field of a template'],
    ['post', '/outreach/templates', { name: 'x', subject: 'a\nb', body: 'c' }, 'subject must be one line'],
    ['post', '/outreach/proofs', { text: 'x', from: 9, to: 3 }, 'ends before it begins'],
    ['post', '/outreach/proofs', { text: 'x', industries: ['wood'] }, 'NACE codes'],
    ['post', '/campaigns', { name: 'x', tape: tape([]) }, 'whom to write to'],
    ['post', '/campaigns', { name: 'x', tape: { ...tape([]), subject: 'deals' } }, 'tape on deals'],
    ['post', '/campaigns', { name: 'x', tape: everybody(), template: 'None' }, 'no template “None”'],
    ['put', '/outreach/server', { host: 'a b', port: 25 }, 'host must be'],
  ] as const)('%s %s %#', async (method, path, body, message) => {
    const answer = await server.api[method](`/api${path}`).send(body);
    expect(answer.status).toBe(400);
    expect((answer.body as { error: { message: string } }).error.message).toContain(message);
  });
  test('nothing goes out without an address of one’s own', async () => {
    await server.settings({ mail: null });
    expect((await server.outreach()).outbox.trouble).toContain('your own mail address');
  });
});
