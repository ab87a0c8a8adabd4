/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { emptyTape, type PlaceTest } from '../../../core/tape/nodes.ts';
import { useDesk } from '../store.ts';
import { pick, value } from '../../testing/picker.tsx';
import { freshDesk, type Answers } from '../../testing/render.tsx';
import { PlacePicker } from './PlacePicker.tsx';

beforeEach(freshDesk);

const PLACES = {
  countries: [
    { key: 'CZ', label: 'Czechia', count: 50 },
    { key: 'AT', label: 'Austria', count: 30 },
    { key: 'DE', label: 'Germany', count: 20 },
  ],
  groups: [{ key: 'alpine', label: 'Alpine', countries: ['AT', 'DE'], count: 50 }],
  regions: [
    { key: 'CZ-64', label: 'Jihomoravský kraj', count: 40, group: 'CZ' },
    { key: 'AT-9', label: 'Wien', count: 22, group: 'AT' },
  ],
  unknown: 3,
};
const TOWNS = {
  values: [value('Brno', 12, { group: 'CZ' }), value('Vyškov', 2, { group: 'CZ' })],
};
const counted = (more: Record<string, unknown> = {}) => ({
  'POST /counts': (asked: { level?: string; near?: unknown }) =>
    asked.near
      ? { radii: [5, 10, 40, 200, 400].map((radius) => ({ radius, count: radius * 2 })) }
      : asked.level
        ? (more[asked.level] ?? TOWNS)
        : PLACES,
});
const places = (answers: Answers = {}, start: PlaceTest | null = null) =>
  pick(PlacePicker, 'place', { ...counted(), ...answers }, { start });
const by = (name: string) => screen.getByRole('radio', { name });
const names = (list: string) =>
  within(screen.getByRole('list', { name: list }))
    .queryAllByRole('checkbox')
    .map((box) => box.closest('label')!.querySelector('span')!.textContent);

describe('named places', () => {
  test('are any of those taken; what is picked can be let go above, and nothing picked asks nothing', async () => {
    const { user, last } = places();
    await user.click(await screen.findByRole('checkbox', { name: /Czechia/ }));
    await user.click(screen.getByRole('checkbox', { name: /Austria/ }));
    expect(last()).toEqual({ countries: ['CZ', 'AT'] });
    await user.click(screen.getByRole('button', { name: 'Czechia ×' }));
    await user.click(screen.getByRole('button', { name: 'Austria ×' }));
    expect(last()).toBeNull();
    expect(screen.getByText(/have no known country/).textContent).toMatch(/3 have no known country/);
  });
  test('are found whatever their accents and case; regions by their country too', async () => {
    const { user } = places();
    await screen.findByRole('checkbox', { name: /Czechia/ });
    await user.click(by('regions'));
    await user.type(screen.getByLabelText('Search regions'), 'JIHO');
    expect(names('regions')).toEqual(['Jihomoravský kraj']);
    await user.clear(screen.getByLabelText('Search regions'));
    await user.type(screen.getByLabelText('Search regions'), 'austr');
    expect(names('regions')).toEqual(['Wien']);
    await user.type(screen.getByLabelText('Search regions'), 'alia');
    expect(screen.getByText('No company stands in a place of that name.')).toBeTruthy();
  });
  test('of several kinds stand beside each other: any of them', async () => {
    const { user, last } = places({}, { countries: ['DE'] });
    await user.click(by('regions'));
    await user.click(await screen.findByRole('checkbox', { name: /Wien/ }));
    expect(last()).toEqual({ countries: ['DE'], regions: ['AT-9'] });
    await user.click(screen.getByRole('radio', { name: 'of any site' }));
    expect(last()).toEqual({ countries: ['DE'], regions: ['AT-9'], site: 'any' });
    await user.click(screen.getByRole('radio', { name: 'of the head office' }));
    expect(last()).toEqual({ countries: ['DE'], regions: ['AT-9'] });
  });
  test('the site alone asks nothing', async () => {
    const { user, last } = places({}, { countries: ['DE'], site: 'any' });
    await user.click(await screen.findByRole('checkbox', { name: /Germany/ }));
    expect(last()).toBeNull();
  });
  test('towns are looked for by the server, and their neighbours offered with what they would leave', async () => {
    const neighbours = { values: [value('Kuřim', 4, { km: 13 }), value('Brno', 12, { km: 0 })] };
    const { user, last, sent } = places(counted({ neighbours }));
    await user.click(by('towns'));
    await user.type(screen.getByLabelText('Search towns'), 'brn');
    await user.click(await screen.findByRole('checkbox', { name: /Brno/ }));
    expect(sent('POST /counts')).toContainEqual(expect.objectContaining({ level: 'towns', search: 'brn' }));
    const near = await screen.findByRole('button', { name: /Kuřim 13 km 4/ });
    expect(screen.queryByRole('button', { name: /Brno 0 km/ })).toBeNull();
    await user.click(near);
    expect(last()).toEqual({ towns: ['Brno', 'Kuřim'] });
  });
  test('metro areas say how wide they are', async () => {
    const metro = { values: [value('Wien', 70, { km: 45, group: 'AT' })] };
    const { user, last } = places(counted({ metro }));
    await user.click(by('metro areas'));
    await user.click(await screen.findByRole('checkbox', { name: /45 km around, AT/ }));
    expect(last()).toEqual({ metro: ['Wien'] });
    expect(screen.getByRole('button', { name: 'metro Wien ×' })).toBeTruthy();
  });
});

