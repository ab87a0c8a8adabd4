import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readVCards } from '../records/contacts.ts';
import { calendarText, cardsText, type Card } from './calendar.ts';

const card = (more: Partial<Card> = {}): Card => ({
  ...{
    uid: 'u',
    name: 'Monika Planik',
    organisation: 'Alder; Sons',
    title: 'Works manager',
    phone: '+420 000 111 222',
  },
  ...{
    mail: 'm@a.example',
    street: 'Polní 3',
    town: 'Brno',
    postcode: '602 00',
    country: 'CZ',
    web: 'a.example',
  },
  ...more,
});

test('appointments float at the clock of the place, and say where and whom', () => {
  const text = calendarText(
    [
      {
        uid: 'a@b',
        title: 'Alder, s.r.o.',
        from: '2026-12-01T09:00',
        to: '2026-12-01T10:30',
        place: 'Polní 3; Brno',
        notes: 'Ask for\nMonika',
        lat: 49.2,
        lon: 16.6,
      },
    ],
    '20261129T101500Z',
  );
  expect(text.split('\r\n')).toEqual([
    ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Just Tally//Visits//EN', 'BEGIN:VEVENT', 'UID:a@b'],
    ...[
      'DTSTAMP:20261129T101500Z',
      'DTSTART:20261201T090000',
      'DTEND:20261201T103000',
      'SUMMARY:Alder\\, s.r.o.',
    ],
    ...['LOCATION:Polní 3\\; Brno', 'DESCRIPTION:Ask for\\nMonika', 'GEO:49.200000;16.600000', 'END:VEVENT'],
    ...['END:VCALENDAR', ''],
  ]);
});

test('cards are read back by our own address book as they were', () => {
  const [read] = readVCards(cardsText([card()]));
  expect(read).toEqual({
    ...{ name: 'Monika Planik', mail: 'm@a.example', phone: '+420000111222', title: 'Works manager' },
    organisation: 'Alder; Sons',
  });
  expect(readVCards(cardsText([card({ title: null, phone: null, mail: null })]))[0]).toMatchObject({
    phone: null,
  });
});

test('no line is longer than the standards allow, and none breaks out of its place', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (name) => {
      const text = cardsText([card({ name, organisation: name })]);
      for (const line of text.split('\r\n'))
        expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
      const unfolded = text.replaceAll('\r\n ', '').split('\r\n');
      expect(unfolded.filter((line) => line.startsWith('BEGIN:VCARD'))).toHaveLength(1);
      expect(unfolded).toHaveLength(13);
    }),
  );
});
