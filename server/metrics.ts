import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client';
import { statfsSync } from 'node:fs';
import type { Services } from './services.ts';

/** Bytes free where the data is kept; null where the system does not say. */
export function bytesFree(dir: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(dir);
    return bavail * bsize;
  } catch {
    return null;
  }
}

/** What the server counts of itself, in the open text format of metrics. */
export interface Metrics {
  answered(method: string, route: string, status: number, seconds: number): void;
  /** The figures as they are now, and their content type. */
  text(): Promise<string>;
  readonly contentType: string;
}

export function openMetrics({ dir, engine, jobs }: Services): Metrics {
  const register = new Registry();
  const registers = [register];
  collectDefaultMetrics({ register });
  const requests = new Counter({
    name: 'just_tally_requests_total',
    help: 'Requests answered, by method, route and status.',
    labelNames: ['method', 'route', 'status'],
    registers,
  });
  const seconds = new Histogram({
    name: 'just_tally_request_seconds',
    help: 'Time from a request to the end of its answer.',
    labelNames: ['method', 'route'],
    buckets: [0.005, 0.01, 0.03, 0.06, 0.1, 0.3, 1, 3, 10],
    registers,
  });
  const gauge = (name: string, help: string, read: () => number | null) =>
    new Gauge({
      name,
      help,
      registers,
      collect() {
        const value = read();
        if (value === null) this.reset();
        else this.set(value);
      },
    });
  gauge('just_tally_generation', 'Grows with every change of what is counted.', () => engine.generation);
  gauge('just_tally_jobs_running', 'Jobs that run now.', () => jobs.count);
  gauge(
    'just_tally_threads_answering',
    'Counting threads that can answer.',
    () => Object.values(engine.threads).filter(Boolean).length,
  );
  gauge('just_tally_thread_deaths', 'Counting threads that ended by themselves.', () => engine.deaths);
  gauge('just_tally_disk_free_bytes', 'Bytes free where the data is kept.', () => bytesFree(dir));
  return {
    answered(method, route, status, took) {
      requests.inc({ method, route, status });
      seconds.observe({ method, route }, took);
    },
    text: () => register.metrics(),
    contentType: register.contentType,
  };
}
