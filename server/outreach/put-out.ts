import type { CampaignView } from '../../contract/outreach-views.ts';
import type { Services } from '../services.ts';
import { writtenSince } from '../tables/outreach/messages.ts';
import { companiesSince, countTaken, putInOutbox } from '../tables/outreach/outbox.ts';
import { optedOut } from '../tables/outreach/outcomes.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';
import { dayStart } from './post.ts';
import { standingOf } from './standing.ts';

const DAY = 86_400_000;

/**
 * Puts in the outbox who of a campaign goes out today and whose message was looked at; of these only `people`, where they are
 * named. What another window put there meanwhile is looked at again in the transaction that writes, so nobody gets two. Returns
 * the numbers of the messages.
 */
export async function putOut(
  services: Services,
  campaign: CampaignView,
  people: readonly string[] | null,
  person: string,
): Promise<number[]> {
  const { db } = services.outreach;
  const wished = people && new Set(people);
  const going = (await standingOf(services, campaign)).filter(
    ({ step, message }) => step === null && message.seen === 1 && (!wished || wished.has(message.person)),
  );
  return db
    .transaction(() => {
      const written = new Set(
        campaign.quietDays === 0
          ? []
          : writtenSince(db, Date.now() - campaign.quietDays * DAY).flatMap((one) => [one.mail, one.person]),
      );
      const companies = companiesSince(db, dayStart());
      const gone = optedOut(db);
      let left = readOutreachSettings(db).daily - countTaken(db, dayStart());
      const put: number[] = [];
      for (const { message, address } of going) {
        const mail = address.mail!.toLowerCase();
        if (left <= 0) break;
        if (written.has(mail) || written.has(message.person)) continue;
        if (gone.mails.has(mail) || gone.people.has(message.person)) continue;
        if (message.company !== null && companies.has(message.company)) continue;
        if (!putInOutbox(db, message.id, { mail: address.mail!, certainty: address.certainty }, person))
          continue;
        put.push(message.id);
        written.add(mail);
        if (message.company !== null) companies.add(message.company);
        left--;
      }
      return put;
    })
    .immediate();
}
