import { describe, expect, test } from '@jest/globals';
import { guessColumns, guessSubject } from './headings.ts';

describe('what the rows of a file are', () => {
  test.each([
    [
      'First name,Last name,Title,Company,Email,# Employees,City,State,Country,Website,Annual Revenue',
      'people',
    ],
    ['Company,Street,City,Country,Contact first name,Contact last name,Position', 'companies'],
    ['Domain,Technology name,Category,Company,Country', 'companies'],
    ['Company,Site name,Site type,Address,City', 'sites'],
    ['Announced,Target,Acquirer,Deal value', 'deals'],
    ['Date,Event,Company,Kind', 'events'],
  ])('%s', (header, subject) => {
    expect(guessSubject(header.split(','))).toBe(subject);
  });
});

/** What the columns of a file of companies are read as. */
const columns = (text: string) => {
  const [header, ...rows] = text.split('\n').map((line) => line.split('|'));
  return guessColumns(header!, rows, 'companies');
};

describe('columns whose cells are not what their heading says', () => {
  test.each([
    ['no days', 'Name|Hall / Stand\nA|H4 / 112\nB|H2 / 09', null],
    ['days', 'Name|Stand\nA|30.9.2026\nB|1.10.2026', 'checked'],
    ['days as serial numbers', 'Name|Stand\nA|46295', 'checked'],
    ['months in letters', 'Name|Updated\nA|3 Mar 2021', 'checked'],
    ['pages of one host', 'Name|URI\nA|https://register.example/1\nB|https://register.example/2', null],
    ['hosts of their own', 'Name|URL\nA|https://a.example/de\nB|b.example', 'web'],
    ['who owns it', 'Name|Ownership type\nA|Subsidiary\nB|Independent', 'ownership'],
    ['how it is owned', 'Name|Ownership type\nA|Privately held\nB|Public company', 'listing'],
    ['amounts', 'Name|Market cap\nA|412.5\nB|88.1', null],
    ['no years', 'Name|Fiscal year end\nA|Dec-24\nB|Jun-24', null],
    ['days, not words', 'Name|Last activity\nA|02/11/2025\nB|03/11/2025', null],
    ['capital, no day', 'Name|Registered capital\nA|200 000 Kč\nB|1 000 000 Kč', null],
    ['days of registration', 'Name|Registered\nA|2001-03-05\nB|5.3.98', 'founded'],
    ['years of founding', 'Name|Founded\nA|est. 1998\nB|19th century\nC|2004', 'founded'],
    ['a margin', 'Name|Profit margin\nA|4,2 %', null],
  ])('%s', (_, text, id) => {
    expect(columns(text)[1]).toBe(id);
  });
});
