import type { Services } from '../services.ts';
import { runBatch } from './kinds/batch.ts';
import { runExportAgain } from './kinds/export.ts';
import { runGatherer } from './kinds/gatherer.ts';
import { runMatchAgain } from './kinds/match.ts';
import { runRefresh } from './kinds/refresh.ts';
import { runTape } from './kinds/tape.ts';
import type { Carriers } from './runs.ts';
import { sendDue } from './send-due.ts';

/** How each kind of plan is carried out, and what is due is told, with the services of the program. */
export function carriersOf(services: Services): Carriers {
  return {
    carry: {
      tape: (errand) => runTape({ ...errand, services }),
      batch: (errand) => runBatch({ ...errand, services }),
      gatherer: (errand) => runGatherer({ ...errand, services }),
      refresh: (errand) => runRefresh({ ...errand, services }),
      match: (errand) => runMatchAgain({ ...errand, services }),
      export: (errand) => runExportAgain({ ...errand, services }),
    },
    send: (now) => sendDue(services, now),
  };
}
