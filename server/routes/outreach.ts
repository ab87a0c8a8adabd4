import { Router } from 'express';
import multer from 'multer';
import {
  CancelBody,
  MailServerBody,
  OutreachSettingsBody,
  PauseBody,
  ProofBody,
  ReplyChangeBody,
  TemplateBody,
} from '../../contract/outreach.ts';
import {
  FIGURES_BY,
  type FiguresBy,
  type OutboxAnswer,
  type OutreachAnswer,
  type RepliesAnswer,
  type CompanyWrittenAnswer,
  type WrittenToAnswer,
} from '../../contract/outreach-views.ts';
import { REPLY_KINDS, type ReplyKind } from '../../core/outreach/reply-kind.ts';
import { readTemplate } from '../../core/outreach/template.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import { oneFile } from '../http/upload.ts';
import { outreachFigures } from '../outreach/figures.ts';
import { removeMailServer, writeMailServer } from '../outreach/mail-server.ts';
import { optOutOf } from '../outreach/take-reply.ts';
import type { Services } from '../services.ts';
import { joinedTo } from '../tables/company-joins.ts';
import { allCampaigns } from '../tables/outreach/campaigns.ts';
import {
  allProofs,
  allTemplates,
  removeProof,
  removeTemplate,
  writeProof,
  writeTemplate,
} from '../tables/outreach/library.ts';
import { messageView, writtenTo, writtenToCompany } from '../tables/outreach/messages.ts';
import { inOutbox, takeFromOutbox } from '../tables/outreach/outbox.ts';
import { allOutcomes, optBackIn, optedOut, outcomeOf } from '../tables/outreach/outcomes.ts';
import { changeReply, countReplies, repliesLike, replyById } from '../tables/outreach/replies.ts';
import { readOutreachSettings, setPaused, writeOutreachSettings } from '../tables/outreach/settings.ts';

const MOST_SHOWN = 200;
const MOST_MEGABYTES = 5;