describe('groups of countries', () => {
  test('are taken as one; their countries are ticked with them and not by themselves', async () => {
    const { user, last } = places();
    await user.click(await screen.findByRole('button', { name: /Alpine/ }));
    expect(last()).toEqual({ countries: ['alpine'] });
    const austria: HTMLInputElement = screen.getByRole('checkbox', { name: /Austria/ });
    expect([austria.checked, austria.disabled]).toEqual([true, true]);
  });
  test('of one’s own are kept from two countries on, under a folded name, and refusals are said', async () => {
    const { user, sent } = places({
      'PUT /country-groups/nase-trhy': {},
      'PUT /country-groups/alpine': new Error('“alpine” is a ready group.'),
    });
    await user.click(await screen.findByRole('checkbox', { name: /Czechia/ }));
    expect(screen.queryByText(/as a group named/)).toBeNull();
    await user.click(screen.getByRole('checkbox', { name: /Germany/ }));
    const name = screen.getByLabelText(/keep these 2 as a group named/);
    await user.type(name, 'Alpine');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    expect(await screen.findByText(/is a ready group/)).toBeTruthy();
    await user.clear(name);
    await user.type(name, 'Naše trhy');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(screen.queryByText(/is a ready group/)).toBeNull());
    expect(sent('PUT /country-groups/nase-trhy')).toEqual([{ label: 'Naše trhy', countries: ['CZ', 'DE'] }]);
  });
});

