let last = 0;

/** The time now as the version of what is written: later than any given before. */
export function nextVersion(): string {
  last = Math.max(Date.now(), last + 1);
  return new Date(last).toISOString();
}
