import type { Log } from '../log.ts';
import { openOutreach, type Db } from '../db/open.ts';
import { asOfDay } from '../days.ts';
import type { ListsHost } from '../lists/host.ts';
import { loadCodeTrees } from '../reference.ts';
import { allLists } from '../tables/lists/list-rows.ts';
import { readSettings } from '../tables/workspace.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';
import { Inbox } from './inbox.ts';
import { PersonFacts } from './person-facts.ts';
import { Post } from './post.ts';
import { StandIn } from './stand-in/host.ts';
import { takeReply, type OptedOut, type Taken } from './take-reply.ts';

/** What puts somebody who opted out on the list of those who did. */
const whatPut = (mail: string) => `an answer from ${mail}`;

/** The list that people who opted out are put on, which keeps them off exports too. */
export const OPTED_OUT_LIST = 'Opted out of messages';

interface OutreachWish {
  dir: string;
  universe: Db;
  workspace: Db;
  listsDb: Db;
  lists: ListsHost;
  log: Log;
}

/** What is written to people: the messages, the post that carries them, the stand-in that takes them, and what comes back. */
export class Outreach {
  readonly db: Db;
  readonly post: Post;
  readonly facts: PersonFacts;
  private readonly wish: OutreachWish;
  private readonly standIn: StandIn;
  private readonly inbox: Inbox;

  private constructor(wish: OutreachWish, db: Db, inbox: Inbox, standIn: StandIn) {
    this.wish = wish;
    this.db = db;
    this.inbox = inbox;
    this.standIn = standIn;
    this.post = new Post(wish.dir, db, wish.log, standIn.port);
    this.facts = new PersonFacts(wish.universe, loadCodeTrees().get('nace-2.1')!, () =>
      asOfDay(readSettings(wish.workspace)),
    );
  }

  static async open(wish: OutreachWish): Promise<Outreach> {
    const db = openOutreach(wish.dir);
    const certainty = wish.universe
      .prepare<[string], number | null>('SELECT certainty FROM person WHERE lower(mail) = ? LIMIT 1')
      .pluck();
    const inbox = await Inbox.open((source) => opened.take(source), wish.log);
    const standIn = await StandIn.start({
      db,
      log: wish.log,
      inbox: inbox.port,
      certaintyOf: (mail) => certainty.get(mail) ?? null,
      hastened: () => readOutreachSettings(db).hasten,
    });
    const opened: Outreach = new Outreach(wish, db, inbox, standIn);
    opened.post.start();
    return opened;
  }

  /** Where the stand-in for the world's mail hosts listens. */
  get mailHost(): number {
    return this.standIn.port;
  }

  /** Takes a message that came back, with all that follows of it. Null where it was taken before. */
  async take(source: Buffer): Promise<Taken | null> {
    const taken = await takeReply(this.db, source);
    if (taken?.optedOut) await this.keepOff(taken.optedOut);
    return taken;
  }

  /** Puts somebody who opted out on the suppression list of those who did, which is made where it is not there. */
  async keepOff({ person, mail }: OptedOut): Promise<void> {
    if (person === null) return;
    const { lists, listsDb, workspace } = this.wish;
    const us = readSettings(workspace).person;
    const all = allLists(listsDb);
    const there = all.find(
      ({ name, subject, suppression }) =>
        name.startsWith(OPTED_OUT_LIST) && subject === 'people' && suppression !== null,
    );
    const taken = all.some(({ name }) => name === OPTED_OUT_LIST);
    const { key } =
      there ??
      (await lists.change('add', {
        ...{
          name: taken ? `${OPTED_OUT_LIST}, people` : OPTED_OUT_LIST,
          subject: 'people',
          owner: us,
          suppression: 'members',
        },
        purpose: 'They answered that they want no more messages.',
      }));
    const origin = {
      kind: 'hand' as const,
      what: whatPut(mail),
      tape: null,
      asOf: null,
      person: us,
    };
    await lists.change('addMembers', key, origin, { keys: [person] });
  }

  /** Takes what their answer put on that list off it again, where it was no opting out. What others put there stays. */
  async letBack(mail: string): Promise<void> {
    const { lists, listsDb } = this.wish;
    const found = listsDb
      .prepare<[string, string], { list: string; id: number }>(
        `SELECT o.list, o.id FROM list_origin o JOIN list l ON l.key = o.list
         WHERE o.what = ? AND l.subject = 'people' AND l.name LIKE ? || '%'`,
      )
      .all(whatPut(mail), OPTED_OUT_LIST);
    for (const { list, id } of found) await lists.change('removeOrigins', list, [id]);
  }

  async stop(): Promise<void> {
    await this.post.stop();
    await this.standIn.stop();
    await this.inbox.stop();
    this.db.close();
  }
}
