/** @jest-environment jsdom */
import { expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import type { ProofView, WritingAnswer } from '../../contract/outreach-views.ts';
import { aProof } from '../testing/outreach.ts';
import { show } from '../testing/render.tsx';
import { ProofTable } from './ProofTable.tsx';

/** Proofs in the order in which they fit. */
const proofs = [
  { ...aProof({ id: 'wood', text: 'Less dust', named: 20, answered: 5 }), fits: true, by: ['industry'] },
  { ...aProof({ id: 'any', text: 'A day to install', named: 0, answered: 0 }), fits: true, by: [] },
  { ...aProof({ id: 'metal', text: 'Coating halved', named: 40, answered: 2 }), fits: false, by: [] },
] as WritingAnswer['proofs'];

function open(more: Partial<Parameters<typeof ProofTable>[0]> = {}) {
  const chosen: (string | null)[] = [];
  const edited: (ProofView | 'new')[] = [];
  const shown = show(
    <ProofTable
      proofs={proofs}
      chosen="wood"
      fixed={false}
      onChoose={(id) => chosen.push(id)}
      onEdit={(proof) => edited.push(proof)}
      {...more}
    />,
  );
  return { ...shown, chosen, edited };
}
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => {
      const [key, text, fits, named, answered] = within(row).getAllByRole('cell');
      return [key, text, fits, named, answered].map((cell) => cell!.textContent);
    });

test('proofs stand as they fit, with why and how often each was answered', () => {
  open();
  expect(rows()).toEqual([
    ['1', 'Less dust', 'industry', '20', '525 %'],
    ['2', 'A day to install', 'anybody', '0', '0'],
    ['3', 'Coating halved', 'does not fit', '40', '25 %'],
  ]);
});

test('they are sorted by what is known of them, and keep the keys that choose them', async () => {
  const { user } = open();
  expect(screen.getByText('what fits best first; one a message')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: /^Named/ }));
  expect(screen.getByText('one a message')).toBeTruthy();
  expect(rows().map(([key, text]) => [key, text])).toEqual([
    ['3', 'Coating halved'],
    ['1', 'Less dust'],
    ['2', 'A day to install'],
  ]);
  await user.click(screen.getByRole('button', { name: /^One fact each/ }));
  expect(rows().map(([, text]) => text)).toEqual(['A day to install', 'Coating halved', 'Less dust']);
  await user.click(screen.getByRole('button', { name: /^Answered/ }));
  expect(rows().map(([, , , , answered]) => answered)).toEqual(['525 %', '25 %', '0']);
  await user.click(screen.getByRole('button', { name: /^Fits/ }));
  expect(rows().map(([key]) => key)).toEqual(['1', '2', '3']);
});

test('one is named, another instead of it, or none', async () => {
  const { user, chosen, edited } = open();
  await user.click(screen.getByRole('button', { name: 'A day to install' }));
  await user.click(screen.getByRole('button', { name: 'Less dust' }));
  expect(chosen).toEqual(['any', null]);
  await user.click(screen.getByRole('button', { name: 'Change the proof Coating halved' }));
  await user.click(screen.getByRole('button', { name: 'New proof' }));
  expect(edited.map((proof) => (proof === 'new' ? 'new' : proof.id))).toEqual(['metal', 'new']);
});

test('a message that was sent keeps its proof', () => {
  open({ fixed: true });
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'A day to install' }).disabled).toBe(true);
});

test('nine have keys; of more it is said how many there are', () => {
  const many = Array.from({ length: 12 }, (_, i) => ({
    ...proofs[0]!,
    id: `p${i}`,
    text: `Fact ${i}`,
    named: i,
  }));
  open({ proofs: many });
  expect(rows()).toHaveLength(9);
  expect(screen.getByText('the first 9 of 12')).toBeTruthy();
});

test('without any it says what one is', () => {
  open({ proofs: [] });
  expect(screen.getByText(/^None yet\. A proof is one short fact/)).toBeTruthy();
});
