import { useMemo } from 'react';
import type { ProfileAnswer } from '../../contract/responses.ts';
import type { HistoryPoint } from '../../core/records/record.ts';
import { isoOf } from '../../core/dates.ts';
import { converted } from '../../core/money/rates.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { useFormat } from '../app/format.ts';
import { EChart } from '../charts/EChart.tsx';
import { monthsOption, yearsOption, type YearBar } from '../charts/history-options.ts';
import { useChartTheme } from '../charts/theme.ts';
import { shortFigure } from '../../core/charts/wording.ts';
import { Section } from './parts.tsx';

const HEIGHT = 118;

/** The value of a part from the record that it is taken from. */
function partOf<K extends keyof ProfileAnswer['from']>(profile: ProfileAnswer, part: K) {
  return profile.records.find(({ id }) => id === profile.from[part])?.record[part];
}

/** Headcount and revenue by year, estimates hatched, and revenue by month with its season. */
export function SizeHistory({ profile }: { profile: ProfileAnswer }) {
  const format = useFormat();
  const theme = useChartTheme();
  const headcounts = partOf(profile, 'headcountHistory') ?? [];
  const revenueRecord = profile.records.find(({ id }) => id === profile.from.revenueHistory)?.record;
  const monthRecord = profile.records.find(({ id }) => id === profile.from.revenueMonths)?.record;
  const inShown = (value: number, year: number, from: string) =>
    converted(value, from, format.currency, year);
  const currency = revenueRecord?.revenue?.currency ?? homeCurrency(profile);
  const revenues = (revenueRecord?.revenueHistory ?? []).flatMap((point) => {
    const value = currency === null ? null : inShown(point.value, point.year, currency);
    return value === null ? [] : [{ ...point, value }];
  });
  const months = monthRecord?.revenueMonths ?? null;
  const monthCurrency = monthRecord?.revenue?.currency ?? currency;
  const money = (value: number) => shortFigure(fieldOf('companies', 'revenue')!, format, value);
  const seasons = useMemo(() => {
    if (!months || monthCurrency === null) return [];
    const [year, first] = months.start.split('-').map(Number) as [number, number];
    return months.values.flatMap((amount, i) => {
      const at = first - 1 + i;
      const own = year + Math.floor(at / 12);
      const value = converted(amount, monthCurrency, format.currency, own);
      return value === null ? [] : [{ year: own, month: at % 12, value }];
    });
  }, [months, monthCurrency, format.currency]);
  if (headcounts.length + revenues.length + seasons.length === 0) return null;
  return (
    <Section name="Size over the years" note="estimates hatched">
      <div className="grid grid-cols-2 gap-4">
        <Years name="Headcount" points={headcounts} say={(value) => format.number(value)} theme={theme} />
        <Years name={`Revenue, ${format.symbol}`} points={revenues} say={money} theme={theme} />
      </div>
      {seasons.length > 0 && (
        <>
          <p className="mt-2 text-[13px] text-soft">
            Revenue by month, {format.symbol}, {yearsInWords(seasons)}
            {season(seasons, money)}
          </p>
          <EChart
            option={monthsOption(seasons, theme, money)}
            height={150}
            label={`Revenue by month from ${months!.start}: ${seasons.map(({ year, month, value }) => `${year}-${month + 1} ${money(value)}`).join(', ')}`}
          />
        </>
      )}
    </Section>
  );
}

function homeCurrency(profile: ProfileAnswer): string | null {
  for (const { record } of profile.records) if (record.revenue) return record.revenue.currency;
  return null;
}

function Years({
  name,
  points,
  say,
  theme,
}: {
  name: string;
  points: readonly HistoryPoint[];
  say(value: number): string;
  theme: ReturnType<typeof useChartTheme>;
}) {
  const bars = useMemo<YearBar[]>(
    () => points.map(({ year, value, estimate }) => ({ year, value, estimate, shown: say(value) })),
    [points, say],
  );
  const [first, last] = [points[0], points.at(-1)];
  const change =
    first && last && first !== last && first.value > 0 && first.estimate === last.estimate
      ? 100 * ((last.value / first.value) ** (1 / (last.year - first.year)) - 1)
      : null;
  return (
    <div className="min-w-0">
      <p className="text-[13px] text-soft">
        {name}
        {change !== null && (
          <strong className="figure text-ink">
            {' '}
            {Math.abs(change) < 0.05 ? '' : change > 0 ? '+' : '−'}
            {Math.abs(change).toFixed(1)} % a year
          </strong>
        )}
      </p>
      {bars.length === 0 ? (
        <p className="py-6 text-soft italic">no earlier years known</p>
      ) : (
        <EChart
          option={yearsOption(bars, theme)}
          height={HEIGHT}
          label={`${name} by year: ${bars.map(({ year, shown, estimate }) => `${year} ${estimate ? 'about ' : ''}${shown}`).join(', ')}`}
        />
      )}
    </div>
  );
}

