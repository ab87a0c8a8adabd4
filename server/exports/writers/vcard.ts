import { cardsText } from '../../../core/exports/calendar.ts';
import { textWriter } from './text-file.ts';
import type { OpenWriter } from './writer.ts';

/** A card for each record: of a person with the company, else of the company itself. */
export const openCards: OpenWriter = ({ path }) =>
  textWriter(path, {
    rows: (rows) =>
      cardsText(
        rows.map(({ row, place }) => {
          const { person, organisation, title, phone, mail, street, town, postcode, countryName, web } =
            place!;
          return {
            uid: `urn:just-tally:${row.key}`,
            name: person ?? organisation ?? row.key,
            organisation: organisation ?? '',
            ...{ title, phone, mail, street, town, postcode, web },
            country: countryName,
          };
        }),
      ),
  });
