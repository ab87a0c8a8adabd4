import { describe, expect, test } from '@jest/globals';
import { DEPARTMENTS } from '../fields/companies/making.ts';
import { LEVELS } from '../fields/people.ts';
import fc from 'fast-check';
import { readTitle } from './titles.ts';

describe('a title says department and level', () => {
  test.each([
    ['Managing director', 'management', 'director'],
    ['Owner', 'management', 'owner'],
    ['Directrice des achats', 'purchasing', 'director'],
    ['Gérant', 'management', 'director'],
    ['Amministratore delegato', 'management', 'director'],
    ['Responsabile acquisti', 'purchasing', 'head'],
    ['Toimitusjohtaja', 'management', 'director'],
    ['Co-founder', 'management', 'founder'],
    ['Works manager', 'production', 'manager'],
    ['Head of production', 'production', 'head'],
    ['Technical director', 'production', 'director'],
    ['Production planner', 'production', 'manager'],
    ['Design engineer', 'engineering', 'specialist'],
    ['Area sales manager', 'sales', 'manager'],
    ['Key account manager', 'sales', 'manager'],
    ['Head of procurement', 'purchasing', 'head'],
    ['Buyer', 'purchasing', 'specialist'],
    ['Warehouse manager', 'logistics', 'manager'],
    ['Finance director', 'finance', 'director'],
    ['Payroll clerk', 'finance', 'specialist'],
    ['Personnel manager', 'administration', 'manager'],
    ['Assistant to the managing director', 'administration', 'specialist'],
    ['Geschäftsführer', 'management', 'director'],
    ['Leiter Einkauf', 'purchasing', 'head'],
    ['Vertriebsleiterin', 'sales', 'head'],
    ['Betriebsleiter', 'production', 'head'],
    ['Jednatel', 'management', 'director'],
    ['Vedoucí výroby', 'production', 'head'],
    ['Ředitel nákupu', 'purchasing', 'director'],
    ['Kierownik produkcji', 'production', 'head'],
    ['Directeur commercial', 'sales', 'director'],
    ['Responsable achats', 'purchasing', 'head'],
    ['Direttore vendite', 'sales', 'director'],
    ['Jefe de compras', 'purchasing', 'head'],
    ['Inköpschef', 'purchasing', 'head'],
    ['Something else', null, null],
  ])('%s', (title, department, level) => {
    expect(readTitle(title)).toEqual({ department, level });
  });
  test('says only what a field knows, whatever it holds', () => {
    fc.assert(
      fc.property(fc.string(), (title) => {
        const { department, level } = readTitle(title);
        expect([null, ...DEPARTMENTS]).toContain(department);
        expect([null, ...LEVELS]).toContain(level);
      }),
    );
  });
});
