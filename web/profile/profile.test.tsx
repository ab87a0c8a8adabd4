/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { dayOf } from '../../core/dates.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { undo } from '../app/history.ts';
import { useDesk } from '../desk/store.ts';
import { openProfile, place, profile } from '../testing/profile.tsx';
import { freshDesk, settled } from '../testing/render.tsx';

beforeEach(freshDesk);

const desk = () => useDesk.getState();
const fact = async (name: string) => (await screen.findByText(name)).parentElement!.textContent;

describe('the page of a company', () => {
  test('of which nothing is known says so, with the reason where there is one', async () => {
    const page = profile({});
    openProfile({ ...page, row: { ...page.row, why: { headcount: 'withheld' } } });
    expect(await screen.findByText('No description recorded.')).toBeTruthy();
    expect(screen.getByText('place unknown')).toBeTruthy();
    expect(await fact('Headcount')).toBe('Headcountunknown: withheld');
    expect(await fact('Revenue, €k')).toBe('Revenue, €kunknown: not collected');
    expect(screen.getByText('unknown: the site was never surveyed')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /within 20 km/ })).toBeNull();
    expect(screen.queryByText('Size over the years')).toBeNull();
  });
  test('says figures with their basis and their source, and money without a rate as that', async () => {
    const money = (amount: number, currency: string, year: number) => ({
      basis: 'reported',
      low: amount,
      high: amount,
      amount,
      year,
      currency,
    });
    openProfile(
      profile(
        {
          place,
          founded: 1994,
          headcount: { basis: 'estimate', low: 20, high: 60, amount: 34, year: 2025 },
          revenue: money(2_500_000, 'EUR', 2024),
          profit: money(90_000, 'CZK', 1950),
        },
        [{}],
        { from: { headcount: 1, revenue: 1 } },
      ),
    );
    expect(await fact('Headcount')).toMatch(/34.*estimate, 20–60, 2025/);
    expect(screen.getByText('Headcount').parentElement!.title).toBe('from Register 1');
    expect(await fact('Revenue, €k')).toMatch(/2,500 reported for 2024/);
    expect(await fact('Profit, €k')).toBe('Profit, €kunknown: no exchange rate');
    expect(screen.getByText(/^Brno, South Moravia, Czechia/).textContent).toMatch(/since 1994/);
  });
  test('that is not there says so and leads back', async () => {
    useDesk.setState({ company: 'CZ:7' });
    const { user } = openProfile(new Error('There is no company CZ:7.'));
    expect(await screen.findByText('There is no company CZ:7.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Back to the sheet' }));
    expect(desk().company).toBeNull();
  });
  test('puts its codes and its surroundings on this tape, or on a new one as chosen', async () => {
    const codes = [
      { scheme: 'nace-2.1', code: '25.51', title: 'Coating', main: true },
      { scheme: 'naics-2022', code: '332812', title: 'Metal coating', main: false },
      { scheme: 'nace-2.1', code: '25.53', title: 'Machining', main: false },
    ];
    const line = { id: 'l1', field: 'status', test: { any: ['active'] } };
    useDesk.setState({ tape: { ...emptyTape(), lines: [line] }, company: 'CZ:7' });
    const { user } = openProfile(
      profile({ place, industry: codes }, [{}], {
        kin: {
          'nace-2.1 25.51': [
            { scheme: 'naics-2022', code: '332812', sure: true },
            { scheme: 'naics-2022', code: '332813', sure: false },
          ] as never,
        },
      }),
    );
    expect((await screen.findByText('332813?')).title).toBe('a possible link');
    await user.click(screen.getByRole('button', { name: 'Companies with these NACE 2.1 codes' }));
    expect(desk().tape.lines).toMatchObject([
      line,
      { field: 'industry', test: { scheme: 'nace-2.1', any: ['25.51', '25.53'] } },
    ]);
    expect(desk().company).toBeNull();
    await settled(undo);
    await user.click(screen.getByRole('radio', { name: 'on a new tape' }));
    await user.click(screen.getByRole('button', { name: 'Companies within 20 km' }));
    expect(desk().tape.lines).toMatchObject([
      { field: 'place', test: { near: { lat: 49.2, lon: 16.6, km: 20, label: 'Lakovna Sever' } } },
    ]);
  });
  test('finds its peers as a tape with score and reasons as columns, and one undo takes all of it back', async () => {
    const before = desk().columns.companies!;
    const { user } = openProfile(profile({ place }));
    await user.click(await screen.findByRole('button', { name: 'Its peers' }));
    expect(desk().tape).toMatchObject({
      name: 'Peers of Lakovna Sever',
      lines: [{ id: 'l1', field: 'peers', test: { like: ['CZ:7'], from: 0.5 } }],
    });
    expect(desk().sort).toEqual([{ by: 'score:l1', descending: true }]);
    expect(desk().columns.companies!.slice(0, 3)).toEqual([before[0], 'score:l1', 'why:l1']);
    await settled(undo);
    expect([desk().tape.lines, desk().sort, desk().columns.companies]).toEqual([[], [], before]);
  });
});

