import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { cleanedPage } from './clean.ts';
import { countryOfPhones } from './country-of-phones.ts';
import { nextAddress, nextRule, wholeAddress } from './follow.ts';
import { formsOf, recorded, requestOf, stepWords, type Step } from './forms.ts';
import { parsePage, textOf, type Page } from './page.ts';
import { fieldGuess, rowsAround } from './pointed.ts';
import { changeOfBuild, gatherRoll, recordKey, refusal, timeLeft, together } from './records.ts';
import { addressParts } from '../values/one-line-address.ts';
import { shapeOf } from './shape.ts';
import { readTerms, searchesOf, sheetColumns, writeTerms } from './words-places.ts';

const nodeWith = (page: Page, text: string) =>
  page.nodes.find((node) => node.kind === 'text' && node.text.includes(text))!.id;

describe('shapes', () => {
  it.each([
    ['+420 000 018 552', 'phone'],
    ['000 1234-567', 'phone'],
    ['info@drevanko.example', 'mail'],
    ['www.drevanko.example', 'web'],
    ['https://drevanko.example/kontakt', 'web'],
    ['602 00', 'postcode'],
    ['Cejl 41', 'street'],
    ['12 Mill Lane', 'street'],
    ['602 00 Brno', 'place'],
    ['Cejl 41, 602 00 Brno', 'address'],
    ['30. 9. 2026', 'date'],
    ['1,250', 'number'],
    ['Joinery, stairs', 'words'],
    ['', 'empty'],
  ])('%s is %s', (text, shape) => expect(shapeOf(text)).toBe(shape));

  it.each([
    ['Cejl 41, 602 00 Brno', ['Cejl 41', '602 00', 'Brno']],
    ['Drevanko s.r.o. · Cejl 41 · 602 00 Brno', ['Cejl 41', '602 00', 'Brno']],
    ['Hauptstraße 5\n1030 Wien', ['Hauptstraße 5', '1030', 'Wien']],
    ['12 Mill Lane, Leeds LS1 4DY', ['12 Mill Lane', 'LS1 4DY', 'Leeds']],
    ['80-001 Gdańsk', [null, '80-001', 'Gdańsk']],
    ['Brno', [null, null, null]],
  ])('takes %s apart', (text, [street, postcode, town]) =>
    expect(addressParts(text)).toEqual({ street, postcode, town }),
  );
});

describe('words and places', () => {
  it('are one a line or apart by commas; quotes keep commas', () => {
    expect(readTerms('joinery, "stairs, spiral"\ncoating shop;joinery\n\n')).toEqual([
      'joinery',
      'stairs, spiral',
      'coating shop',
    ]);
  });

  it('are written so that they are read as they were', () => {
    const term = fc.string({ minLength: 1 }).map((text) => text.replace(/\s+/g, ' ').trim());
    fc.assert(
      fc.property(fc.uniqueArray(term.filter(Boolean)), (terms) => {
        expect(readTerms(writeTerms(terms))).toEqual(terms);
      }),
    );
  });

  it('are a column of a sheet, which a list of terms is not', () => {
    const sheet = sheetColumns('Trade;Town\njoinery;Brno\n"stairs; spiral";Brno\n');
    expect(sheet).toEqual([
      { heading: 'Trade', terms: ['joinery', 'stairs; spiral'] },
      { heading: 'Town', terms: ['Brno'] },
    ]);
    expect(sheetColumns('joinery, coating shop')).toBeNull();
    expect(sheetColumns('joinery\ncoating shop')).toBeNull();
    expect(sheetColumns('joinery, stairs\nprinter')).toBeNull();
  });

  it('make one search of each pair, and one where there are none', () => {
    expect(searchesOf(['a', 'b'], ['x', 'y'])).toHaveLength(4);
    expect(searchesOf([], ['x'])).toEqual([{ word: '', place: 'x' }]);
    expect(searchesOf([], [])).toEqual([{ word: '', place: '' }]);
  });
});

