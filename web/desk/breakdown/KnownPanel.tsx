import type { KnownField } from '../../../contract/market.ts';
import { useFormat } from '../../app/format.ts';

/** How much is known of each field: exact or plain, in bands, by estimate; the rest is unknown. */
export function KnownPanel({ known, total }: { known: readonly KnownField[]; total: number }) {
  const format = useFormat();
  const share = (count: number) => (100 * count) / Math.max(1, total);
  const sorted = [...known].sort((a, b) => b.known - a.known);
  return (
    <section aria-label="What is known" className="min-w-0">
      <h2 className="title text-[16px]">What is known</h2>
      <p className="text-[12px] text-soft">
        Share of {format.number(total)} with a value: solid as recorded, hatched in bands or by estimate.
      </p>
      <table className="mt-1 w-full text-[13px]">
        <tbody>
          {sorted.map(({ field, label, known: count, estimated, banded }) => (
            <tr key={field}>
              <th scope="row" className="w-40 truncate py-0.5 text-left font-normal">
                {label}
              </th>
              <td>
                <span className="flex h-2.5 bg-rule" aria-hidden="true">
                  <span className="bg-ink" style={{ width: `${share(count - estimated - banded)}%` }} />
                  <span
                    style={{
                      width: `${share(estimated + banded)}%`,
                      background:
                        'repeating-linear-gradient(115deg, var(--unsure) 0 1.5px, var(--paper) 1.5px 4px)',
                    }}
                  />
                </span>
              </td>
              <td
                className="figure w-16 pl-2 text-right"
                title={`${format.number(count)} of ${format.number(total)}; ${format.number(estimated)} by estimate, ${format.number(banded)} in bands`}
              >
                {format.number(share(count), share(count) < 10 ? 1 : 0)} %
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
