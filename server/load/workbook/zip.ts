import yauzl, { type Entry, type ZipFile } from 'yauzl';
import type { Readable } from 'node:stream';

/** The files in an archive by their names. */
export class Zip {
  private readonly zip: ZipFile;
  private readonly entries: ReadonlyMap<string, Entry>;

  private constructor(zip: ZipFile, entries: ReadonlyMap<string, Entry>) {
    this.zip = zip;
    this.entries = entries;
  }

  static async open(path: string): Promise<Zip> {
    const zip = await yauzl.openPromise(path, { autoClose: false, strictFileNames: false });
    const entries = new Map<string, Entry>();
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName.replace(/^\//, ''), entry);
    return new Zip(zip, entries);
  }

  get names(): string[] {
    return [...this.entries.keys()];
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** Whether a file is under a password. */
  isLocked(name: string): boolean {
    return (this.entries.get(name)!.generalPurposeBitFlag & 1) !== 0;
  }

  async stream(name: string): Promise<Readable> {
    return this.zip.openReadStreamPromise(this.entries.get(name)!);
  }

  /** A small file whole; null where there is none. */
  async text(name: string): Promise<string | null> {
    if (!this.has(name)) return null;
    const chunks: Buffer[] = [];
    for await (const chunk of await this.stream(name)) chunks.push(chunk as Buffer);
    return Buffer.concat(chunks).toString('utf8');
  }

  close(): void {
    this.zip.close();
  }
}
