import { hashOf } from '../../../core/text/hash.ts';
import type { StandInFirm } from './firms.ts';
import { htmlAnswer, page, shown, type StandInAnswer } from './html.ts';

/** The site of one firm of the stand-in: a home page, an imprint, contact, and what it offers. */

const STYLE =
  'body{font:15px sans-serif;margin:24px;max-width:720px}nav a{margin-right:14px}footer{margin-top:30px;color:#555}';

/** How each offer stands on a page, in two wordings. */
const OFFER_PAGES: Readonly<Record<string, readonly [path: string, link: string, body: string][]>> = {
  'quote-form': [
    [
      '/quote',
      'Request a quote',
      '<form action="/quote"><p>Tell us what you need and we send a quote.</p><textarea name="what"></textarea><button>Request a quote</button></form>',
    ],
    [
      '/poptavka',
      'Nezávazná poptávka',
      '<form action="/poptavka"><textarea name="co"></textarea><button>Odeslat poptávku</button></form>',
    ],
  ],
  'sample-request': [
    [
      '/samples',
      'Order samples',
      '<form action="/samples"><p>Samples of our surfaces by post.</p><button>Order samples</button></form>',
    ],
    [
      '/muster',
      'Muster bestellen',
      '<form action="/muster"><p>Kostenlose Muster.</p><button>Muster bestellen</button></form>',
    ],
  ],
  'visit-booking': [
    [
      '/visit',
      'Book a visit',
      '<form action="/visit"><label>Day <input type="date" name="day"></label><button>Book a visit</button></form>',
    ],
    [
      '/termin',
      'Termin vereinbaren',
      '<form action="/termin"><input type="date" name="tag"><button>Termin vereinbaren</button></form>',
    ],
  ],
  shop: [
    ['/shop', 'Shop', '<p>Stair treads <b>€ 49.00</b> <button>Add to basket</button></p>'],
    ['/obchod', 'E-shop', '<p>Schodnice <b>1 190 Kč</b> <button>Do košíku</button></p>'],
  ],
  'price-list': [
    ['/prices', 'Price list', '<h2>Price list</h2><table><tr><td>Oak tread</td><td>€ 61</td></tr></table>'],
    ['/cenik', 'Ceník', '<h2>Ceník 2026</h2><table><tr><td>Dub</td><td>1 450 Kč</td></tr></table>'],
  ],
};

/** One site in so many does not answer, leads to another address, or waits for a buyer. */
const [DEAD, MOVED, PARKED] = [17, 31, 43];
/** What the address of a firm is followed by that moved. */
const NEW_ADDRESS = '-new.example';

/** The address at which the site of a firm is that moved; as it is of any other. */
export function siteAddress(domain: string): string {
  return hashOf(`moved ${domain}`) % MOVED === 0 ? domain.replace(/\.example$/, NEW_ADDRESS) : domain;
}

/** The address that a firm had before it moved. */
export function addressBefore(host: string): string {
  return host.endsWith(NEW_ADDRESS) ? host.replace(NEW_ADDRESS, '.example') : host;
}

/** @param host the address that is asked for, which a firm may have moved away from */
export function companySite(
  firm: StandInFirm,
  host: string,
  root: string,
  path: string,
): StandInAnswer | null {
  if (hashOf(`dead ${firm.domain}`) % DEAD === 0) return htmlAnswer('<h1>503</h1>', 503);
  const address = siteAddress(firm.domain!);
  if (address !== host)
    return { ...htmlAnswer('<h1>301</h1>', 301), headers: { location: `http://${address}${path}` } };
  if (hashOf(`parked ${firm.domain}`) % PARKED === 0)
    return htmlAnswer(
      page(host, STYLE, `<h1>${shown(host)}</h1><p>This domain is for sale. Make an offer.</p>`),
    );
  const pages = firm.offers.flatMap((offer) => {
    const forms = OFFER_PAGES[offer];
    return forms ? [forms[hashOf(`${offer} ${firm.domain}`) % forms.length]!] : [];
  });
  const draw = (body: string) =>
    htmlAnswer(
      page(
        firm.name,
        STYLE,
        `<nav><a href="${root}/">Home</a>${pages.map(([to, link]) => `<a href="${root}${to}">${link}</a>`).join('')}<a href="${root}/contact">Contact</a><a href="${root}/imprint">Imprint</a></nav>${body}<footer>${shown(firm.name)}, ${shown(firm.town)}</footer>`,
        traces(firm.technologies),
      ),
    );
  if (path === '/') return draw(`<h1>${shown(firm.name)}</h1><p>${shown(firm.about)}</p>`);
  if (path === '/contact')
    return draw(
      `<h1>Contact</h1><p>${shown(firm.street)}, ${shown(firm.postcode)} ${shown(firm.town)}</p>${firm.phone ? `<p>Tel. <a href="tel:${shown(firm.phone.replaceAll(' ', ''))}">${shown(firm.phone)}</a></p>` : ''}${firm.mail ? `<p>${shown(hashOf(firm.domain!) % 2 ? firm.mail : firm.mail.replace('@', ' (at) '))}</p>` : ''}`,
    );
  if (path === '/imprint')
    return draw(
      `<h1>Imprint</h1><p>${shown(firm.name)}<br>${shown(firm.street)}<br>${shown(firm.postcode)} ${shown(firm.town)}</p>${firm.registration ? `<p>Registration number: ${shown(firm.registration)}</p>` : ''}`,
    );
  const own = pages.find(([to]) => to === path);
  return own ? draw(own[2]) : null;
}

/** What the programs that a site runs leave in its pages. */
function traces(technologies: readonly string[]): string {
  return technologies
    .map((key, i) =>
      i % 2
        ? `<meta name="generator" content="${shown(key)}">`
        : `<script src="/lib/${shown(key)}/start.js"></script>`,
    )
    .join('');
}