describe('the next page', () => {
  const pager = (at: number) =>
    parsePage(
      `<nav><a href="?p=1">1</a><a href="?p=2">2</a><a href="?p=3">3</a>${at < 3 ? `<a class="n" href="?p=${at + 1}">Onwards</a>` : ''}</nav>`,
    );

  it('is learned from its words, or from a page number', () => {
    const onwards = nextRule(pager(1), nodeWith(pager(1), 'Onwards'))!;
    expect(nextAddress(pager(2), onwards, 2)).toBe('?p=3');
    expect(nextAddress(pager(3), onwards, 3)).toBeNull();
    const numbered = nextRule(pager(1), nodeWith(pager(1), '2'))!;
    expect(numbered.numbered).toBe(true);
    expect(nextAddress(pager(2), numbered, 2)).toBe('?p=3');
  });

  it('is a button that says more, a form, or an element at the end that names what to load', () => {
    const more = parsePage('<button data-more="/find?after=15">Show more (42)</button>');
    expect(nextAddress(more, nextRule(more, nodeWith(more, 'Show more')), 1)).toBe('/find?after=15');
    expect(
      nextAddress(
        parsePage('<button data-more="/find?after=30">Show more (27)</button>'),
        nextRule(more, nodeWith(more, 'Show more')),
        2,
      ),
    ).toBe('/find?after=30');
    const form = parsePage(
      '<form action="/find"><input type="hidden" name="after" value="15"><button>More</button></form>',
    );
    expect(nextAddress(form, null, 1)).toBe('/find?after=15');
    const end = parsePage('<div class="end" data-next="/part?2"><i>…</i></div>');
    const at = end.nodes.find((node) => node.kind === 'element' && node.tag === 'div')!.id;
    expect(nextAddress(end, { ...nextRule(end, at)!, words: '' }, 1)).toBe('/part?2');
  });

  it('is found by itself where pages say it as usual', () => {
    expect(nextAddress(parsePage('<a href="/a">Home</a><a href="/2">Další</a>'), null, 1)).toBe('/2');
    expect(nextAddress(parsePage('<a rel="next" href="/3">…</a>'), null, 1)).toBe('/3');
    expect(nextAddress(parsePage('<div data-next="/part?2"></div>'), null, 1)).toBe('/part?2');
    expect(nextAddress(parsePage('<a href="/a">Home</a>'), null, 1)).toBeNull();
  });

  it('is never an address that is no page', () => {
    expect(wholeAddress('javascript:alert(1)', 'http://a.example/')).toBeNull();
    expect(wholeAddress('mailto:a@b.example', 'http://a.example/')).toBeNull();
    expect(wholeAddress('?p=2#x', 'http://a.example/find')).toBe('http://a.example/find?p=2');
  });
});

