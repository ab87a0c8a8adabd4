import type { Field } from '../../../core/fields/field.ts';
import type { Test } from '../../../core/tape/nodes.ts';

/** What every picker gets: its field, the test so far, and what the line is called on the tape. */
export interface PickerProps<T extends Test> {
  field: Field;
  test: T | null;
  /** Id of the line, whose own condition counts leave out. */
  at: string | undefined;
  /** A changed test; null where nothing is asked any more. */
  onTest(test: T | null): void;
}
