/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { fieldOf } from '../../../core/fields/registry.ts';
import type { NearTest } from '../../../core/tape/nodes.ts';
import { drawnCanvas } from '../../testing/canvas.ts';
import { freshDesk, show } from '../../testing/render.tsx';
import { NearPicker } from './NearPicker.tsx';

beforeEach(() => {
  freshDesk();
  drawnCanvas();
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});

const town = (name: string, regionName: string, population: number) => ({
  ...{ key: `${name}, ${regionName}`, name, country: 'CZ', region: 'CZ-64', regionName },
  ...{ lat: 49.2, lon: 16.6, population },
});

function Held({ start, onNear }: { start: NearTest | null; onNear(near: NearTest | null): void }) {
  const [near, setNear] = useState(start);
  return (
    <NearPicker
      field={fieldOf('companies', 'place')!}
      at={undefined}
      near={near}
      site={undefined}
      onNear={(next) => {
        onNear(next);
        setNear(next);
      }}
    />
  );
}
const opened = (start: NearTest | null = null) => {
  const onNear = jest.fn<(near: NearTest | null) => void>();
  const shown = show(<Held start={start} onNear={onNear} />, {
    'GET /towns': { towns: [town('Brno', 'South Moravia', 398_000), town('Brnenec', 'Pardubice', 1200)] },
    'GET /cities': { cities: [] },
    'POST /points': { points: [16.6, 49.2], located: 3 },
    'POST /counts': {
      total: 9,
      unknown: 0,
      radii: [
        { radius: 5, count: 1 },
        { radius: 20, count: 4 },
        { radius: 100, count: 9 },
      ],
    },
  });
  return { ...shown, onNear };
};
const BRNO: NearTest = { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' };

test('a town is searched, and the first is taken by Enter, others by a click', async () => {
  const { user, onNear } = opened();
  const search = screen.getByLabelText('Town');
  await user.type(search, 'brn');
  await screen.findByText('398,000 people');
  await user.keyboard('{Enter}');
  expect(onNear).toHaveBeenLastCalledWith(BRNO);
  await user.type(search, 'brn');
  await user.click(await screen.findByRole('button', { name: /^Brnenec/ }));
  expect(onNear).toHaveBeenLastCalledWith({ ...BRNO, label: 'Brnenec' });
  expect(screen.queryByText('398,000 people')).toBeNull();
});

test('Enter with nothing found takes nothing, and without a place there is no radius', async () => {
  const { user, onNear } = opened();
  await user.type(screen.getByLabelText('Town'), '{Enter}');
  expect(onNear).not.toHaveBeenCalled();
  expect(screen.getByLabelText<HTMLInputElement>('Radius in km').disabled).toBe(true);
});

test('the radius is typed, drawn out, or taken from those that say what they give', async () => {
  const { user, onNear } = opened(BRNO);
  fireEvent.change(screen.getByLabelText('Radius in km'), { target: { value: '60' } });
  expect(onNear).toHaveBeenLastCalledWith({ ...BRNO, km: 60 });
  fireEvent.change(screen.getByLabelText('Radius in km'), { target: { value: '0' } });
  expect(onNear).toHaveBeenCalledTimes(1);
  fireEvent.change(screen.getByLabelText('Radius'), { target: { value: '75' } });
  expect(onNear).toHaveBeenLastCalledWith({ ...BRNO, km: 75 });
  // Radii that nobody would take are left out.
  await waitFor(() => expect(screen.getByRole('button', { name: '20 km 4' })).toBeTruthy());
  expect(screen.queryByRole('button', { name: '5 km 1' })).toBeNull();
  await user.click(screen.getByRole('button', { name: '100 km 9' }));
  expect(onNear).toHaveBeenLastCalledWith({ ...BRNO, km: 100 });
});

test('a line in miles stays in miles, and the distance can be taken away', async () => {
  const { user, onNear, sent } = opened({ lat: 49.2, lon: 16.6, miles: 25, label: 'Brno' });
  fireEvent.change(screen.getByLabelText('Radius in miles'), { target: { value: '30' } });
  expect(onNear).toHaveBeenLastCalledWith({ lat: 49.2, lon: 16.6, miles: 30, label: 'Brno' });
  await waitFor(() => expect(sent('POST /counts')[0]).toMatchObject({ near: { unit: 'miles' } }));
  expect(await screen.findByText('1 of 3 drawn')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'No distance' }));
  expect(onNear).toHaveBeenLastCalledWith(null);
});
