import type { QueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type { MessageBody } from '../../contract/outreach.ts';
import type { MessageView } from '../../contract/outreach-views.ts';
import { isClash } from '../api.ts';
import { changeMessage } from './acts.ts';
import { outreachChanged } from './use-outreach.ts';

/** What is typed is kept after a pause of so long, and at once on leaving. */
const PAUSE_MS = 700;

export interface Typed {
  subject: string;
  body: string;
}

/** Keeps what is typed into a draft: after a pause, on leaving, and before anything goes out. */
export class DraftKeeper {
  private readonly client: QueryClient;
  private seen: MessageView;
  /** What the server has, or is being told. */
  private kept: Typed;
  private typed: Typed;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told: () => void = () => {};

  constructor(client: QueryClient, message: MessageView) {
    this.client = client;
    this.seen = message;
    this.typed = this.kept = { subject: message.subject, body: message.body };
  }

  readonly subscribe = (told: () => void): (() => void) => {
    this.told = told;
    return () => (this.told = () => {});
  };

  readonly snapshot = (): Typed => this.typed;

  type(part: Partial<Typed>): void {
    this.typed = { ...this.typed, ...part };
    this.told();
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.keep(), PAUSE_MS);
  }

  /** Takes over what the server has now, such as another proof, but for what is being typed over. */
  take(message: MessageView): void {
    const { subject, body } = message;
    const untouched = (part: keyof Typed) => this.typed[part] === this.kept[part];
    const next = {
      subject: untouched('subject') ? subject : this.typed.subject,
      body: untouched('body') ? body : this.typed.body,
    };
    this.seen = message;
    this.kept = { subject, body };
    if (next.subject === this.typed.subject && next.body === this.typed.body) return;
    this.typed = next;
    this.told();
  }

  /** Keeps what was typed, if anything was. */
  async keep(): Promise<void> {
    clearTimeout(this.timer);
    const { kept: before, typed: now } = this;
    const wish: MessageBody = {
      ...(now.subject === before.subject ? {} : { subject: now.subject }),
      ...(now.body === before.body ? {} : { body: now.body }),
    };
    if (Object.keys(wish).length === 0) return;
    this.kept = now;
    try {
      this.seen = await changeMessage(this.client, this.seen, wish);
    } catch (error) {
      this.kept = before;
      const { message } = error as Error;
      toast.error(isClash(error) ? `${message} What you typed is still here.` : message);
      if (isClash(error)) await outreachChanged(this.client);
    }
  }

  /** Fills the draft otherwise: another template, proof or way of naming what set it off. */
  async change(wish: MessageBody): Promise<void> {
    await this.keep();
    try {
      this.take(await changeMessage(this.client, this.seen, wish));
    } catch (error) {
      toast.error((error as Error).message);
    }
  }
}