describe('forms', () => {
  const FORM = `<form action="/find"><label for="w">What</label><input id="w" name="q">
    <label>Where <input name="place"></label><select name="region" aria-label="Region"><option value="">all<option value="m">Moravia</select>
    <label><input type="checkbox" name="web"> with a website</label><input type="hidden" name="lang" value="en"><button>Search</button></form>`;
  const page = parsePage(FORM);
  const search = { word: 'stairs, spiral', place: 'Brno' };
  const steps: Step[] = [
    { do: 'type', into: 'What', text: '{word}' },
    { do: 'type', into: 'where', text: '{place}' },
    { do: 'choose', in: 'Region', option: 'Moravia' },
    { do: 'tick', box: 'with a website', on: true },
    { do: 'press', button: 'Search' },
    { do: 'wait', seconds: 1 },
  ];

  it('are seen as a reader sees them', () => {
    const [form] = formsOf(page);
    expect(form!.controls.map(({ kind, label }) => [kind, label])).toEqual([
      ['text', 'What'],
      ['text', 'Where'],
      ['choice', 'Region'],
      ['tick', 'with a website'],
      ['fixed', 'lang'],
    ]);
    expect(form!.buttons[0]!.label).toBe('Search');
  });

  it('are filled by steps and sent, the rest of the steps left for the answer', () => {
    const { request, rest } = requestOf(page, 'http://d.example/', steps, search)!;
    expect(request).toEqual({
      method: 'get',
      url: 'http://d.example/find?q=stairs%2C+spiral&place=Brno&region=m&web=on&lang=en',
      body: null,
    });
    expect(rest).toEqual([{ do: 'wait', seconds: 1 }]);
    expect(steps.map(stepWords)[0]).toBe('type “{word}” into “What”');
  });

  it('record what is done on them as steps, each box once, before the button', () => {
    const forms = formsOf(page);
    const [what, where, region, web] = forms[0]!.controls;
    const did = (node: number, value = '', on = true) => ({ node, value, on });
    const all = [
      did(forms[0]!.buttons[0]!.node),
      did(what!.node, 'stairs, spiral'),
      did(where!.node, 'Praha'),
      did(where!.node, 'Brno'),
      did(region!.node, 'm'),
      did(web!.node, 'on', true),
      did(99_999, 'nothing'),
    ].reduce<Step[]>((so, one) => recorded(so, forms, one, search), []);
    expect(all.map(stepWords)).toEqual([
      'type “{word}” into “What”',
      'type “{place}” into “Where”',
      'choose “Moravia” in “Region”',
      'tick “with a website”',
      'press “Search”',
    ]);
  });

  it('say which step cannot be done', () => {
    const wrong = (step: Step) => () => requestOf(page, 'http://d.example/', [step], search);
    expect(wrong({ do: 'type', into: 'Who', text: 'x' })).toThrow('The page has no box called “Who”.');
    expect(wrong({ do: 'choose', in: 'Region', option: 'Mars' })).toThrow('“Region” has no choice “Mars”.');
    expect(wrong({ do: 'press', button: 'Go' })).toThrow('The page has no button called “Go”.');
  });

  it('never send what is typed to another host', () => {
    const elsewhere = parsePage(
      FORM.replace('action="/find"', 'action="https://elsewhere.example/take" method="post"'),
    );
    expect(() => requestOf(elsewhere, 'http://d.example/', steps, search)).toThrow('another host');
  });
});

describe('a page as it is shown', () => {
  const HOSTILE = `<base href="https://evil.example/"><script>alert(1)</script><body onload="x()">
    <style>@import "https://evil.example/a.css"; p{background:url(https://evil.example/p.png);position:fixed}</style>
    <a href="javascript:alert(1)" onclick="x()">link</a><img src="https://evil.example/i.png" onerror="x()" alt="a&quot;b">
    <iframe src="https://evil.example"></iframe><form action="https://evil.example"><input type="password" name="p"></form>
    <svg><script>alert(2)</script></svg><meta http-equiv="refresh" content="0;url=https://evil.example"><p style="x">1 &lt; 2</p>`;

  it('runs nothing, loads nothing and leads nowhere', () => {
    const { styles, body } = cleanedPage(parsePage(HOSTILE));
    const all = styles + body;
    expect(all).not.toMatch(
      /evil\.example|javascript:|alert|onload|onclick|onerror|<script|<iframe|<base|<meta|<svg|action=|href=|src=/i,
    );
    expect(styles).not.toContain('fixed');
    expect(body).toContain('1 &lt; 2');
    expect(body).toContain('data-link=""');
  });

  it('keeps no tag that is not known, whatever the page', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        const { body } = cleanedPage(parsePage(`<p>${text}</p><custom-x onfocus=a>${text}</custom-x>`));
        expect(body).not.toMatch(/<custom|onfocus=|<script/i);
      }),
    );
  });
});

