import { fold } from '../text/fold.ts';

/** Makes listing pages of many builds by a seed, with what is true of them: for testing what is learned from examples. */

export interface TrueRow {
  /** Value of `data-true` on its first element. */
  id: string;
  values: Record<string, string>;
  look: number;
}

export interface Layout {
  html: string;
  rows: TrueRow[];
  adverts: string[];
  kind: string;
}

export const LAYOUT_KINDS = [
  'cards',
  'plain',
  'table',
  'one-cell',
  'labels',
  'list-of-terms',
  'flat',
  'wrapped',
  'two-looks',
  'adverts',
  'loose',
  'noisy',
  'linked',
] as const;
export type LayoutKind = (typeof LAYOUT_KINDS)[number];

/** Figures from 0 to below 1 by a seed (mulberry32, public domain). */
export function chanceOf(seed: number): () => number {
  let state = seed * 2654435761;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const SYLLABLES = [
  'Dre',
  'van',
  'Mir',
  'ov',
  'Zar',
  'mys',
  'Hal',
  'vek',
  'Ton',
  'bru',
  'Kel',
  'dor',
  'Vis',
  'tam',
];
const TOWNS = ['Brno', 'Kuřim', 'Boskovice', 'Vyškov', 'Zlín', 'Jihlava', 'Olomouc', 'Bad Wallen', 'Tišnov'];
const STREETS = ['Cejl', 'Masná', 'Lipová', 'Nádražní', 'Na Kopci', 'Hauptstraße', 'U Mlýna'];
const TRADES = ['Joinery, stairs', 'Joinery', 'Coating shop', 'Windows', 'Composite moulder', 'Printer'];

interface Entry {
  id: string;
  name: string;
  street: string | null;
  postcode: string | null;
  town: string | null;
  phone: string | null;
  web: string | null;
  trade: string | null;
}

function entryOf(chance: () => number, i: number, missing: number): Entry {
  const pick = <T>(from: readonly T[]) => from[Math.floor(chance() * from.length)]!;
  const figure = (digits: number) => String(Math.floor(chance() * 10 ** digits)).padStart(digits, '0');
  const stem = pick(SYLLABLES) + pick(SYLLABLES).toLowerCase() + pick(SYLLABLES).toLowerCase();
  const may = <T>(value: T) => (chance() < missing ? null : value);
  return {
    id: `r${i}`,
    name: `${stem} ${pick(['s.r.o.', 'Truhlářství', 'a.s.', 'GmbH', 'Stolárna', '& syn'])}`,
    street: may(`${pick(STREETS)} ${1 + Math.floor(chance() * 120)}`),
    postcode: `${figure(3)} ${figure(2)}`,
    town: pick(TOWNS),
    phone: may(`+420 000 ${figure(3)} ${figure(3)}`),
    web: may(`${fold(stem)}.example`),
    trade: may(pick(TRADES)),
  };
}

const shown = (value: string) => value.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** A page of a kind, by a seed. Truth stands in `data-true`, `data-cell` and `data-advert`, which are taken away before it is read. */
export function layoutOf(kind: LayoutKind, seed: number): Layout {
  const chance = chanceOf(seed);
  const count = 9 + Math.floor(chance() * 14);
  const missing = kind === 'table' ? 0.25 : 0.1 + chance() * 0.3;
  const entries = Array.from({ length: count }, (_, i) => entryOf(chance, i, i === 0 ? 0 : missing));
  const prefix = ['', 'x-', 'dir__', 'u'][Math.floor(chance() * 4)]!;
  const marked = kind === 'cards' || kind === 'adverts' || chance() < 0.5;
  const c = (name: string) => (marked ? ` class="${prefix}${name}"` : '');
  const cell = (entry: Entry, field: keyof Entry, tag: string, extra = '') =>
    entry[field] === null
      ? ''
      : `<${tag}${extra}${c(field)} data-cell="${field}">${shown(entry[field])}</${tag}>`;
  const draw = { entries, chance, c, cell, prefix };
  const body = DRAW[kind](draw);
  const values = (entry: Entry) =>
    Object.fromEntries(
      Object.entries(entry).filter((pair): pair is [string, string] => pair[0] !== 'id' && pair[1] !== null),
    );
  return {
    kind,
    html: around(body.html, chance),
    rows: entries.map((entry, i) => ({ id: entry.id, values: values(entry), look: body.looks?.[i] ?? 0 })),
    adverts: body.adverts ?? [],
  };
}

interface Draw {
  entries: readonly Entry[];
  chance: () => number;
  c(name: string): string;
  cell(entry: Entry, field: keyof Entry, tag: string, extra?: string): string;
  prefix: string;
}

interface Drawn {
  html: string;
  looks?: number[];
  adverts?: string[];
}

const card = ({ c, cell, prefix }: Draw, entry: Entry, extra = '') =>
  `<div${c('entry')} data-true="${entry.id}">${prefix === 'u' ? cell(entry, 'trade', 'em') : ''}<h3>${cell(entry, 'name', 'a', ' href="/firm"')}</h3>${extra}
   <p>${cell(entry, 'street', 'span')} ${cell(entry, 'postcode', 'span')} ${cell(entry, 'town', 'span')}</p>
   <div>${cell(entry, 'phone', 'span')} ${cell(entry, 'web', 'a', ' href="#"')}</div>${prefix === 'u' ? '' : cell(entry, 'trade', 'em')}</div>`;

const DRAW: Record<LayoutKind, (draw: Draw) => Drawn> = {
  cards: (draw) => ({
    html: `<div class="results">${draw.entries.map((entry) => card(draw, entry)).join('')}</div>`,
  }),

  // Paragraphs without any mark, some missing.
  plain: ({ entries, cell }) => ({
    html: `<ul>${entries
      .map(
        (entry) =>
          `<li data-true="${entry.id}">${cell(entry, 'name', 'b')}${cell(entry, 'street', 'p')}<p><span data-cell="postcode">${entry.postcode}</span> <span data-cell="town">${entry.town}</span></p>${cell(entry, 'phone', 'p')}${cell(entry, 'web', 'p')}</li>`,
      )
      .join('')}</ul>`,
  }),

  table: ({ entries }) => ({
    html: `<table><thead><tr><th>Firm</th><th>Street</th><th>Code</th><th>Town</th><th>Phone</th><th>Web</th><th>Trade</th></tr></thead><tbody>${entries
      .map(
        (entry) =>
          `<tr data-true="${entry.id}">${(
            ['name', 'street', 'postcode', 'town', 'phone', 'web', 'trade'] as const
          )
            .map((field) => `<td data-cell="${field}">${shown(entry[field] ?? '')}</td>`)
            .join('')}</tr>`,
      )
      .join('')}</tbody></table>`,
  }),

  // Name and address in one cell.
  'one-cell': ({ entries, chance }) => {
    const between = chance() < 0.5 ? ', ' : '<br>';
    return {
      html: `<table>${entries
        .map((entry) => {
          const address = [entry.street, `${entry.postcode} ${entry.town}`].filter(Boolean).join(', ');
          return `<tr data-true="${entry.id}"><td><strong data-cell="name">${shown(entry.name)}</strong>${between}<span data-cell="street,postcode,town">${address}</span></td><td data-cell="phone">${entry.phone ?? ''}</td><td data-cell="trade">${entry.trade ?? ''}</td></tr>`;
        })
        .join('')}</table>`,
    };
  },

  labels: ({ entries, c, chance }) => {
    const words = chance() < 0.5 ? ['Tel.', 'Web', 'Trade'] : ['Telefon:', 'Internet:', 'Obor:'];
    const line = (label: string, field: string, value: string | null) =>
      value === null ? '' : `<div><i>${label}</i> <span data-cell="${field}">${shown(value)}</span></div>`;
    return {
      html: `<section>${entries
        .map(
          (entry) =>
            `<article${c('item')} data-true="${entry.id}"><h4 data-cell="name">${shown(entry.name)}</h4>${line(words[0]!, 'phone', entry.phone)}${chance() < 0.5 ? line('Fax', 'fax', '+420 000 999 111') : ''}${line(words[1]!, 'web', entry.web)}${line(words[2]!, 'trade', entry.trade)}<div><i>Town</i> <span data-cell="town">${entry.town}</span></div></article>`,
        )
        .join('')}</section>`,
    };
  },

  'list-of-terms': ({ entries }) => ({
    html: `<dl>${entries
      .map(
        (entry) =>
          `<dt data-true="${entry.id}" data-cell="name">${shown(entry.name)}</dt><dd data-cell="street,postcode,town">${[entry.street, `${entry.postcode} ${entry.town}`].filter(Boolean).join(', ')}</dd>${entry.phone ? `<dd data-cell="phone">${entry.phone}</dd>` : ''}${entry.web ? `<dd data-cell="web">${entry.web}</dd>` : ''}`,
      )
      .join('')}</dl>`,
  }),

  flat: ({ entries, c, chance }) => ({
    html: `<main>${entries
      .map(
        (entry) =>
          `<h3${c('head')} data-true="${entry.id}"><a href="/f" data-cell="name">${shown(entry.name)}</a></h3>${entry.street ? `<p data-cell="street">${entry.street}</p>` : ''}<p><span data-cell="postcode">${entry.postcode}</span> <span data-cell="town">${entry.town}</span></p>${entry.phone ? `<p data-cell="phone">${entry.phone}</p>` : ''}${chance() < 0.3 ? '<hr>' : ''}`,
      )
      .join('')}</main>`,
  }),

  // In groups of three, some in a box of their own.
  wrapped: (draw) => {
    const { entries, chance } = draw;
    let html = '';
    for (let i = 0; i < entries.length; i += 3) {
      const group = entries.slice(i, i + 3).map((entry) => {
        const own = card(draw, entry);
        return chance() < 0.2 ? `<div class="frame"><div>${own}</div></div>` : own;
      });
      html += `<div class="group">${group.join('')}</div>`;
    }
    return { html: `<div id="list">${html}</div>` };
  },

  'two-looks': (draw) => {
    const { entries, chance, prefix } = draw;
    const looks = entries.map((_, i) => (i === 0 ? 0 : i === 1 ? 1 : Number(chance() < 0.35)));
    return {
      looks,
      html: `<div class="mixed">${entries
        .map((entry, i) =>
          looks[i] === 0
            ? card(draw, entry)
            : `<div class="${prefix}small" data-true="${entry.id}"><strong data-cell="name">${shown(entry.name)}</strong><ul><li><span data-cell="postcode">${entry.postcode}</span></li><li><span data-cell="town">${entry.town}</span></li>${entry.phone ? `<li>☎ <span data-cell="phone">${entry.phone}</span></li>` : ''}</ul></div>`,
        )
        .join('')}</div>`,
    };
  },

  adverts: (draw) => {
    const { entries, chance, c } = draw;
    const adverts: string[] = [];
    const parts: string[] = [];
    entries.forEach((entry, i) => {
      if (i === 1 || chance() < 0.2) {
        const id = `a${i}`;
        adverts.push(id);
        const loud = { ...entry, id, name: `Blades sharpened ${i}`, street: null, phone: null };
        parts.push(
          card(draw, loud, `<span${c('badge')}>Ad</span>`).replace(
            `data-true="${id}"`,
            `data-advert="${id}"`,
          ),
        );
      }
      parts.push(card(draw, entry));
    });
    return { html: `<div class="results">${parts.join('')}</div>`, adverts };
  },

  // Labels and values in one text, lines apart by breaks.
  loose: ({ entries, chance }) => {
    const [tel, web] = chance() < 0.5 ? ['Tel.', 'Web:'] : ['☎', 'www'];
    return {
      html: `<ul class="firms">${entries
        .map(
          (entry) =>
            `<li data-true="${entry.id}"><a href="/f/${entry.id}" data-cell="name">${shown(entry.name)}</a><br><span data-cell="street,postcode,town">${[entry.street, `${entry.postcode} ${entry.town}`].filter(Boolean).join(' · ')}</span><br>${entry.phone ? `<span data-cell="phone">${tel} ${entry.phone}</span><br>` : ''}${entry.web ? `<span data-cell="web">${web} ${entry.web}</span>` : ''}</li>`,
        )
        .join('')}</ul>`,
    };
  },

  // Stripes, badges of some, words of the search in bold, classes that are numbers; and small rows of the same kind at the side.
  noisy: ({ entries, chance, prefix }) => {
    const side = entries
      .slice(0, 4)
      .map(
        (_, i) =>
          `<div class="${prefix}tile"><a href="/w${i}">Seen lately ${i}</a><span>${TOWNS[i]}</span></div>`,
      )
      .join('');
    const rows = entries.map((entry, i) => {
      const words = entry.name.split(' ');
      const name = `<em>${words[0]}</em> ${shown(words.slice(1).join(' '))}`;
      const badge = chance() < 0.3 ? '<span class="badge">Verified</span>' : '';
      return `<div class="${prefix}tile n${1000 + i} ${i % 2 ? 'odd' : 'even'}${chance() < 0.2 ? ' premium' : ''}" id="f${i}" data-true="${entry.id}"><div class="h"><a class="t" href="/f${i}" data-cell="name">${name}</a>${badge}</div><div class="b">${entry.trade ? `<span data-cell="trade">${entry.trade}</span>` : ''}<address><span class="s" data-cell="street">${entry.street ?? ''}</span><br><span class="z" data-cell="postcode">${entry.postcode}</span> <span class="o" data-cell="town">${entry.town}</span></address>${entry.phone ? `<a href="tel:${entry.phone}" data-cell="phone">${entry.phone}</a>` : ''}</div></div>`;
    });
    return {
      html: `<div class="side">${side}</div><div class="main">${rows.join('<hr class="line">')}</div>`,
    };
  },

  // Under headings by town; web and phone behind links that say other words.
  linked: ({ entries, c }) => {
    const byTown = new Map<string, Entry[]>();
    for (const entry of entries) byTown.set(entry.town!, [...(byTown.get(entry.town!) ?? []), entry]);
    return {
      html: [...byTown]
        .map(
          ([town, own]) =>
            `<section><h2>${town}</h2><ol>${own
              .map(
                (entry) =>
                  `<li data-true="${entry.id}"><h5${c('n')}><a href="/d/${entry.id}" data-cell="name">${shown(entry.name)}</a></h5><div>${entry.web ? `<a href="https://${entry.web}" data-cell="web">Website</a> ` : ''}${entry.phone ? `<a href="tel:${entry.phone}" data-cell="phone">Call</a> ` : ''}<a href="/d/${entry.id}">More</a></div><small data-cell="postcode">${entry.postcode}</small></li>`,
              )
              .join('')}</ol></section>`,
        )
        .join(''),
    };
  },
};

/** What stands around a list: a menu, a side with links, a pager. */
function around(list: string, chance: () => number): string {
  const deep = Math.floor(chance() * 3);
  const near = TOWNS.map((town, i) => `<li><a href="/t${i}">${town}</a> (${i * 7 + 3})</li>`).join('');
  return `<!doctype html><html><head><title>Firms</title><style>.a{color:red}</style></head><body>
   <header><ul class="menu"><li><a href="/">Home</a></li><li><a href="/t">Trades</a></li><li><a href="/a">Add your firm</a></li></ul></header>
   ${'<div>'.repeat(deep)}${chance() < 0.5 ? `<aside><h4>Near</h4><ul>${near}</ul></aside>` : ''}${list}${'</div>'.repeat(deep)}
   <nav class="pager"><a href="?p=1">1</a> <a href="?p=2">2</a> <a href="?p=2">Next</a></nav>
   <footer><p>Call +420 000 111 222</p><p>Cejl 1, 602 00 Brno</p></footer></body></html>`;
}
