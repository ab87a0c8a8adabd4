import { Navigate, useParams } from 'react-router';
import { emptyTape } from '../../core/tape/nodes.ts';
import { addressOf } from '../desk/address.ts';

/** Where something that is watched is seen: a record on its profile, a list on the Desk, a tape among the runs. */
export function Watched() {
  const { subject = '', key = '' } = useParams();
  if (subject === 'tapes') return <Navigate replace to={`/runs?plan=${encodeURIComponent(key)}`} />;
  if (subject === 'lists') {
    const tape = { ...emptyTape(), lines: [{ id: 'l1', field: 'list', test: { any: [key] } }] };
    return <Navigate replace to={addressOf({ tape, sort: [], openLine: null, company: null })} />;
  }
  const company = subject === 'people' ? `people/${key}` : key;
  return <Navigate replace to={addressOf({ tape: emptyTape(subject), sort: [], openLine: null, company })} />;
}
