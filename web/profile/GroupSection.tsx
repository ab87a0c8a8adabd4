import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { SummaryAnswer } from '../../contract/market.ts';
import type { ListView } from '../../contract/lists.ts';
import type { RowsAnswer } from '../../contract/responses.ts';
import type { MoneyCell, PlaceCell, QuantityCell } from '../../core/cells.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { turnRound } from '../../core/tape/turn.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { said } from '../app/history.ts';
import { putOnList } from '../lists/acts.ts';
import { shortFigure } from '../../core/charts/wording.ts';
import { countedPart } from '../desk/queries.ts';
import { CompanyLink, Figure } from '../desk/sheet/Cell.tsx';
import { useDesk } from '../desk/store.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { Section } from './parts.tsx';

const SHOWN = 200;

/** The group of a company: its top, those below it, and what they are together. */
export function GroupSection({ group, companyKey }: { group: string; companyKey: string }) {
  const format = useFormat();
  const client = useQueryClient();
  const [by, setBy] = useState<'revenue' | 'headcount'>('revenue');
  const tape = {
    ...emptyTape(),
    name: `Group ${group}`.slice(0, 200),
    lines: [{ id: 'l1', field: 'group', test: { any: [group] } }],
  };
  const asked = countedPart(tape);
  const { data, error } = useQuery({
    queryKey: ['group', group, by],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        {
          tape: asked,
          columns: ['name', 'ownership', 'place', 'headcount', 'revenue'],
          sort: [{ by, descending: true }],
          limit: SHOWN,
        },
        signal,
      ),
    retry: false,
  });
  const { data: sums, error: unsummed } = useQuery({
    queryKey: ['summary', asked, format.currency],
    queryFn: ({ signal }) =>
      call<SummaryAnswer>(
        'POST',
        '/summary',
        { tape: asked, columns: ['headcount', 'revenue'], currency: format.currency },
        signal,
      ),
  });
  if (!data) return error ? <Trouble error={error} /> : null;
  const isTop = (row: RowsAnswer['rows'][number]) => row.cells.ownership === 'top';
  const rows = [...data.rows].sort((a, b) => Number(isTop(b)) - Number(isTop(a)));
  const asList = async () => {
    try {
      const { list } = await call<{ list: ListView }>('POST', '/lists', {
        name: `Group ${group}`.slice(0, 120),
      });
      const { added } = await putOnList(client, list, { tape: asked }, true);
      said(`${format.number(added)} put on the list “${list.name}”`);
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const whole = (field: 'headcount' | 'revenue') => {
    if (!sums) return '…';
    const own = sums.columns[field];
    return own?.sum === undefined || !own.exact
      ? 'unknown'
      : `${shortFigure(fieldOf('companies', field)!, format, own.sum)} (${format.number(own.exact)} of ${format.number(data.total)} known)`;
  };
  return (
    <Section
      name="Group"
      note={data.total === 1 ? 'nobody else in it is recorded' : `${format.number(data.total)} companies`}
    >
      <div className="flex flex-wrap items-center gap-2 py-1 text-[13px]">
        <Segments
          label="Order of the group"
          value={by}
          onChange={setBy}
          options={[
            { key: 'revenue', label: 'by revenue' },
            { key: 'headcount', label: 'by headcount' },
          ]}
        />
        <Button
          onClick={() => {
            useDesk.getState().change(tape);
            useDesk.getState().set({ company: null, view: 'sheet', sort: [{ by, descending: true }] });
          }}
        >
          These as a tape
        </Button>
        <Button onClick={() => void asList()}>These as a list</Button>
        <Button
          onClick={() => {
            useDesk.getState().change(turnRound(tape, 'sites'));
            useDesk.getState().set({
              company: null,
              view: 'sheet',
              sort: [{ by: 'headcount', descending: true }],
            });
          }}
        >
          Its sites
        </Button>
      </div>
      <Trouble error={unsummed} />
      <p className="text-[13px] text-soft">
        Together: headcount <strong className="figure text-ink">{whole('headcount')}</strong>, revenue{' '}
        <strong className="figure text-ink">{whole('revenue')}</strong>
      </p>
      <p
        className="grid grid-cols-[1fr_64px_92px] gap-2 pt-1 text-right text-[12px] text-soft"
        aria-hidden="true"
      >
        <span />
        <span>headcount</span>
        <span>revenue, {format.symbol}k</span>
      </p>
      <ul>
        {rows.map((row) => {
          const place = row.cells.place as PlaceCell | null;
          const headcount = row.cells.headcount as QuantityCell | null;
          const revenue = row.cells.revenue as MoneyCell | null;
          const money = revenue ? format.thousands(revenue) : null;
          return (
            <li
              key={row.key}
              className={`grid grid-cols-[1fr_64px_92px] items-baseline gap-2 border-b border-rule py-1 ${isTop(row) ? '' : 'pl-4'}`}
            >
              <span className="truncate">
                {!isTop(row) && (
                  <span
                    aria-hidden="true"
                    className="mr-1.5 inline-block h-2.5 w-2 border-b border-l border-edge align-[4px]"
                  />
                )}
                {row.key === companyKey ? (
                  <strong>{row.cells.name as string}</strong>
                ) : (
                  <CompanyLink company={row.key} name={row.cells.name as string} />
                )}{' '}
                <span className="text-[12px] text-soft">
                  {[place?.town, place?.countryName].filter(Boolean).join(', ')}
                </span>
              </span>
              <span className="text-right text-[13px]" title="Headcount">
                {headcount ? (
                  <Figure shown={format.headcount(headcount)} />
                ) : (
                  <span className="text-soft">–</span>
                )}
              </span>
              <span className="text-right text-[13px]" title={`Revenue, ${format.symbol}k`}>
                {money ? <Figure shown={money} /> : <span className="text-soft">–</span>}
              </span>
            </li>
          );
        })}
      </ul>
      {data.total > rows.length && (
        <p className="py-1 text-[13px] text-soft">
          and {format.number(data.total - rows.length)} more, which “These as a tape” shows
        </p>
      )}
    </Section>
  );
}
