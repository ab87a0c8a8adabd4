import { SMTPServer } from 'smtp-server';
import { listenHere, portOf, sourceOf, stopServer } from '../outreach/smtp.ts';

/** A mail server of this machine that takes everything and keeps it, for tests. */
export class MailWell {
  private readonly kept: string[] = [];
  private readonly waiting: (() => void)[] = [];
  private readonly server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData: (stream, _session, done) => {
      sourceOf(stream).then(
        (source) => {
          this.kept.push(source.toString('utf8').replaceAll('=\r\n', ''));
          for (const tell of this.waiting.splice(0)) tell();
          done();
        },
        (error: Error) => done(error),
      );
    },
  });

  start(): Promise<void> {
    return listenHere(this.server);
  }

  stop(): Promise<void> {
    return stopServer(this.server);
  }

  get port(): number {
    return portOf(this.server);
  }

  /** The first mails, once there are so many. */
  async mails(count: number): Promise<string[]> {
    while (this.kept.length < count) await new Promise<void>((resolve) => this.waiting.push(resolve));
    return this.kept.slice(0, count);
  }
}