describe('its size over the years', () => {
  const years = (values: number[], estimate = false) =>
    values.map((value, i) => ({ year: 2021 + i, value, estimate }));
  test('grows by so much a year, and no rate is told between a report and an estimate', async () => {
    const { unmount } = openProfile(
      profile({}, [{ headcountHistory: years([100, 110, 121]) }], { from: { headcountHistory: 1 } }),
    );
    expect(await screen.findByText('+10.0 % a year')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Headcount by year: 2021 100, 2022 110, 2023 121' })).toBeTruthy();
    unmount();
    openProfile(
      profile({}, [{ headcountHistory: [...years([100]), ...years([0, 121], true).slice(1)] }], {
        from: { headcountHistory: 1 },
      }),
    );
    expect(
      await screen.findByRole('img', { name: 'Headcount by year: 2021 100, 2022 about 121' }),
    ).toBeTruthy();
    expect(screen.queryByText(/a year$/)).toBeNull();
  });
  const monthly = (start: string, values: number[], currency = 'EUR') => [
    {
      revenue: { basis: 'reported', low: 1, high: 1, point: 1, currency, year: 2025 } as const,
      revenueMonths: { start, values },
    },
  ];
  test('by month says the season once all twelve months are known', async () => {
    const values = Array.from(
      { length: 14 },
      (_, i) => 1000 + (i % 12 === 5 ? 900 : 0) - (i % 12 === 1 ? 500 : 0),
    );
    const { unmount } = openProfile(profile({}, monthly('2024-11', values), { from: { revenueMonths: 1 } }));
    expect((await screen.findByText(/^Revenue by month/)).textContent).toMatch(
      /2025 solid, 2024 dashed: strongest in April \(€1\.9k\), weakest in December \(€500\)/,
    );
    unmount();
    openProfile(profile({}, monthly('2025-01', values.slice(0, 7)), { from: { revenueMonths: 1 } }));
    expect((await screen.findByText(/^Revenue by month/)).textContent).toBe('Revenue by month, €, 2025');
  });
  test('by month leaves out what no rate carries over, and says no season of it', async () => {
    openProfile(
      profile({}, monthly('1950-01', Array<number>(12).fill(5), 'CZK'), { from: { revenueMonths: 1 } }),
    );
    await screen.findByText('What each source says', { exact: false });
    expect(screen.queryByText(/^Revenue by month/)).toBeNull();
    expect(document.body.textContent).not.toMatch(/undefined|NaN/);
  });
  test('by department is the largest first, with the change where there was anybody before', async () => {
    openProfile(
      profile(
        {},
        [
          {
            departments: [
              { key: 'sales', now: 4, before1: 0, before3: null },
              { key: 'production', now: 30, before1: 40, before3: 20 },
            ],
          },
        ],
        { from: { departments: 1 } },
      ),
    );
    expect(await screen.findByRole('row', { name: 'production 30 −25 % +50 %' })).toBeTruthy();
    expect(screen.getByRole('row', { name: 'sales 4 – –' })).toBeTruthy();
  });
});

describe('what each source says', () => {
  test('stands side by side, and the value that is shown is marked', async () => {
    openProfile(
      profile(
        { technology: ['CRM'] },
        [
          {
            headcount: { basis: 'band', low: 10, high: 49, point: null },
            technologies: [{ label: 'CRM', first: dayOf('2024-03-01'), last: dayOf('2026-05-02') }],
            surveyedOn: 20_000,
            dwelling: false,
            checkedOn: dayOf('2026-05-02'),
          },
          {
            headcount: { basis: 'estimate', low: 20, high: null as never, point: 25 },
            revenueWhy: 'withheld',
            certificates: [],
            surveyedOn: 20_000,
          },
        ],
        { from: { headcount: 2, technologies: 1 } },
      ),
    );
    const row = async (name: string) =>
      within((await screen.findByRole('rowheader', { name })).closest('tr')!)
        .getAllByRole('cell')
        .map((cell) => cell.textContent);
    const table = (await screen.findByText('What each source says', { exact: false })).closest('section')!;
    const part = (name: string) =>
      within(
        within(table)
          .getAllByRole('rowheader')
          .find((cell) => cell.textContent === name)!
          .closest('tr')!,
      )
        .getAllByRole('cell')
        .map((cell) => cell.textContent);
    expect(part('Headcount')).toEqual(['10–49', 'about 25 (20+) (shown)']);
    expect(part('Revenue')).toEqual(['–', 'withheld']);
    expect(part('Certificates')).toEqual(['–', 'none']);
    expect(part('Technology')).toEqual(['CRM (shown)', 'none seen']);
    expect(part('Works from a dwelling')).toEqual(['no', '–']);
    expect(part('Checked')).toEqual(['2 May 2026', '–']);
    expect(await row('CRM')).toEqual(['since 1 Mar 2024, last 2 May 2026']);
    expect(within(table).queryByText('Street')).toBeNull();
  });
});