describe('postcodes', () => {
  const postcodes = { values: [value('CZ 602*', 9), value('CZ 635*', 4)] };
  test('are picked by how they begin, of the country chosen', async () => {
    const { user, last, sent } = places(counted({ postcodes }));
    await screen.findByRole('checkbox', { name: /Czechia/ });
    await user.click(by('postcodes'));
    await user.selectOptions(screen.getByLabelText('Country'), 'Austria');
    await user.type(screen.getByLabelText('Postcode begins with'), '6');
    expect(sent('POST /counts').at(-1)).toMatchObject({ level: 'postcodes', within: 'AT', search: '6' });
    await user.click(await screen.findByRole('checkbox', { name: /CZ 602/ }));
    expect(last()).toEqual({ postcodes: ['CZ 602*'] });
    await user.click(screen.getByRole('checkbox', { name: /CZ 602/ }));
    expect(last()).toBeNull();
  });
  test('are pasted as a column; those without a country are of the one chosen, and wrong ones are named', async () => {
    const { user, last } = places(counted({ postcodes }), { postcodes: ['CZ 602*'] });
    const box = screen.getByLabelText(/Type or paste postcodes/);
    await user.click(box);
    await user.paste('61*\nDE 01067\n63000..63999\n61*');
    expect(screen.getByRole('button', { name: 'Add 3 postcodes' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Add 3 postcodes' }));
    expect(last()).toEqual({ postcodes: ['CZ 602*', 'CZ 61*', 'DE 01067', 'CZ 63000..63999'] });
    expect((box as HTMLTextAreaElement).value).toBe('');
    await user.click(box);
    await user.paste('9..1..\n!?\n60200');
    expect(screen.getByRole('alert').textContent).toMatch(/is no postcode.*, nor are 1 more/);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add 3 postcodes' }).disabled).toBe(true);
  });
});

describe('a distance', () => {
  const towns = {
    towns: [
      {
        key: 'cz:brno',
        name: 'Brno',
        regionName: 'Jihomoravský kraj',
        country: 'CZ',
        lat: 49.2,
        lon: 16.6,
        population: 380000,
      },
    ],
  };
  const map = {
    'GET /towns': towns,
    'POST /points': { points: [16.6, 49.2], located: 40 },
    'GET /cities': { cities: [] },
  };
  test('is from a town found by name, in the unit of Settings, and takes the place of names', async () => {
    const { user, last } = places(map, { countries: ['CZ'] });
    await user.click(by('distance'));
    await user.type(await screen.findByLabelText('Town'), 'brn');
    await user.click(await screen.findByRole('button', { name: /Brno Jihomoravský kraj/ }));
    expect(last()).toEqual({ near: { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' } });
    expect(screen.getByLabelText<HTMLInputElement>('Town').placeholder).toBe('from Brno; type another town');
  });
  test('the first town found is taken by Enter; a distance in miles stays so', async () => {
    const { user, last } = places(map, { near: { lat: 1, lon: 2, miles: 30 } });
    await user.type(await screen.findByLabelText('Town'), 'brn');
    await screen.findByRole('button', { name: /Brno Jihomoravský kraj/ });
    await user.keyboard('{Enter}');
    expect(last()).toEqual({ near: { lat: 49.2, lon: 16.6, miles: 30, label: 'Brno' } });
  });
  test('other radii show what they would leave and are taken by a press; the box refuses none', async () => {
    const { user, last, asks } = places(map, { near: { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' } });
    await user.click(await screen.findByRole('button', { name: /^200 km 400$/ }));
    expect(last()).toEqual({ near: { lat: 49.2, lon: 16.6, km: 200, label: 'Brno' } });
    expect(screen.queryByRole('button', { name: /^5 km/ })).toBeNull();
    const before = asks.length;
    fireEvent.change(screen.getByLabelText('Radius in km'), { target: { value: '0' } });
    expect(asks).toHaveLength(before);
    fireEvent.change(screen.getByLabelText('Radius'), { target: { value: '25' } });
    expect(last()).toEqual({ near: { lat: 49.2, lon: 16.6, km: 25, label: 'Brno' } });
    expect(await screen.findByText('1 of 40 drawn')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'No distance' }));
    expect(last()).toBeNull();
  });
});

describe('a drawn area', () => {
  const map = {
    'POST /points': { points: [], located: 0 },
    'GET /cities': { cities: [] },
    'POST /alternatives': { counts: [77] },
  };
  const area = {
    points: [
      [49, 16],
      [50, 16],
      [50, 17],
    ] as const,
  };
  test('says how many corners are still to come, and can be named, and drawn anew', async () => {
    useDesk.setState({ tape: emptyTape() });
    const { user, last, unmount } = places(map);
    await user.click(by('drawn area'));
    expect(await screen.findByText(/3 more at least/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Close the area' }).disabled).toBe(true);
    expect(last()).toBeUndefined();
    unmount();
    const drawn = places(map, { within: area });
    expect(await screen.findByText('An area of 3 corners.')).toBeTruthy();
    await drawn.user.type(screen.getByLabelText('name'), 'East of us');
    await drawn.user.tab();
    expect(drawn.last()).toEqual({ within: { ...area, label: 'East of us' } });
    await drawn.user.click(screen.getByRole('button', { name: 'Draw anew' }));
    expect(drawn.last()).toBeNull();
  });
});
