import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { openUniverse, openWorkspace, type Db } from './db/open.ts';
import { EngineHost } from './engine/host.ts';
import { Jobs } from './jobs/jobs.ts';

/** What the routes work with: the two databases, the counting thread, and the jobs. */
export interface Services {
  dir: string;
  universe: Db;
  workspace: Db;
  engine: EngineHost;
  jobs: Jobs;
  /** Largest upload in MB. */
  uploadLimit: number;
}

export async function openServices(dir: string, uploadLimit = 150): Promise<Services> {
  // The first opening applies migrations; the readers come after it.
  openUniverse(dir).close();
  const workspace = openWorkspace(dir);
  rmSync(join(dir, 'uploads'), { recursive: true, force: true });
  const services: Services = {
    dir,
    workspace,
    uploadLimit,
    universe: openUniverse(dir, { readonly: true }),
    engine: new EngineHost(dir),
    jobs: new Jobs(workspace),
  };
  await services.engine.ready();
  return services;
}

export async function closeServices(services: Services): Promise<void> {
  await services.engine.stop();
  services.universe.close();
  services.workspace.close();
}
