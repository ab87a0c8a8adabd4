import { useEffect, useState } from 'react';
import type { FileReadingAnswer } from '../../../contract/readings.ts';
import type { Job, JobAnswer } from '../../../contract/responses.ts';
import type { MadeColumn } from '../../../core/records/made-columns.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { call } from '../../api.ts';

/** How a file is wished to be read. */
export interface ReadWish {
  encoding?: string;
  delimiter?: string;
  hasHeader?: boolean;
  sheet?: string;
  skip?: number;
  headerRows?: 0 | 1 | 2;
  /** Columns that are made of the file's own. */
  made?: MadeColumn[];
  subject: string;
}

export interface Reading {
  /** What the whole file comes to, by the last reading that ended. */
  answer: FileReadingAnswer | null;
  /** The reading that runs. */
  job: Job | null;
  error: Error | null;
  /** Whether the last one was cancelled. */
  stopped: boolean;
  cancel(): void;
  again(): void;
}

/** Changes on end are waited for, so that typing reads once. */
const WAIT_MS = 350;
const LOOK_MS = 200;

/** Reads a whole file, to be loaded or matched, again whenever how it is read changes; an earlier reading that still runs is cancelled. */
export function useReading(upload: string, read: ReadWish, mapping: Mapping, matching = false): Reading {
  const [answer, setAnswer] = useState<FileReadingAnswer | null>(null);
  const [job, setJob] = useState<Job | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [stopped, setStopped] = useState(false);
  const [turn, setTurn] = useState(0);
  const asked = JSON.stringify({ read, mapping, ...(matching && { matching }) });
  useEffect(() => {
    let left = false;
    let started: Job | null = null;
    const stop = (id: string) => void call('POST', `/jobs/${id}/cancel`).catch(() => {});
    const run = async () => {
      const begun = await call<{ job: Job }>('POST', `/uploads/${upload}/readings`, JSON.parse(asked));
      started = begun.job;
      if (left) return stop(started.id);
      for (let now = begun.job; ;) {
        setJob(now);
        if (now.state !== 'running') return ended(now);
        await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
        if (left) return;
        now = (await call<JobAnswer>('GET', `/jobs/${now.id}`)).job;
      }
    };
    const ended = (now: Job) => {
      started = null;
      setJob(null);
      setStopped(now.state === 'cancelled');
      if (now.state === 'done') setAnswer(now.result as unknown as FileReadingAnswer);
      else if (now.state === 'failed') setError(new Error(now.message ?? 'The file could not be read.'));
    };
    const timer = setTimeout(() => {
      setError(null);
      setStopped(false);
      run().catch((failure: unknown) => {
        if (left) return;
        setJob(null);
        setError(failure instanceof Error ? failure : new Error(String(failure)));
      });
    }, WAIT_MS);
    return () => {
      left = true;
      clearTimeout(timer);
      if (started) stop(started.id);
    };
  }, [upload, asked, turn]);
  const cancel = () => {
    if (job) void call('POST', `/jobs/${job.id}/cancel`).catch(() => {});
  };
  return { answer, job, error, stopped, cancel, again: () => setTurn(turn + 1) };
}
