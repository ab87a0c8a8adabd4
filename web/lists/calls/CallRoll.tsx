import type { ListView } from '../../../contract/lists.ts';
import { CALL_OUTCOMES } from '../../../core/lists/calls.ts';
import { Roll } from '../../ui/Roll.tsx';
import { useOpenList } from '../open-list.ts';
import type { Called } from './called.ts';

/** The paper beside a call sheet: who is to be called, less what came of it, is who is left. */
export function CallRoll({ list, rows }: { list: ListView; rows: readonly Called[] }) {
  const open = useOpenList();
  const outcomes = CALL_OUTCOMES.map((outcome) => ({
    outcome,
    count: rows.filter((row) => row.outcome === outcome).length,
  })).filter(({ count }) => count > 0);
  const called = (upTo: number) => outcomes.slice(0, upTo).reduce((sum, { count }) => sum + count, 0);
  const steps = outcomes.map(({ outcome, count }, i) => ({
    ...{ key: outcome, label: outcome, delta: -count, total: rows.length - called(i + 1) },
    onOpen: () => open(list, { tag: [outcome] }),
  }));
  return (
    <Roll
      title={list.name}
      about="What came of each call is a tag of the member: a line, a column and an export have it."
      steps={[
        {
          key: 'all',
          label: 'on the sheet',
          delta: rows.length,
          total: rows.length,
          onOpen: () => open(list),
        },
        ...steps,
      ]}
      foot={{ label: 'left to call', total: rows.length - called(outcomes.length) }}
    />
  );
}