describe('pointing', () => {
  it('means the whole row, whatever of it was pointed at', () => {
    const page = parsePage(
      `<div>${['A', 'B', 'C', 'D', 'E', 'F'].map((name) => `<div><div><h3>Firm ${name}</h3><p>Cejl <b>4</b></p><p>+420 000 000 100</p></div></div>`).join('')}</div>`,
    );
    const { choices, best } = rowsAround(page, nodeWith(page, 'Firm C'));
    expect(textOf(page.nodes[choices[best]!.node]!)).toBe('Firm C\nCejl 4\n+420 000 000 100');
    expect(choices[best]!.alike).toBe(6);
    const row = choices[best]!.node;
    expect(fieldGuess(page, row, nodeWith(page, 'Firm C')).field).toBe('name');
    expect(
      fieldGuess(
        page,
        row,
        page.nodes.findIndex((node) => node.kind === 'text' && node.id > row && node.text.includes('+420')),
      ).field,
    ).toBe('phone');
  });
});

describe('records', () => {
  it('are the same by the page they lead to, else by name and place', () => {
    const one = { name: 'Drevanko s.r.o.', town: 'Brno', phone: '+420 1' };
    expect(recordKey(one)).toBe(recordKey({ name: 'DREVANKO, s.r.o.', town: 'brno' }));
    expect(recordKey(one)).not.toBe(recordKey({ ...one, town: 'Zlín' }));
    expect(recordKey({ name: 'A', page: '/f/1' })).toBe(recordKey({ name: 'A b', page: '/f/1' }));
    expect(recordKey({ town: 'Brno' })).toBeNull();
    expect(together({ name: 'A', town: 'Brno' }, { name: 'B', web: 'b.example' })).toEqual({
      ...{ name: 'A', town: 'Brno', web: 'b.example' },
    });
    expect(refusal({ name: 'A' }, ['town'])).toBe('without town');
    expect(refusal({ name: 'A', town: 'x' }, ['town'])).toBeNull();
  });

  it('are of the country that most of their phones are of', () => {
    expect(countryOfPhones(['+420 000 018 552', '00420 000 1', '000 333', '+43 1 000'])).toBe('CZ');
    expect(countryOfPhones(['+420 000 018 552', '+43 1 000'])).toBeNull();
    // +1 is the code of many.
    expect(countryOfPhones(['+1 000 000 0000'])).toBeNull();
    expect(countryOfPhones(['018 552'])).toBeNull();
  });

  it('come to a roll that adds up', () => {
    const figure = fc.nat(1000);
    fc.assert(
      fc.property(figure, figure, figure, figure, (records, adverts, twice, refused) => {
        const found = records + adverts + twice + refused;
        const roll = gatherRoll({
          found,
          adverts,
          twice,
          refused: [{ reason: 'without name', count: refused }],
        });
        expect(roll.foot).toBe(records);
        expect(roll.steps.reduce((sum, { delta }) => sum + delta, 0)).toBe(roll.foot);
      }),
    );
  });

  it('are watched for a change of the pages’ build', () => {
    const page = (nth: number, filled: Record<string, number>, rows = 10) => ({ nth, rows, filled });
    const good = [1, 2, 3, 4].map((nth) => page(nth, { name: 10, phone: 8 }));
    const bad = [5, 6, 7].map((nth) => page(nth, { name: 10 }));
    expect(changeOfBuild(good)).toBeNull();
    expect(changeOfBuild([...good, ...bad.slice(0, 2)])).toBeNull();
    expect(changeOfBuild([...good, ...bad])).toBe('phone empty since page 5');
    expect(changeOfBuild([...good, ...[5, 6, 7].map((nth) => page(nth, {}, 0))])).toBe(
      'no rows since page 5',
    );
    expect(changeOfBuild([...good, ...[5, 6, 7].map((nth) => page(nth, {}))])).toBe(
      '2 fields empty since page 5',
    );
  });

  it('say how long is left from the pages read', () => {
    const none = { waiting: 5, searchesLeft: 2, searchesBegun: 2, pagesRead: 0, secondsSpent: 0 };
    expect(timeLeft(none)).toBeNull();
    // 13 pages of 2 searches at 2 s each: 3 wait, and 2 searches of 6.5 pages are to come.
    expect(timeLeft({ ...none, pagesRead: 10, secondsSpent: 20 })).toBe(32);
  });
});
