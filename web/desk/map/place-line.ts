import type { ClustersAnswer } from '../../../contract/market.ts';
import { fieldOf, rolesOf, subjectOf } from '../../../core/fields/registry.ts';
import { freeId } from '../../../core/tape/edit.ts';
import type { Line, PlaceTest, Tape } from '../../../core/tape/nodes.ts';

/** Says where records without a place of their own are drawn. */
export function drawnAt(subject: string, places: ClustersAnswer['places'] | undefined): string {
  const { many } = subjectOf(subject);
  const role = typeof places === 'object' ? places.role : '';
  return `${many.charAt(0).toUpperCase()}${many.slice(1)} stand where ${role ? `the ${role}` : 'their company'} is`;
}

/** A line that keeps a place: of the records themselves, else of the company that the map draws them at. */
export function lineOfPlace(tape: Tape, test: PlaceTest): Line {
  const id = freeId(tape);
  if (fieldOf(tape.subject, 'place')) return { id, field: 'place', test };
  const role = rolesOf(tape.subject, 'companies').find(({ key }) => key === 'target' || key === 'owner');
  return {
    id,
    has: 'company',
    ...(role ? { as: role.key } : {}),
    lines: [{ id: `${id}-place`, field: 'place', test }],
  };
}
