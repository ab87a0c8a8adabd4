import { rmSync } from 'node:fs';

/** After the unit tests: the demos that they shared are not needed any more. */
export default function removeDemos() {
  rmSync(process.env.MADE_DEMOS, { recursive: true, force: true });
}
