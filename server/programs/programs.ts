import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import { gatheredFile } from '../gather/gather.ts';
import { noticeFile } from '../runs/notice-file.ts';
import { exportById, storedName } from '../tables/exports.ts';
import { allHooks } from '../tables/handover/programs.ts';
import { HookPost } from './hook-post.ts';
import { StandInReceiver } from './stand-in-receiver.ts';

const SEED = 20_260_930;

/** What other programs are given beside files: posts to webhooks, and the receiver that stands in for one. */
export class Programs {
  readonly standIn: StandInReceiver;
  readonly post: HookPost;

  private constructor(standIn: StandInReceiver, post: HookPost) {
    this.standIn = standIn;
    this.post = post;
  }

  static async open({
    dir,
    handover,
    workspace,
    log,
  }: {
    dir: string;
    handover: Db;
    workspace: Db;
    log: Log;
  }): Promise<Programs> {
    const standIn = new StandInReceiver(SEED, () =>
      allHooks(handover).flatMap(({ url, secret }) => (url === 'stand-in' ? [secret] : [])),
    );
    await standIn.start();
    const post = new HookPost({
      db: handover,
      log,
      standIn: () => standIn.url,
      fileOf: (id) => {
        const gathered = gatheredFile(dir, id) ?? noticeFile(dir, id);
        if (gathered !== null) return gathered;
        const row = exportById(workspace, id);
        const path = row && join(dir, 'exports', storedName(row));
        return path !== undefined && existsSync(path) ? path : null;
      },
    });
    post.wake();
    return new Programs(standIn, post);
  }

  async stop(): Promise<void> {
    await this.post.stop();
    await this.standIn.stop();
  }
}
