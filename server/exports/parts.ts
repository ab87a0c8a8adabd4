import { mkdirSync, renameSync, rmSync } from 'node:fs';
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import { Problem } from '../../core/tape/problem.ts';
import type { FileRow, OpenWriter, Writer, WriterContext } from './writers/writer.ts';

/** Files that an export may come in at once: each is open until the last row is read. */
export const MOST_PARTS = 300;

/** How rows come in several files: one for each value of a column, or one for every so many rows. */
export type Split = { by: string } | { rows: number };

/** The files of an export, made in a folder of their own until all of them are whole. */
export class PartFiles {
  private readonly dir: string;
  private readonly open: OpenWriter;
  private readonly context: Omit<WriterContext, 'path' | 'title'>;
  private readonly ending: string;
  private readonly title: string;
  private readonly parts = new Map<string, { name: string; writer: Writer; count: number }>();

  constructor(
    dir: string,
    open: OpenWriter,
    context: Omit<WriterContext, 'path' | 'title'>,
    title: string,
    ending: string,
  ) {
    this.dir = dir;
    this.open = open;
    this.context = context;
    this.title = title;
    this.ending = ending;
    rmSync(dir, { recursive: true, force: true });
    mkdirSync(dir, { recursive: true });
  }

  /** Adds rows to the part under a key, whose file is called after `label`; "" is the only one. */
  async add(key: string, label: string, rows: readonly FileRow[]): Promise<void> {
    const part = this.parts.get(key) ?? (await this.begin(key, label));
    part.count += rows.length;
    await part.writer.add(rows);
  }

  private async begin(key: string, label: string) {
    if (this.parts.size === MOST_PARTS)
      throw new Problem(
        'too-many-files',
        `More than ${MOST_PARTS} files would come of it, one for each value.`,
        {
          field: 'split',
          value: label,
          rule: `at most ${MOST_PARTS} files`,
        },
      );
    const stem = label === '' ? this.title : `${this.title} - ${label}`;
    let name = `${stem}.${this.ending}`;
    const taken = new Set([...this.parts.values()].map((one) => one.name.toLowerCase()));
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${stem} (${n}).${this.ending}`;
    const writer = await this.open({ ...this.context, path: join(this.dir, name), title: stem });
    const part = { name, writer, count: 0 };
    this.parts.set(key, part);
    return part;
  }

  /** The files, all of them whole. An export without rows has one file. */
  async finish(): Promise<string[]> {
    if (this.parts.size === 0) await this.begin('', '');
    for (const { writer } of this.parts.values()) await writer.finish();
    return [...this.parts.values()].map(({ name }) => name);
  }

  async leave(): Promise<void> {
    for (const { writer } of this.parts.values()) await writer.leave();
    rmSync(this.dir, { recursive: true, force: true });
  }

  /** One whole thing to be put in its place by a rename: the only file, or a ZIP of all with some texts beside. */
  async whole(files: readonly string[], beside: readonly { name: string; text: string }[]): Promise<string> {
    if (files.length === 1 && beside.length === 0) return join(this.dir, files[0]!);
    const zip = new yazl.ZipFile();
    for (const name of files) zip.addFile(join(this.dir, name), name);
    for (const { name, text } of beside) zip.addBuffer(Buffer.from(text), name);
    zip.end();
    const path = join(this.dir, '.whole.zip');
    await pipeline(zip.outputStream, createWriteStream(path));
    return path;
  }

  /** Puts what is whole under its real name, and takes the folder away. */
  settle(whole: string, path: string): void {
    renameSync(whole, path);
    rmSync(this.dir, { recursive: true, force: true });
  }
}
