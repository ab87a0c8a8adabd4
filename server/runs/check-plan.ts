import type { PlanBody, ScheduleBody, Target } from '../../contract/runs.ts';
import {
  checkedCron,
  cronOf,
  isZone,
  onceAt,
  rhythmOf,
  ringOf,
  wordsOf,
  type Schedule,
} from '../../core/runs/when.ts';
import { Problem } from '../../core/tape/problem.ts';
import { isAbsolute } from 'node:path';
import type { Services } from '../services.ts';
import { exportById } from '../tables/exports.ts';
import { gathererById } from '../tables/gather/gatherers.ts';
import { hookById } from '../tables/handover/programs.ts';
import { batchById } from '../tables/runs/batches.ts';
import { allPlans, planName } from '../tables/runs/plans.ts';
import { savedTapeById } from '../tables/saved-tapes.ts';
import { universeMark } from '../match/universe-firms.ts';
import { matchById } from '../tables/matches/views.ts';
import { sourceByKey } from '../tables/source.ts';
import { ZONE } from './telling.ts';

/** What is asked of a plan, checked and made whole. */

const lacking = (field: string, rule: string, value?: unknown) =>
  new Problem('wrong-value', `${field} is not there, or names nothing that there is.`, {
    field,
    value,
    rule,
  });

/** What runs, in words. @throws Problem where the target names what is not there */
export function targetWords(
  { workspace, gather, universe, matches, runs }: Services,
  kind: PlanBody['kind'],
  target: Target,
): string {
  if (kind === 'tape') {
    const saved = savedTapeById(workspace, target.tape ?? '');
    if (saved?.kind !== 'tape') throw lacking('target.tape', 'the id of a saved tape', target.tape);
    return `the tape ${saved.name}`;
  }
  if (kind === 'gatherer') {
    const gatherer = gathererById(gather.db, target.gatherer ?? '');
    if (!gatherer) throw lacking('target.gatherer', 'the id of a gatherer', target.gatherer);
    return `the gatherer ${gatherer.name}`;
  }
  if (kind === 'export') {
    const row = exportById(workspace, target.export ?? '');
    if (!row) throw lacking('target.export', 'the id of an export', target.export);
    const rows = { plain: '', all: ', all of it with what changed', changes: ', only what changed' };
    return `the export ${row.name}${rows[target.rows ?? 'plain']}`;
  }
  if (kind === 'match') {
    const match = matchById(matches, target.match ?? '', universeMark(universe));
    if (match?.of !== 'file')
      throw lacking('target.match', 'the id of a file that was matched', target.match);
    return `the match ${match.name}`;
  }
  if (kind === 'refresh') {
    const source = sourceByKey(universe, target.source ?? '');
    if (!source) throw lacking('target.source', 'the key of a source', target.source);
    if (!target.path || !isAbsolute(target.path))
      throw lacking('target.path', 'the file on this machine that is read anew, from its root', target.path);
    return `${source.name} from ${target.path}`;
  }
  const batch = batchById(runs.db, target.batch ?? '');
  if (!batch) throw lacking('target.batch', 'the id of a sheet of searches', target.batch);
  const { search = 0, fields = [] } = target;
  if (search >= batch.header.length)
    throw lacking('target.search', `a column of the sheet, 0 to ${batch.header.length - 1}`, search);
  const outside = fields.findIndex(({ column }) => column >= batch.header.length);
  if (outside >= 0)
    throw lacking(
      `target.fields[${outside}].column`,
      `a column of the sheet, 0 to ${batch.header.length - 1}`,
      fields[outside]!.column,
    );
  if (target.gatherer !== undefined && !gathererById(gather.db, target.gatherer))
    throw lacking('target.gatherer', 'the id of a gatherer', target.gatherer);
  return `${batch.rows.length} searches of ${batch.fileName}`;
}

/** A schedule as it is kept. @param key the plan that it is of; null for a new one. @throws Problem */
export function checkedSchedule(
  { runs }: Pick<Services, 'runs'>,
  wish: ScheduleBody,
  key: string | null,
): Schedule {
  if (wish.how === 'hand') return { how: 'hand' };
  if (wish.how === 'after') {
    const plan = wish.plan ?? '';
    const all = allPlans(runs.db);
    if (!all.some((one) => one.key === plan))
      throw lacking('schedule.plan', 'the key of another plan', wish.plan);
    const runsAfter = new Map(
      all.flatMap(({ key: own, schedule }) =>
        schedule.how === 'after' ? [[own, schedule.plan] as const] : [],
      ),
    );
    const ring = key === null ? null : ringOf(key, plan, runsAfter);
    if (ring)
      throw new Problem(
        'ring',
        `They would run one after another without end: ${ring.map((one) => planName(runs.db, one)).join(' → ')}.`,
        {
          field: 'schedule.plan',
          value: plan,
          rule: 'a plan that does not itself come to run after this one',
        },
      );
    return { how: 'after', plan, outcome: wish.outcome ?? 'done' };
  }
  const { zone = ZONE, missed = 'run' } = wish;
  if (!isZone(zone)) throw lacking('schedule.zone', 'a time zone such as Europe/Berlin', zone);
  if (wish.how === 'once') {
    if (onceAt({ at: wish.at ?? '', zone }) === null)
      throw lacking('schedule.at', 'a day and time such as 2026-12-01T07:00', wish.at);
    return { how: 'once', at: wish.at!, zone, missed };
  }
  if (wish.cron !== undefined && wish.cron !== '') {
    const cron = checkedCron(wish.cron, zone);
    return { how: 'repeats', words: wish.words || `by the pattern ${cron}`, cron, zone, missed };
  }
  const rhythm = rhythmOf(wish.words ?? '');
  return { how: 'repeats', words: wordsOf(rhythm), cron: cronOf(rhythm), zone, missed };
}

/** @throws Problem naming a way to be told that there is not */
export function checkWays(
  { handover }: Pick<Services, 'handover'>,
  ways: readonly string[],
  field: string,
): void {
  for (const way of ways)
    if (!['bell', 'mail', 'feed'].includes(way) && !hookById(handover, way))
      throw lacking(field, 'bell, mail, feed, or the id of a webhook', way);
}
