import { useQuery } from '@tanstack/react-query';
import type { StandingAnswer } from '../../contract/market.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { shortFigure } from '../../core/charts/wording.ts';
import { Approx, Trouble } from '../ui/controls.tsx';
import { Section } from './parts.tsx';

/** Where a company stands among those of its industry group: strips from the 5th to the 95th percentile, half of them between the quartiles. */
export function Standing({ companyKey }: { companyKey: string }) {
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ['standing', companyKey, format.currency],
    queryFn: ({ signal }) =>
      call<StandingAnswer>(
        'GET',
        `/companies/${encodeURIComponent(companyKey)}/standing?currency=${format.currency}`,
        undefined,
        signal,
      ),
    retry: false,
  });
  if (error) return <Trouble error={error} />;
  if (!data?.among) return null;
  return (
    <Section name="Against its industry" note={`${format.number(data.among.count)} in ${data.among.label}`}>
      <table className="w-full text-[13px]">
        <tbody>
          {data.strips.map(({ field, label, value, estimated, known, quantiles, percentile }) => {
            const own = fieldOf('companies', field)!;
            const [p5, p25, p50, p75, p95] = quantiles as [number, number, number, number, number];
            const at = place(field, p5, p95);
            return (
              <tr key={field}>
                <th scope="row" className="w-28 py-1 text-left font-normal">
                  {label}
                </th>
                <td>
                  <svg
                    viewBox="0 0 200 16"
                    className="block h-4 w-full"
                    preserveAspectRatio="none"
                    aria-hidden="true"
                  >
                    <line
                      x1="0"
                      x2="200"
                      y1="8"
                      y2="8"
                      stroke="var(--edge)"
                      vectorEffect="non-scaling-stroke"
                    />
                    <rect
                      x={at(p25)}
                      y="3"
                      width={Math.max(1, at(p75) - at(p25))}
                      height="10"
                      fill="var(--bar)"
                    />
                    <line
                      x1={at(p50)}
                      x2={at(p50)}
                      y1="1"
                      y2="15"
                      stroke="var(--soft)"
                      strokeWidth="2"
                      vectorEffect="non-scaling-stroke"
                    />
                    {value !== null && (
                      <rect x={at(value) - 1.6} y="0" width="3.2" height="16" fill="var(--ink)" />
                    )}
                  </svg>
                </td>
                <td
                  className="w-36 pl-3 text-right"
                  title={`median ${shortFigure(own, format, p50)} of ${format.number(known)} known`}
                >
                  {value === null ? (
                    <span className="text-soft italic">unknown</span>
                  ) : (
                    <>
                      <span className={`figure font-semibold ${estimated ? 'text-unsure' : ''}`}>
                        {estimated && <Approx />}
                        {shortFigure(own, format, value)}
                      </span>{' '}
                      <span className="text-[12px] text-soft">above {format.number(percentile!)} %</span>
                    </>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Section>
  );
}

/** Where a figure stands on a strip: sizes by their logarithm, growth and age as they are. */
function place(field: string, low: number, high: number): (value: number) => number {
  const plain = field === 'growth' || field === 'age';
  const scaled = (value: number) => (plain ? value : Math.log(Math.max(0, value) + 1));
  const [from, to] = [scaled(low), scaled(high)];
  return (value) =>
    Math.max(3, Math.min(197, 3 + (194 * (scaled(value) - from)) / Math.max(1e-9, to - from)));
}
