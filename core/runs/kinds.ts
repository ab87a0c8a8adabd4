/** What can be planned to run. */
export const PLAN_KINDS = ['tape', 'gatherer', 'batch', 'refresh', 'match', 'export'] as const;
export type PlanKind = (typeof PLAN_KINDS)[number];

/** What became of a record from one run to the next; what the searches of a sheet found is "joined", and "new" where the run before had not found it. */
export const CHANGE_KINDS = ['joined', 'left', 'moved', 'new'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/** How often one is told. */
export const RATES = ['at-once', 'daily', 'weekly', 'never'] as const;
export type Rate = (typeof RATES)[number];
