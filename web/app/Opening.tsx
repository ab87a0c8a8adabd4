import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { addressOf } from '../desk/address.ts';

/** The bare address: the Desk with the tape that the workspace opens with, if it has one. */
export function Opening() {
  const { data, isError } = useQuery({
    queryKey: ['opening'],
    queryFn: ({ signal }) => call<{ tape: Tape | null }>('GET', '/opening', undefined, signal),
  });
  if (!data && !isError) return null;
  const tape = data?.tape ?? emptyTape();
  return <Navigate to={addressOf({ tape, sort: tape.sort ?? [], openLine: null, company: null })} replace />;
}
