import { Router } from 'express';
import {
  CampaignBody,
  CampaignChangeBody,
  CheckAddressesBody,
  LeftOutBody,
  MessageBody,
  OutboxBody,
  PutBackBody,
  SeenBody,
} from '../../contract/outreach.ts';
import { ChosenPeopleBody } from '../../contract/right-people.ts';
import type {
  AddresseesAnswer,
  CampaignView,
  MorePeopleAnswer,
  PutOutAnswer,
  WritingAnswer,
} from '../../contract/outreach-views.ts';
import { rankProofs } from '../../core/outreach/proofs.ts';
import { STEPS, type Step } from '../../core/outreach/steps.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { calls } from '../engine/calls.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import { expectVersion } from '../http/versions.ts';
import { addPeople, changeDraft, fillAgain } from '../outreach/drafts.ts';
import type { CheckData } from '../outreach/check-worker.ts';
import { ownMailServer } from '../outreach/mail-server.ts';
import { sendMessages } from '../outreach/message-files.ts';
import { putOut } from '../outreach/put-out.ts';
import { addresseeView, campaignAnswer, standingOf } from '../outreach/standing.ts';
import type { Services } from '../services.ts';
import { contactsAt } from '../tables/contacts.ts';
import {
  addCampaign,
  campaignById,
  changeCampaign,
  companiesWithout,
  forgetWithout,
  noteWithout,
  removeCampaign,
} from '../tables/outreach/campaigns.ts';
import { allProofs, allTemplates } from '../tables/outreach/library.ts';
import {
  dropDraftsAfter,
  lastPlace,
  leaveOut,
  markSeen,
  messageTo,
  messageView,
  writtenTo,
  type MessageRow,
} from '../tables/outreach/messages.ts';
import { optedOut } from '../tables/outreach/outcomes.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';
import { companyKeys } from '../tables/keys.ts';
import { readSettings } from '../tables/workspace.ts';

const MOST_SHOWN = 500;
const MOST_PEOPLE = 100_000;

