import type { Request } from 'express';
import { HttpProblem } from './check.ts';

/** What a thing that is not there yet has as its version. */
const NONE = 'none';

/** Something that was changed since the client saw it: the answer holds what it is now. */
export class ChangedMeanwhile extends HttpProblem {
  readonly current: unknown;

  constructor(what: string, current: unknown) {
    super(409, 'changed-meanwhile', `${what} was changed in another window since it was shown here.`, {
      field: 'If-Match',
      rule: 'the version that is there now',
    });
    this.current = current;
  }
}

/**
 * Holds a write to the version that its client saw, where it says one in If-Match.
 * @throws ChangedMeanwhile with what is there now
 */
export function expectVersion(
  request: Request,
  version: string | null,
  what: string,
  current: () => unknown,
): void {
  const seen = request.headers['if-match'];
  if (seen !== undefined && seen !== `"${version ?? NONE}"`) throw new ChangedMeanwhile(what, current());
}
