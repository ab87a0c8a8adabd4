import { useQuery } from '@tanstack/react-query';
import type { RecordAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';

/** What is known of one record below companies. */
export function useRecord(subject: string, recordKey: string) {
  return useQuery({
    queryKey: ['record', subject, recordKey],
    queryFn: ({ signal }) =>
      call<RecordAnswer>(
        'GET',
        `/records/${encodeURIComponent(subject)}/${encodeURIComponent(recordKey)}`,
        undefined,
        signal,
      ),
    retry: false,
  });
}