/** Campaigns: who is written to, what, and the way into the outbox. */
export function campaignRoutes(services: Services): Router {
  const { outreach, universe, workspace, engine } = services;
  const { db } = outreach;
  const routes = Router();
  const found = (id: string) => campaignById(db, id);
  const us = () => readSettings(workspace).person;
  const messageOf = (campaign: CampaignView, person: string): MessageRow => {
    const message = messageTo(db, campaign.id, person);
    if (!message)
      throw new HttpProblem(404, 'unknown-person', `${campaign.name} has nobody "${person}".`, {
        field: 'person',
        value: person,
      });
    return message;
  };

  /** Whom a request chooses, and what that is in words. */
  const chosen = async (wish: ChosenPeopleBody) => {
    const { tape, sort, keys, ranges, except, functions } = wish;
    const { subject, name } = tape as Tape;
    if (subject !== 'people' && subject !== 'companies')
      throw new Problem('wrong-subject', `Nobody can be written to of a tape on ${subject}.`, {
        field: 'tape.subject',
        value: subject,
        rule: 'people, or companies with the functions to write to',
      });
    if (subject === 'companies' && !functions)
      throw new Problem('no-functions', 'Say whom to write to at the companies.', {
        field: 'functions',
        rule: 'one to ten functions, the first that somebody holds counts',
      });
    const picks = { ...(keys && { keys }), ...(ranges && { ranges }), ...(except && { except }) };
    const { ids, without } = await engine.call(calls.recordsFor, [tape, sort, picks, 'people', functions]);
    if (ids.length > MOST_PEOPLE)
      throw new Problem(
        'too-many',
        `${ids.length.toLocaleString('en-GB')} are more than anybody writes to with care; at most ${MOST_PEOPLE.toLocaleString('en-GB')} go in a campaign.`,
        { field: 'tape', rule: `at most ${MOST_PEOPLE.toLocaleString('en-GB')}` },
      );
    const words = await engine.call(calls.wordsOf, [tape]);
    return {
      people: Array.from(ids, (id) => `person-${id}`),
      without: companyKeys(universe, without),
      what: (name ?? words.join('; ')) || `all ${subject}`,
    };
  };

  routes.post('/campaigns', async (request, response) => {
    const wish = body(CampaignBody, request);
    const { people, without, what } = await chosen(wish);
    const settings = readOutreachSettings(db);
    const templates = allTemplates(db);
    const template = wish.template ?? templates[0]?.name;
    if (!templates.some(({ name }) => name === template))
      throw new Problem(
        'unknown-template',
        template === undefined
          ? 'There is no template yet. Write one first.'
          : `There is no template “${template}”.`,
        { field: 'template', value: template, rule: 'the name of a template of the library' },
      );
    const id = addCampaign(db, {
      ...{ name: wish.name.trim(), person: us(), what, template: template!, trigger: 'named' },
      functions: wish.functions ?? null,
      ...{ certainty: settings.certainty, words: settings.words },
      ...{ quietDays: settings.quietDays, askProof: settings.askProof },
    });
    try {
      noteWithout(db, id, without);
      await addPeople(outreach, found(id), people);
    } catch (error) {
      removeCampaign(db, id);
      throw error;
    }
    response.status(201).json(await campaignAnswer(services, id));
  });
  routes.get('/campaigns/:id', async (request, response) => {
    response.json(await campaignAnswer(services, request.params.id));
  });
  routes.patch('/campaigns/:id', async (request, response) => {
    const { id } = found(request.params.id);
    const wish = body(CampaignChangeBody, request);
    if (wish.template !== undefined && !allTemplates(db).some(({ name }) => name === wish.template))
      throw new Problem('unknown-template', `There is no template “${wish.template}”.`, {
        field: 'template',
        value: wish.template,
        rule: 'the name of a template of the library',
      });
    changeCampaign(db, id, wish);
    if (wish.template !== undefined || wish.trigger !== undefined) await fillAgain(outreach, found(id));
    response.json(await campaignAnswer(services, id));
  });
  routes.delete('/campaigns/:id', (request, response) => {
    removeCampaign(db, found(request.params.id).id);
    response.status(204).end();
  });

  routes.post('/campaigns/:id/people', async (request, response) => {
    const campaign = found(request.params.id);
    const { people, without } = await chosen(body(ChosenPeopleBody, request));
    const after = lastPlace(db, campaign.id);
    const added = await addPeople(outreach, campaign, people);
    response.json({
      ...{ added, after, without: noteWithout(db, campaign.id, without) },
      ...(await campaignAnswer(services, campaign.id)),
    } satisfies MorePeopleAnswer);
  });
  routes.delete('/campaigns/:id/people', async (request, response) => {
    const { id } = found(request.params.id);
    const { after, added, without } = body(PutBackBody, request);
    const removed = dropDraftsAfter(db, id, after, added);
    forgetWithout(db, id, without);
    response.json({ removed, ...(await campaignAnswer(services, id)) });
  });
  routes.get('/campaigns/:id/people', async (request, response) => {
    const standing = await standingOf(services, found(request.params.id));
    const step = stepOf(queryText(request, 'step'));
    const offset = Number(queryText(request, 'offset') || 0);
    const limit = Number(queryText(request, 'limit') || MOST_SHOWN);
    if (
      !Number.isInteger(offset) ||
      offset < 0 ||
      !Number.isInteger(limit) ||
      limit < 1 ||
      limit > MOST_SHOWN
    )
      throw new Problem('wrong-value', 'Say from which row on, and how many.', {
        field: 'limit',
        value: limit,
        rule: `whole numbers, at most ${MOST_SHOWN} at once`,
      });
    const like = standing.filter((one) => step === undefined || one.step === step);
    response.json({
      total: like.length,
      people: like.slice(offset, offset + limit).map(addresseeView),
    } satisfies AddresseesAnswer);
  });
  routes.get('/campaigns/:id/without', (request, response) => {
    response.json({ companies: companiesWithout(db, found(request.params.id).id) });
  });
  routes.post('/campaigns/:id/left-out', async (request, response) => {
    const { id } = found(request.params.id);
    const { people, leftOut } = body(LeftOutBody, request);
    const changed = leaveOut(db, id, people, leftOut);
    response.json({ changed, ...(await campaignAnswer(services, id)) });
  });

  routes.get('/campaigns/:id/messages/:person', async (request, response) => {
    const campaign = found(request.params.id);
    const message = messageOf(campaign, request.params.person);
    const facts = outreach.facts.of([message.person]).get(message.person) ?? null;
    const standing = (await standingOf(services, campaign)).find((one) => one.message.id === message.id);
    const gone = optedOut(db);
    const mail = message.mail ?? facts?.mail ?? null;
    const company = facts?.company ?? null;
    response.json({
      message: messageView(message),
      facts,
      step: standing?.step ?? null,
      proofs: rankProofs(allProofs(db), {
        codes: company?.codes ?? [],
        technologies: company?.technologies.map(({ key }) => key) ?? [],
        headcount: company?.headcount ?? null,
      }),
      written: writtenTo(db, message.person, mail, message.id),
      known:
        message.company === null
          ? []
          : contactsAt(workspace, message.company).map(({ name, title }) => ({ name, title })),
      optedOut: gone.people.has(message.person) || (mail !== null && gone.mails.has(mail.toLowerCase())),
    } satisfies WritingAnswer);
  });
  routes.put('/campaigns/:id/messages/:person', (request, response) => {
    const campaign = found(request.params.id);
    const message = messageOf(campaign, request.params.person);
    const wish = body(MessageBody, request);
    const now = () => messageView(messageOf(campaign, message.person));
    expectVersion(request, String(message.version), `The message to ${message.name}`, now);
    if (!changeDraft(outreach, message, campaign, wish))
      throw new HttpProblem(
        409,
        'no-draft',
        `The message to ${message.name} is on its way and cannot be changed.`,
        {
          field: 'person',
          value: message.person,
          rule: 'a draft',
        },
      );
    response.json({ message: now() });
  });
  routes.post('/campaigns/:id/seen', (request, response) => {
    const campaign = found(request.params.id);
    db.transaction(() => {
      for (const person of body(SeenBody, request).people) markSeen(db, messageOf(campaign, person).id);
    })();
    response.status(204).end();
  });

  routes.post('/campaigns/:id/check', async (request, response) => {
    const campaign = found(request.params.id);
    const { people } = body(CheckAddressesBody, request);
    if (ownMailServer(services.dir))
      throw new HttpProblem(
        409,
        'no-stand-in',
        'Mail hosts of the world are not asked: only the stand-in is.',
        {
          rule: 'no mail server of one’s own',
        },
      );
    const wished = people && new Set(people);
    const mails = (await standingOf(services, campaign)).flatMap(({ message, address }) =>
      message.state === 'draft' && address.mail !== null && (!wished || wished.has(message.person))
        ? [address.mail]
        : [],
    );
    if (mails.length === 0)
      throw new Problem('nobody', 'None of them has an address that can be asked for.', { field: 'people' });
    const from = readOutreachSettings(db).mail ?? 'nobody@here.example';
    const job = services.jobs.start(
      'check',
      `Ask mail hosts for ${mails.length.toLocaleString('en-GB')} addresses`,
      'server/outreach/check-worker',
      { dir: services.dir, mails, from, port: outreach.mailHost } satisfies CheckData,
      () => {},
    );
    response.status(202).json({ job });
  });
  routes.post('/campaigns/:id/outbox', async (request, response) => {
    const campaign = found(request.params.id);
    const { people } = body(OutboxBody, request);
    const put = await putOut(services, campaign, people ?? null, us());
    response.json({ put, campaign: await campaignAnswer(services, campaign.id) } satisfies PutOutAnswer);
  });
  routes.get('/campaigns/:id/file', async (request, response) => {
    await sendMessages(services, found(request.params.id), queryText(request, 'format'), response);
  });
  return routes;
}

/** A step of a roll: "today" for those who go out, undefined for all. */
function stepOf(text: string): Step | null | undefined {
  if (text === '' || text === 'chosen') return undefined;
  if (text === 'today') return null;
  if ((STEPS as readonly string[]).includes(text)) return text as Step;
  throw new Problem('wrong-value', `"${text}" is no step of a campaign’s roll.`, {
    field: 'step',
    value: text,
    rule: ['chosen', 'today', ...STEPS].join(', '),
  });
}
