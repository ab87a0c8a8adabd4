import { describe, expect, test } from '@jest/globals';
import { SUBJECTS } from '../../../core/fields/registry.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { drawnAt, lineOfPlace } from './place-line.ts';

const brno = { near: { lat: 49.2, lon: 16.6, km: 20 } };

describe('a place from the map as a line', () => {
  test('is of the records themselves where they have one, else of the company they are drawn at', () => {
    expect(lineOfPlace(emptyTape(), brno)).toEqual({ id: 'l1', field: 'place', test: brno });
    expect(lineOfPlace(emptyTape('sites'), brno)).toMatchObject({ field: 'place' });
    expect(lineOfPlace(emptyTape('people'), brno)).toEqual({
      id: 'l1',
      has: 'company',
      lines: [{ id: 'l1-place', field: 'place', test: brno }],
    });
    expect(lineOfPlace(emptyTape('deals'), brno)).toMatchObject({ has: 'company', as: 'target' });
    expect(lineOfPlace(emptyTape('brands'), brno)).toMatchObject({ has: 'company', as: 'owner' });
  });
  test('takes an id that no line of the tape has', () => {
    const tape = { ...emptyTape(), lines: [{ id: 'l1', field: 'status', test: { any: ['active'] } }] };
    expect(lineOfPlace(tape, brno).id).not.toBe('l1');
  });
  test('is said for every subject', () => {
    for (const { id } of SUBJECTS.values())
      expect(drawnAt(id, { of: 'company', role: 'owner' })).toMatch(/^[A-Z]\w+ stand where the owner is$/);
    expect(drawnAt('people', { of: 'company', role: '' })).toBe('People stand where their company is');
  });
});
