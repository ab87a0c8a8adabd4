import { useNavigate } from 'react-router';
import type { Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { addressOf, encodeTape, LONGEST_ADDRESS } from './address.ts';

/** Opens a tape on the Desk, one too long for an address by its stored id. */
export function useOpenTape(): (tape: Tape) => void {
  const navigate = useNavigate();
  return (tape) => {
    const go = (text: string) =>
      void navigate(addressOf({ tape, sort: tape.sort ?? [], openLine: null, company: null }, text));
    const text = encodeTape(tape);
    if (text.length <= LONGEST_ADDRESS) return go(text);
    void call<{ id: string }>('POST', '/addresses', { tape }).then(({ id }) => go(`~${id}`));
  };
}
