import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { BreakdownAnswer } from '../../../contract/market.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import { useFormat } from '../../app/format.ts';
import { chartFile, EChart } from '../../charts/EChart.tsx';
import { saveFile } from '../../charts/save-file.ts';
import { curveOption } from '../../charts/spread-options.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { shortFigure } from '../../../core/charts/wording.ts';
import { Button, Segments } from '../../ui/controls.tsx';

const HEIGHT = 190;

/** How much of the market its largest hold, by revenue or headcount, without the lines on size and with groups as one. */
export function ConcentrationPanel({
  answers,
  against,
}: {
  answers: NonNullable<BreakdownAnswer['concentration']>;
  against: string | null;
}) {
  const format = useFormat();
  const theme = useChartTheme();
  const [by, setBy] = useState<'revenue' | 'headcount'>('revenue');
  const answer = answers[by];
  const { found, groups, leftOut, companies, unknown, estimated, base } = answer;
  const option = useMemo(
    () => (found ? curveOption(answer, theme, (value) => format.number(value)) : null),
    [answer, found, theme, format],
  );
  const four = found?.largest.find(({ units }) => units === Math.min(4, found.units));
  return (
    <section aria-label="How concentrated" className="min-w-0">
      <header className="flex items-center gap-2">
        <h2 className="title text-[16px]">How concentrated</h2>
        <span className="ml-auto text-[12px]">
          <Segments
            label="Concentration by"
            value={by}
            onChange={setBy}
            options={[
              { key: 'revenue', label: 'revenue' },
              { key: 'headcount', label: 'headcount' },
            ]}
          />
        </span>
        {option && (
          <Button
            look="quiet"
            aria-label="Download the curve"
            title="Drawing (SVG)"
            onClick={() =>
              void chartFile(option, { width: 640, height: 320 }, 'svg').then((blob) =>
                saveFile(blob, `Concentration by ${by}.svg`),
              )
            }
          >
            <Download size={14} />
          </Button>
        )}
      </header>
      {!found || !option || !four ? (
        <p className="py-2 text-soft">Nobody here has a figure for {by}.</p>
      ) : (
        <>
          <p className="text-[12px] text-soft">
            {leftOut.length > 0 ? (
              <span title={leftOut.join('; ')}>Lines on size left out ({leftOut.length}), groups as one</span>
            ) : (
              'Groups as one'
            )}
            : the largest {format.number(four.units)} hold {format.number(four.share, 1)} %, HHI{' '}
            {format.number(found.hhi, found.hhi < 100 ? 1 : 0)}
            {base &&
              `; ${format.number(base.hhi, base.hhi < 100 ? 1 : 0)} in ${against ?? 'what it is compared with'} (dashed)`}
            .
          </p>
          <EChart
            option={option}
            height={HEIGHT}
            label={`Concentration by ${by}: the largest ${four.units} hold ${four.share.toFixed(1)} %`}
          />
          <table className="mt-1 w-full text-[13px]">
            <tbody>
              {found.largest.map(({ units, share }) => (
                <tr key={units} className="border-b border-rule">
                  <th scope="row" className="py-0.5 text-left font-normal">
                    the largest <span className="figure">{format.number(units)}</span>
                  </th>
                  <td className="figure text-right font-semibold">{format.number(share, 1)} %</td>
                </tr>
              ))}
              <tr className="border-b border-rule">
                <th scope="row" className="py-0.5 text-left font-normal">
                  all <span className="figure">{format.number(found.units)}</span> with a figure,{' '}
                  {format.number(groups)} of them groups
                </th>
                <td className="figure text-right font-semibold">
                  {shortFigure(fieldOf('companies', by)!, format, found.total)}
                </td>
              </tr>
              <tr>
                <th scope="row" className="py-0.5 text-left font-normal text-unsure">
                  without a single figure, of {format.number(companies)}
                </th>
                <td className="figure text-right text-unsure">{format.number(unknown)}</td>
              </tr>
            </tbody>
          </table>
          {estimated >= 0.05 && (
            <p className="text-[12px] text-unsure">
              {format.number(estimated, 1)} % of the total rests on estimates.
            </p>
          )}
        </>
      )}
    </section>
  );
}
