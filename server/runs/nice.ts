import { readlinkSync } from 'node:fs';
import { constants, setPriority } from 'node:os';

/** Lets threads that people wait for come before the one that calls this. Where the system knows no priority of threads, nothing is done. */
export function yieldToOthers(): void {
  try {
    const own = Number(/task\/(\d+)$/.exec(readlinkSync('/proc/thread-self'))?.[1]);
    if (own > 0) setPriority(own, constants.priority.PRIORITY_LOW);
  } catch {
    // It then shares the processor like any other.
  }
}
