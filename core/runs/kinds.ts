/** What can be planned to run. */
export const PLAN_KINDS = ['tape', 'gatherer', 'batch', 'refresh', 'export'] as const;
export type PlanKind = (typeof PLAN_KINDS)[number];

/** How often one is told. */
export const RATES = ['at-once', 'daily', 'weekly', 'never'] as const;
export type Rate = (typeof RATES)[number];