/** "2026 solid, 2025 dashed". */
function yearsInWords(months: readonly { year: number }[]): string {
  const last = months.at(-1)!.year;
  return months[0]!.year === last
    ? String(last)
    : `${last} solid, ${last - 1} dashed${months[0]!.year < last - 1 ? ', before dotted' : ''}`;
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** The strongest and the weakest month by their mean, in words; nothing unless all twelve are known. */
function season(months: readonly { month: number; value: number }[], say: (value: number) => string): string {
  if (new Set(months.map(({ month }) => month)).size < MONTHS.length) return '';
  const means = MONTHS.map((_, month) => {
    const own = months.filter((one) => one.month === month);
    return own.reduce((sum, { value }) => sum + value, 0) / own.length;
  });
  const best = means.indexOf(Math.max(...means));
  const worst = means.indexOf(Math.min(...means));
  return `: strongest in ${MONTHS[best]} (${say(means[best]!)}), weakest in ${MONTHS[worst]} (${say(means[worst]!)})`;
}

/** Staff by department, with how each grew. */
export function Departments({ profile }: { profile: ProfileAnswer }) {
  const format = useFormat();
  const departments = partOf(profile, 'departments');
  if (!departments?.length) return null;
  const most = Math.max(...departments.map(({ now }) => now));
  const change = (now: number, before: number | null) =>
    before === null || before === 0 ? null : (100 * (now - before)) / before;
  const say = (percent: number | null) =>
    percent === null
      ? '–'
      : `${percent > 0 ? '+' : percent < 0 ? '−' : ''}${format.number(Math.abs(percent), 0)} %`;
  return (
    <Section name="Staff by department">
      <table className="w-full text-[13px]">
        <thead className="text-[12px] text-soft">
          <tr>
            <th />
            <th />
            <th className="text-right font-normal">now</th>
            <th className="text-right font-normal">1 year</th>
            <th className="text-right font-normal">3 years</th>
          </tr>
        </thead>
        <tbody>
          {[...departments]
            .sort((a, b) => b.now - a.now)
            .map(({ key, now, before1, before3 }) => (
              <tr key={key} className="border-b border-rule">
                <th scope="row" className="w-28 py-0.5 text-left font-normal">
                  {key}
                </th>
                <td aria-hidden="true">
                  <span
                    className="block h-2.5 bg-ink"
                    style={{ width: `${(100 * now) / Math.max(1, most)}%` }}
                  />
                </td>
                <td className="figure w-14 text-right font-semibold">{format.number(now)}</td>
                <td className="figure w-16 text-right">{say(change(now, before1))}</td>
                <td className="figure w-16 text-right">{say(change(now, before3))}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </Section>
  );
}

/** Technologies with the days on which they were first and last seen. */
export function Technologies({ profile, source }: { profile: ProfileAnswer; source: string | undefined }) {
  const format = useFormat();
  const record = profile.records.find(({ id }) => id === profile.from.technologies)?.record;
  const shown = profile.row.cells.technology as string[] | null;
  const seen = new Map(record?.technologies.map((one) => [one.label, one]));
  return (
    <Section name="Technology" note={source}>
      {shown === null ? (
        <p className="py-1 text-soft italic">unknown: the site was never surveyed</p>
      ) : shown.length === 0 ? (
        <p className="py-1 text-soft">surveyed; none seen</p>
      ) : (
        <table className="w-full text-[13px]">
          <tbody>
            {shown.map((label) => (
              <tr key={label} className="border-b border-rule">
                <th scope="row" className="py-1 text-left font-semibold">
                  {label}
                </th>
                <td className="figure text-right text-[12px] text-soft">
                  {seen.get(label)?.first != null && `since ${format.date(isoOf(seen.get(label)!.first!))}`}
                  {seen.get(label)?.last != null && `, last ${format.date(isoOf(seen.get(label)!.last!))}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}
