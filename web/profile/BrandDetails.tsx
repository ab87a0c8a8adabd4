import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { RecordAnswer, RowsAnswer } from '../../contract/responses.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { relatedTape } from '../../core/tape/turn.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { EChart } from '../charts/EChart.tsx';
import { yearsOption } from '../charts/history-options.ts';
import { useChartTheme } from '../charts/theme.ts';
import { countedPart } from '../desk/queries.ts';
import { Cell, CompanyLink } from '../desk/sheet/Cell.tsx';
import { columnOf } from '../desk/sheet/columns.ts';
import { Trouble } from '../ui/controls.tsx';
import { useRecord } from './use-record.ts';

const HEIGHT = 96;

/** The number of products of a brand over the years, as bars. */
export function ProductsOverTime({ products }: { products: NonNullable<RecordAnswer['products']> }) {
  const format = useFormat();
  const theme = useChartTheme();
  const bars = useMemo(
    () => products.map(({ year, value }) => ({ year, value, estimate: false, shown: format.number(value) })),
    [products, format],
  );
  return (
    <EChart
      option={yearsOption(bars, theme)}
      height={HEIGHT}
      label={`Products by year: ${bars.map(({ year, shown }) => `${year} ${shown}`).join(', ')}`}
    />
  );
}

const MOST_NAMED = 6;

/** Companies in one role of a brand, by name, the first few of many. */
function Named({ parties, none }: { parties: RecordAnswer['parties']; none: string }) {
  const format = useFormat();
  if (parties.length === 0) return <span className="text-soft italic">{none}</span>;
  return (
    <>
      <strong className="figure">{format.number(parties.length)}</strong>{' '}
      {parties.slice(0, MOST_NAMED).map(({ name, key }, i) => (
        <span key={i}>
          {i > 0 && ', '}
          {key ? <CompanyLink company={key} name={name} /> : name}
        </span>
      ))}
      {parties.length > MOST_NAMED && ` and ${format.number(parties.length - MOST_NAMED)} more`}
    </>
  );
}

const BRANDS = emptyTape('brands');

/** Brands whose details stand on a company's page, those with most products; the rest have their own pages. */
const MOST_DETAILED = 4;

/** Of each brand a company owns: its products over time, where it is sold, and who resells it with consent and who without. */
export function OwnedBrands({ company }: { company: string }) {
  const format = useFormat();
  const tape = relatedTape({ id: 'h', has: 'brands', as: 'owner', lines: [] }, company);
  const { data, error } = useQuery({
    queryKey: ['owned brands', company],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        {
          tape: countedPart(tape),
          sort: [{ by: 'products', descending: true }],
          columns: ['name'],
          limit: MOST_DETAILED,
        },
        signal,
      ),
    retry: false,
  });
  if (!data) return <Trouble error={error} />;
  return (
    <div className="mt-3 grid grid-cols-2 gap-x-7 gap-y-4 max-[820px]:grid-cols-1">
      {data.total > MOST_DETAILED && (
        <p className="col-span-full text-[13px] text-soft">
          Of the {format.number(data.total)} it owns, the {MOST_DETAILED} with most products:
        </p>
      )}
      {data.rows.map(({ key, cells }) => (
        <OwnedBrand key={key} brandKey={key} name={(cells.name as string | null) ?? key} />
      ))}
    </div>
  );
}

function OwnedBrand({ brandKey, name }: { brandKey: string; name: string }) {
  const format = useFormat();
  const { data, error } = useRecord('brands', brandKey);
  if (!data) return <Trouble error={error} />;
  const { cells } = data.row;
  const share = cells.share as number | null;
  const soldIn = cells['sold-in'] as string[] | null;
  const resellers = (role: string) => data.parties.filter((party) => party.role === role);
  return (
    <section className="min-w-0 border-b border-rule pb-2 text-[13px]">
      <h3 className="font-semibold">{name}</h3>
      {cells.category !== null && (
        <p className="text-soft">
          {share === null ? 'share unknown of ' : `${format.percent(share)} of `}
          <Cell column={columnOf(BRANDS, 'category')!} row={data.row} format={format} />
        </p>
      )}
      <p className="mt-1 text-soft">Products over the years</p>
      {data.products ? (
        <ProductsOverTime products={data.products} />
      ) : (
        <p className="text-soft italic">not recorded</p>
      )}
      <p className="mt-1">
        <span className="text-soft">Sold in</span>{' '}
        {soldIn === null ? (
          <span className="text-soft italic">unknown</span>
        ) : (
          <>
            <strong className="figure">{soldIn.length}</strong> {soldIn.join(', ')}
          </>
        )}
      </p>
      <p className="mt-1">
        <span className="text-soft">Resold with consent by</span>{' '}
        <Named parties={resellers('consented')} none="nobody recorded" />
      </p>
      <p className="mt-1">
        <span className="text-soft">without consent by</span>{' '}
        <Named parties={resellers('unconsented')} none="nobody recorded" />
      </p>
      {resellers('resold').length > 0 && (
        <p className="mt-1">
          <span className="text-soft">by others, of whom consent is not known,</span>{' '}
          <Named parties={resellers('resold')} none="" />
        </p>
      )}
    </section>
  );
}
