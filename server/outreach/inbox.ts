import { SMTPServer } from 'smtp-server';
import type { Log } from '../log.ts';
import { listenHere, portOf, sourceOf, stopServer } from './smtp.ts';

/** Takes mail that comes back from the stand-in, on this machine alone. */
export class Inbox {
  private readonly server: SMTPServer;

  private constructor(take: (source: Buffer) => Promise<unknown>, log: Log) {
    this.server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['AUTH', 'STARTTLS'],
      logger: false,
      onData: (stream, _session, done) => {
        sourceOf(stream)
          .then(take)
          .then(
            () => done(),
            (error: Error) => {
              log.warn({ err: error }, 'A message that came could not be taken');
              done(error);
            },
          );
      },
    });
    this.server.on('error', (error) => log.debug({ err: error }, 'The inbox'));
  }

  static async open(take: (source: Buffer) => Promise<unknown>, log: Log): Promise<Inbox> {
    const inbox = new Inbox(take, log);
    await listenHere(inbox.server);
    return inbox;
  }

  get port(): number {
    return portOf(this.server);
  }

  stop(): Promise<void> {
    return stopServer(this.server);
  }
}
