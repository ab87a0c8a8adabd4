import { Problem } from '../../core/tape/problem.ts';
import type { Services } from '../services.ts';
import type { GathererRow } from '../tables/gather/gatherers.ts';
import { addRun } from '../tables/gather/runs.ts';
import { readSettings } from '../tables/workspace.ts';
import { sitesOfList } from './sites-of-list.ts';
import { checkSearches, type GatherSpec } from './spec.ts';

/** Begins a run of a gatherer, as it was taught but for what is wished otherwise. Returns its id. @throws Problem where nothing was taught */
export function beginGathering(
  services: Services,
  gatherer: GathererRow,
  wish: Partial<GatherSpec> = {},
): string {
  const { gather, workspace } = services;
  const spec: GatherSpec = { ...(JSON.parse(gatherer.spec) as GatherSpec), ...wish };
  checkSearches(spec);
  const sites = spec.sites === null ? null : sitesOfList(services, spec.sites.list);
  if (sites === null && !spec.examples.some(({ as }) => as === 'row'))
    throw new Problem(
      'nothing-taught',
      'Nobody has pointed at a row yet, so nothing is known of what to read.',
      {
        field: 'spec.examples',
        rule: 'at least one example of a row',
      },
    );
  const run = addRun(gather.db, gatherer.id, spec, readSettings(workspace).person, sites);
  gather.runner.wake(run);
  return run;
}
