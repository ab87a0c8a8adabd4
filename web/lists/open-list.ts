import { useNavigate } from 'react-router';
import type { ListView } from '../../contract/lists.ts';
import type { ListTest, SortKey, Tape } from '../../core/tape/nodes.ts';
import { addressOf } from '../desk/address.ts';
import { useDesk, type View } from '../desk/store.ts';
import { columnsOfList, tapeOfList } from './use-lists.ts';

/** Opens some members of a list on the Desk, with what the list says of them as columns. */
export function useOpenList(): (list: ListView, more?: Omit<ListTest, 'any'>, view?: View) => void {
  const openTape = useOpenTape();
  return (list, more = {}, view = 'sheet') => {
    const { columns } = useDesk.getState();
    openTape(tapeOfList(list, more), columnsOfList(list, columns[list.subject]), view);
  };
}

/** Opens a tape on the Desk. */
export function useOpenTape(): (
  tape: Tape,
  columns?: readonly string[],
  view?: View,
  sort?: SortKey[],
) => void {
  const navigate = useNavigate();
  return (tape, columns, view = 'sheet', sort = []) => {
    const { change, set } = useDesk.getState();
    change(tape, undefined, { sort, ...(columns ? { columns } : {}) });
    set({ company: null, openLine: null, view });
    void navigate(addressOf({ tape, sort, openLine: null, company: null, view }));
  };
}