/** What all campaigns share: settings, templates, proofs, the outbox, replies and figures. */
export function outreachRoutes(services: Services): Router {
  const { outreach, universe, dir, jobs, engine } = services;
  const { db, post } = outreach;
  const routes = Router();
  const upload = multer({ limits: { fileSize: MOST_MEGABYTES * 2 ** 20, files: 1 } });
  const unknown = (what: string, id: string) =>
    new HttpProblem(404, `unknown-${what}`, `There is no ${what} "${id}"; it may have been removed.`, {
      field: 'id',
      value: id,
    });

  routes.get('/outreach', (_request, response) => {
    const all = countReplies(db, { campaign: null, open: false });
    const open = countReplies(db, { campaign: null, open: true });
    const sum = (counts: Record<ReplyKind, number>) => Object.values(counts).reduce((a, b) => a + b, 0);
    response.json({
      settings: readOutreachSettings(db),
      templates: allTemplates(db),
      proofs: allProofs(db),
      campaigns: allCampaigns(db),
      outbox: post.state(),
      replies: { open: sum(open), all: sum(all) },
      outcomes: outcomesToLearn(services),
    } satisfies OutreachAnswer);
  });
  routes.put('/outreach/settings', (request, response) => {
    const settings = body(OutreachSettingsBody, request);
    if (settings.from >= settings.to)
      throw new Problem('wrong-value', 'Working hours end before they begin.', {
        field: 'to',
        value: settings.to,
        rule: `an hour after ${settings.from}`,
      });
    writeOutreachSettings(db, settings);
    response.json({ settings: readOutreachSettings(db), outbox: post.state() });
  });
  routes.put('/outreach/server', (request, response) => {
    writeMailServer(dir, body(MailServerBody, request));
    response.json({ outbox: post.state() });
  });
  routes.delete('/outreach/server', (_request, response) => {
    removeMailServer(dir);
    response.json({ outbox: post.state() });
  });

  const checkedTemplate = (wish: TemplateBody) => {
    readTemplate(wish.subject, 'subject');
    readTemplate(wish.body, 'body');
    return { ...wish, name: wish.name.trim() };
  };
  routes.post('/outreach/templates', (request, response) => {
    response.status(201).json({ template: writeTemplate(db, checkedTemplate(body(TemplateBody, request))) });
  });
  routes.put('/outreach/templates/:id', (request, response) => {
    const { id } = request.params;
    if (!allTemplates(db).some((one) => one.id === id)) throw unknown('template', id);
    response.json({ template: writeTemplate(db, checkedTemplate(body(TemplateBody, request)), id) });
  });
  routes.delete('/outreach/templates/:id', (request, response) => {
    const { id } = request.params;
    const template = allTemplates(db).find((one) => one.id === id);
    if (!template) throw unknown('template', id);
    const others = allTemplates(db).filter((one) => one.name === template.name && one.id !== id);
    const user = others.length ? undefined : allCampaigns(db).find((one) => one.template === template.name);
    if (user)
      throw new HttpProblem(
        409,
        'in-use',
        `The campaign “${user.name}” writes by it. Give that another first.`,
        {
          field: 'id',
          value: id,
          rule: 'a template that no campaign has',
        },
      );
    removeTemplate(db, id);
    response.status(204).end();
  });

  const checkedProof = (wish: ProofBody) => {
    if (wish.from !== null && wish.to !== null && wish.from > wish.to)
      throw new Problem('wrong-value', 'The size ends before it begins.', {
        field: 'to',
        value: wish.to,
        rule: `at least ${wish.from}`,
      });
    return wish;
  };
  routes.post('/outreach/proofs', (request, response) => {
    response.status(201).json({ proof: writeProof(db, checkedProof(body(ProofBody, request))) });
  });
  routes.put('/outreach/proofs/:id', (request, response) => {
    const { id } = request.params;
    if (!allProofs(db).some((one) => one.id === id)) throw unknown('proof', id);
    response.json({ proof: writeProof(db, checkedProof(body(ProofBody, request)), id) });
  });
  routes.delete('/outreach/proofs/:id', (request, response) => {
    if (!removeProof(db, request.params.id)) throw unknown('proof', request.params.id);
    response.status(204).end();
  });

  const outboxAnswer = (): OutboxAnswer => ({
    state: post.state(),
    messages: inOutbox(db, MOST_SHOWN).map(messageView),
  });
  routes.get('/outreach/outbox', (_request, response) => {
    response.json(outboxAnswer());
  });
  routes.post('/outreach/outbox/cancel', (request, response) => {
    const taken = takeFromOutbox(db, body(CancelBody, request).messages);
    response.json({ taken, ...outboxAnswer() });
  });
  routes.post('/outreach/outbox/pause', (request, response) => {
    setPaused(db, body(PauseBody, request).paused);
    response.json(outboxAnswer());
  });

  routes.get('/outreach/replies', (request, response) => {
    const kind = queryText(request, 'kind');
    if (kind !== '' && !(REPLY_KINDS as readonly string[]).includes(kind))
      throw new Problem('wrong-value', `"${kind}" is no kind of reply.`, {
        field: 'kind',
        value: kind,
        rule: REPLY_KINDS.join(', '),
      });
    const offset = Number(queryText(request, 'offset') || 0);
    if (!Number.isInteger(offset) || offset < 0)
      throw new Problem('wrong-value', 'Say from which reply on.', {
        field: 'offset',
        value: offset,
        rule: 'a whole number from 0',
      });
    const wish = {
      kind: kind === '' ? null : (kind as ReplyKind),
      campaign: queryText(request, 'campaign') || null,
      open: queryText(request, 'open') === 'true',
    };
    const counts = countReplies(db, wish);
    response.json({
      total: wish.kind === null ? Object.values(counts).reduce((a, b) => a + b, 0) : counts[wish.kind],
      replies: repliesLike(db, wish, offset, MOST_SHOWN),
      counts,
    } satisfies RepliesAnswer);
  });
  routes.patch('/outreach/replies/:id', async (request, response) => {
    const id = Number(request.params.id);
    const reply = Number.isSafeInteger(id) ? replyById(db, id) : undefined;
    if (!reply) throw unknown('reply', request.params.id);
    const wish = body(ReplyChangeBody, request);
    changeReply(db, id, wish);
    const mail = reply.message?.mail ?? reply.sender;
    const person = reply.message?.person ?? null;
    if (wish.kind === 'opted-out' && reply.kind !== 'opted-out')
      await outreach.keepOff(optOutOf(db, mail, person));
    else if (wish.kind !== undefined && reply.kind === 'opted-out' && wish.kind !== 'opted-out') {
      optBackIn(db, mail);
      await outreach.letBack(mail);
    }
    response.json({ reply: replyById(db, id)! });
  });
  routes.post('/outreach/replies', oneFile(upload), async (request, response) => {
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', { field: 'file', rule: 'one .eml file' });
    const taken = await outreach.take(request.file.buffer);
    response.status(201).json({ reply: taken === null ? null : replyById(db, taken.id)! });
  });

  routes.get('/outreach/figures', (request, response) => {
    const by = queryText(request, 'by') || 'template';
    if (!(FIGURES_BY as readonly string[]).includes(by))
      throw new Problem('wrong-value', `Figures are not kept by "${by}".`, {
        field: 'by',
        value: by,
        rule: FIGURES_BY.join(', '),
      });
    response.json(outreachFigures(services, by as FiguresBy));
  });
  routes.post('/outreach/addresses', (_request, response) => {
    const job = jobs.start(
      'addresses',
      'Take in what came back',
      'server/outreach/addresses-worker',
      { dir },
      () => engine.reload(),
    );
    response.status(202).json({ job });
  });
  routes.get('/people/:key/written', (request, response) => {
    const { key } = request.params;
    const mail =
      universe.prepare<[string], string | null>('SELECT mail FROM person WHERE key = ?').pluck().get(key) ??
      null;
    const gone = optedOut(db);
    const outcome = mail === null ? undefined : outcomeOf(db, mail);
    response.json({
      written: writtenTo(db, key, mail, null),
      optedOut: gone.people.has(key) || (mail !== null && gone.mails.has(mail.toLowerCase())),
      outcome: outcome?.how ?? null,
    } satisfies WrittenToAnswer);
  });
  routes.get('/companies/:key/written', (request, response) => {
    const { key } = request.params;
    // Messages keep the key of their day; what was joined since goes by another.
    const keys = [key, ...joinedTo(universe, key).map(({ gone }) => gone)];
    response.json({ written: writtenToCompany(db, keys) } satisfies CompanyWrittenAnswer);
  });
  return routes;
}

/** Outcomes of addresses that the universe does not know yet. */
function outcomesToLearn({ outreach, universe }: Services): number {
  const known = new Map(
    universe.prepare<[], [string, string]>('SELECT mail, outcome FROM mail_outcome').raw().all(),
  );
  let count = 0;
  for (const { mail, outcome } of allOutcomes(outreach.db).values()) if (known.get(mail) !== outcome) count++;
  return count;
}
