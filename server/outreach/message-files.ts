import type { Response } from 'express';
import { createTransport } from 'nodemailer';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import type { CampaignView } from '../../contract/outreach-views.ts';
import { namePartsOf } from '../../core/people/name-parts.ts';
import { Problem } from '../../core/tape/problem.ts';
import { csvText } from '../exports/csv-text.ts';
import type { Services } from '../services.ts';
import { messagesOf, type MessageRow } from '../tables/outreach/messages.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';
import { wholeText } from './post.ts';
import { standingOf, type Address } from './standing.ts';

/** Messages that go out today, as files for another program: a sheet for a mail merge, or mails to be opened. */

const HEADINGS = [
  ...['First name', 'Last name', 'Name', 'Title', 'Company', 'Country', 'Mail', 'Certainty, %', 'Address'],
  ...['Subject', 'Message'],
];

/** Somebody who goes out today, with the text. */
interface Written {
  message: MessageRow;
  address: Address;
}

/** @throws Problem where the format is none of those */
export async function sendMessages(
  services: Services,
  campaign: CampaignView,
  format: string,
  response: Response,
): Promise<void> {
  if (format !== 'csv' && format !== 'eml')
    throw new Problem('wrong-value', `"${format}" is no format of messages.`, {
      field: 'format',
      value: format,
      rule: 'csv or eml',
    });
  const texts = new Map(
    messagesOf(services.outreach.db, campaign.id).map((message) => [message.id, message]),
  );
  const today = (await standingOf(services, campaign))
    .filter(({ step }) => step === null)
    .map(({ message, address }) => ({ message: texts.get(message.id)!, address }));
  if (format === 'csv') {
    response.attachment(`${campaign.name}.csv`).type('text/csv; charset=utf-8');
    response.send(
      csvText([HEADINGS, ...today.map((one) => rowOf(one, services))], { delimiter: ',', bom: true }),
    );
    return;
  }
  const settings = readOutreachSettings(services.outreach.db);
  const zip = new ZipFile();
  const compose = createTransport({ streamTransport: true, buffer: true });
  for (const { message, address } of today) {
    const { message: source } = await compose.sendMail({
      from: { name: settings.sender, address: settings.mail ?? '' },
      to: { name: message.name, address: address.mail! },
      subject: message.subject,
      text: wholeText(message.body, settings),
      // Opened by a mail program it is a draft still.
      headers: { 'X-Unsent': '1' },
      disableFileAccess: true,
      disableUrlAccess: true,
    });
    zip.addBuffer(source as Buffer, `${plainName(message.name)}, ${message.id}.eml`);
  }
  zip.end();
  response.attachment(`${campaign.name}.zip`).type('application/zip');
  await pipeline(zip.outputStream, response).catch((error: NodeJS.ErrnoException) => {
    // A client that goes before it has all is no fault.
    if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  });
}

function rowOf({ message, address }: Written, { outreach }: Services): (string | number)[] {
  const parts = namePartsOf(message.name);
  return [
    ...[parts?.given[0] ?? '', parts?.family.join('-') ?? '', message.name, message.title ?? ''],
    ...[message.company_name ?? '', message.country ?? '', address.mail!, address.certainty ?? ''],
    ...[address.address ?? '', message.subject, wholeText(message.body, readOutreachSettings(outreach.db))],
  ];
}

function plainName(name: string): string {
  return name.replace(/[^\p{L}\p{N} -]/gu, '').slice(0, 80) || 'message';
}
