import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { SqlAnswer } from '../../../contract/responses.ts';
import type { Dialect } from '../../../core/tape/sql/compile.ts';
import { call } from '../../api.ts';
import { Button, Dialog, Segments, Trouble } from '../../ui/controls.tsx';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

const PARQUET = 'the tables that npm run parquet writes from this workspace';

const OVER: Record<Dialect, { label: string; over: string }> = {
  sqlite: { label: 'SQLite', over: 'universe.sqlite of this workspace' },
  duckdb: { label: 'DuckDB', over: `${PARQUET}, one Parquet file each` },
  postgresql: { label: 'PostgreSQL', over: `${PARQUET}, brought over` },
};

/** The tape as a statement that selects the same companies on another engine. */
export function SqlDialog({ open, onClose }: { open: boolean; onClose(): void }) {
  const tape = countedPart(useDesk((state) => state.tape));
  const [dialect, setDialect] = useState<Dialect>('sqlite');
  const { data, error } = useQuery({
    queryKey: ['sql', tape, dialect],
    queryFn: ({ signal }) => call<SqlAnswer>('POST', '/sql', { tape, dialect }, signal),
    enabled: open,
    retry: false,
  });
  const statement = data?.statement ?? '';
  const copy = async () => {
    await navigator.clipboard.writeText(statement);
    toast('Copied');
  };
  return (
    <Dialog
      title="This count as SQL"
      description="the number of rows is the tally"
      open={open}
      onClose={onClose}
      width={820}
    >
      <div className="mb-3 flex items-center justify-between">
        <Segments
          label="Database"
          value={dialect}
          options={Object.entries(OVER).map(([key, { label }]) => ({ key: key as Dialect, label }))}
          onChange={setDialect}
        />
        <Button onClick={() => void copy()} disabled={statement === ''}>
          Copy
        </Button>
      </div>
      <p className="mb-2 text-soft">Over {OVER[dialect].over}:</p>
      <Trouble error={error} />
      <pre
        aria-label="Statement"
        className="figure max-h-[52vh] overflow-auto rounded border border-rule bg-ground p-3 text-[12px] whitespace-pre-wrap select-all"
      >
        {data ? statement : error ? 'None for this tape.' : 'Compiling …'}
      </pre>
    </Dialog>
  );
}
