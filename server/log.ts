import pino, { type Logger } from 'pino';

/** What the server writes down: one JSON object a line, on standard error or into a file. */
export interface LogOptions {
  level: string;
  /** A file that lines are added to; standard error where none is given. */
  file?: string;
}

export const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'] as const;

export type Log = Logger;

/** Opens the log. Lines are written before the call returns, so that the last one before an end is there. */
export function openLog({ level, file }: LogOptions): Log {
  return pino(
    { level, base: undefined, timestamp: pino.stdTimeFunctions.isoTime },
    pino.destination(file ? { dest: file, mkdir: true, sync: true } : { dest: 2, sync: true }),
  );
}

/** A log that is not kept, for tests and tools. */
export const NO_LOG: Log = pino({ level: 'silent' });
