/** Visits as an iCalendar file (RFC 5545) and people as vCards (RFC 6350). */

export interface Appointment {
  uid: string;
  title: string;
  /** "2026-12-01T09:00": by the clock of the place, whatever its zone. */
  from: string;
  to: string;
  place: string;
  notes: string;
  lat: number;
  lon: number;
}

export interface Card {
  uid: string;
  name: string;
  organisation: string;
  title: string | null;
  phone: string | null;
  mail: string | null;
  street: string | null;
  town: string | null;
  postcode: string | null;
  country: string | null;
  web: string | null;
}

/** The appointments of a day. Times float: they are of the place where one is. @param stamp "20261129T101500Z" */
export function calendarText(appointments: readonly Appointment[], stamp: string): string {
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Just Tally//Visits//EN'];
  for (const { uid, title, from, to, place, notes, lat, lon } of appointments)
    lines.push(
      'BEGIN:VEVENT',
      `UID:${uid}`,
      `DTSTAMP:${stamp}`,
      `DTSTART:${timeOf(from)}`,
      `DTEND:${timeOf(to)}`,
      `SUMMARY:${escaped(title)}`,
      `LOCATION:${escaped(place)}`,
      `DESCRIPTION:${escaped(notes)}`,
      `GEO:${lat.toFixed(6)};${lon.toFixed(6)}`,
      'END:VEVENT',
    );
  return written([...lines, 'END:VCALENDAR']);
}

export function cardsText(cards: readonly Card[]): string {
  return written(
    cards.flatMap((card) => {
      const words = card.name.trim().split(/\s+/);
      const last = words.length > 1 ? words.pop()! : '';
      return [
        'BEGIN:VCARD',
        'VERSION:4.0',
        `UID:${card.uid}`,
        `FN:${escaped(card.name)}`,
        `N:${escaped(last)};${escaped(words.join(' '))};;;`,
        `ORG:${escaped(card.organisation)}`,
        ...(card.title ? [`TITLE:${escaped(card.title)}`] : []),
        ...(card.phone ? [`TEL;VALUE=uri:tel:${card.phone.replace(/[^\d+]/g, '')}`] : []),
        ...(card.mail ? [`EMAIL:${escaped(card.mail)}`] : []),
        `ADR:;;${[card.street, card.town, '', card.postcode, card.country].map((part) => escaped(part ?? '')).join(';')}`,
        ...(card.web ? [`URL:https://${card.web}`] : []),
        'END:VCARD',
      ];
    }),
  );
}

const timeOf = (iso: string) => `${iso.replace(/[-:]/g, '')}00`;

function escaped(text: string): string {
  return text.replace(/[\\;,]/g, (sign) => `\\${sign}`).replace(/\r\n?|\n/g, '\\n');
}

/** Octets of a line at most, without its end (both standards say so). */
const LONGEST = 75;

function written(lines: readonly string[]): string {
  return lines.map((line) => `${folded(line)}\r\n`).join('');
}

/** A line that is too long goes on in the next, which begins with a blank; no letter is cut in two. */
function folded(line: string): string {
  const encoder = new TextEncoder();
  let text = '';
  let octets = 0;
  for (const letter of line) {
    const size = encoder.encode(letter).length;
    if (octets + size > LONGEST) {
      text += '\r\n ';
      octets = 1;
    }
    text += letter;
    octets += size;
  }
  return text;
}
