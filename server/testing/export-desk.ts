import { execFile, execFileSync } from 'node:child_process';
import { promisify } from 'node:util';
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { ExportView } from '../../contract/export-views.ts';
import type { UploadAnswer } from '../../contract/responses.ts';
import { tape, TestServer } from './test-server.ts';

const COMPANIES = [
  'Company,Registration,Country,Region,Town,Street,Postcode,Latitude,Longitude,Phone,Mail,Website,Headcount,Headcount basis,Headcount from,Headcount to,Revenue,Currency,Revenue year,Revenue basis,NACE 2.1,Founded,Last checked',
  '"Alderway ""Coat"" a.s.",1001,CZ,South Moravia,Brno,Dlouhá 1,60200,49.195,16.608,+420 777 123 456,office@alderway.example,alderway.example,120,reported,,,2500000.5,EUR,2024,reported,25.51,1994,2026-09-15',
  '"Brackfold, s.r.o.",1002,CZ,Zlín Region,,,,,,,,,10-49,band,,,,,,,16.23,2001,2026-01-01',
  '=Corbin GmbH,1003,AT,,Graz,Gasse 3,8010,47.07,15.44,+43 316 1,hallo@corbin.example,corbin.example,88,estimate,70,110,300000,EUR,2024,estimate,25.51,1956,2026-05-04',
  'Łódź Ångström 日本,1004,PL,,Łódź,Długa 4,90-001,51.77,19.46,,info@lodz.example,lodz.example,,,,,,,,,16.23,,',
];
const PEOPLE = [
  'Full name,Job title,Company domain,E-mail',
  'Jana Malá,Head of production,alderway.example,jana@alderway.example',
  'Otto Huber,Owner,corbin.example,',
];

/** A server with four companies and two people, whose exports are taken to a folder and opened by other programs. */
export class ExportDesk extends TestServer {
  private nth = 0;

  async open(): Promise<void> {
    await this.start(20);
    await this.loadAs('Firms', COMPANIES);
    await this.loadAs('People', PEOPLE, 'people');
  }

  async loadAs(name: string, lines: readonly string[], subject = 'companies'): Promise<void> {
    const preview = (await this.upload(`${name}.csv`, Buffer.from(lines.join('\n')))).body as UploadAnswer;
    const { encoding, delimiter } = preview;
    const { job } = await this.load(preview, {
      name,
      read: { encoding, delimiter, hasHeader: true, subject },
    });
    if (job.state !== 'done') throw new Error(`${name} was not loaded: ${job.message}`);
  }

  /** Starts an export of all companies by name, with what is asked beside. */
  asked(wish: object) {
    return this.api.post('/api/exports').send({
      tape: tape([]),
      sort: [{ by: 'name', descending: false }],
      name: 'All of them',
      format: 'csv',
      columns: ['name', 'place', 'headcount', 'revenue', 'checked'],
      currency: 'EUR',
      ...wish,
    });
  }

  /** The file of an export in a folder of its own, once it is made. */
  async exported(wish: object): Promise<{ path: string; id: string; bytes: Buffer; view: ExportView }> {
    const answer = await this.asked(wish);
    if (answer.status !== 202) throw new Error(JSON.stringify(answer.body));
    return this.finished(answer.body as { export: string; job: { id: string } });
  }

  async finished({ export: id, job }: { export: string; job: { id: string } }) {
    const ended = await this.ended(job.id);
    if (ended.job.state !== 'done') throw new Error(`${ended.job.state}: ${ended.job.message}`);
    const answer = await this.api
      .get(`/api/exports/${id}/file`)
      .buffer(true)
      .parse((part, done) => {
        const chunks: Buffer[] = [];
        part.on('data', (chunk: Buffer) => chunks.push(chunk));
        part.on('end', () => done(null, Buffer.concat(chunks)));
      });
    const name = /filename\*?=(?:UTF-8'')?"?([^";]+)/.exec(
      answer.headers['content-disposition'] as string,
    )![1]!;
    const path = join(this.dir, 'received', String(this.nth++), decodeURIComponent(name));
    mkdirSync(dirname(path), { recursive: true });
    const bytes = answer.body as Buffer;
    writeFileSync(path, bytes);
    const { export: view } = (await this.api.get(`/api/exports/${id}`)).body as { export: ExportView };
    return { path, id, bytes, view };
  }

  /** What a program says of a file. */
  run(program: string, args: readonly string[]): string {
    return execFileSync(program, args, {
      encoding: 'utf8',
      cwd: this.dir,
      env: { ...process.env, HOME: this.dir },
    });
  }

  /** The same while this thread goes on answering. */
  async runBeside(program: string, args: readonly string[]): Promise<string> {
    return (await promisify(execFile)(program, args, { encoding: 'utf8', cwd: this.dir })).stdout;
  }

  /** What Debian's Python prints. */
  python(script: string, ...args: string[]): unknown {
    return JSON.parse(this.run('/usr/bin/python3', ['-c', script, ...args]));
  }
}
