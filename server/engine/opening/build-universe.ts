import type { CodeTree, Scheme } from '../../../core/codes/tree.ts';
import type { Db } from '../../db/open.ts';
import { revisionOf } from '../../tables/revision.ts';
import { buildColumns, planAll, storedFields, type BuildPlan } from './build-columns.ts';
import { buildRelated } from './build-related.ts';
import type { StoredColumn, StoredUniverse } from './stored-universe.ts';

/** All companies as columns, read from the database, with what hangs on them. */
export function buildUniverse(
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
  plan: BuildPlan = planAll(db),
): StoredUniverse {
  return assembled(
    db,
    plan,
    trees,
    buildColumns(
      db,
      plan,
      trees,
      storedFields().map((field) => field.id),
    ),
  );
}

/** Columns of companies put together with what hangs on them. */
export function assembled(
  db: Db,
  plan: BuildPlan,
  trees: ReadonlyMap<Scheme, CodeTree>,
  columns: Map<string, StoredColumn>,
): StoredUniverse {
  const { size, ids, recordOf, earlier } = plan;
  const related = buildRelated(db, trees, recordOf, size, earlier);
  return { ...revisionOf(db), size, ids, columns, related };
}
