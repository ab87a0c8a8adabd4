import { hashOf } from '../../../core/text/hash.ts';
import { findFirms, type StandInFirm } from './firms.ts';
import { htmlAnswer, page, shown, type StandInAnswer } from './html.ts';

/** A trade directory of the stand-in: a form, pages of cards with adverts among them, and a page for each firm. */

export const GUIDE_HOST = 'workshop-guide.example';
export const GUIDE_NAME = 'Workshop Guide';

const ON_A_PAGE = 15;
/** Of each page one row in so many is of the small look, and one has an advert behind it; so many lack their phone, or lead to a page for members. */
const [SMALL, NO_PHONE, ADVERT, MEMBERS] = [7, 6, 9, 23];

const STYLE = `body{margin:0;font:14px/1.45 Georgia,serif;color:#222;background:#f4f6f8}header{background:#2f4a5e;color:#fff;padding:10px 20px;display:flex;gap:22px;align-items:baseline}header a{color:#dfe8ee}header b{font-size:19px}form.find{padding:12px 20px;background:#dde6ec;display:flex;gap:14px;flex-wrap:wrap;align-items:center}.cols{display:flex;gap:24px;padding:14px 20px}.cols>div{flex:1}.firm,.mini{background:#fff;border:1px solid #c9d3da;margin:0 0 9px;padding:9px 12px}.firm h3{margin:0 0 3px;font-size:17px}.firm .kind{float:right;color:#667}.mini{padding:6px 12px;border-style:dotted}.promo{background:#fffbe6}.promo .tag{float:right;font-size:12px;color:#887}.side{width:180px;font-size:13px}.pager{margin:10px 0}.pager a,.pager b{margin-right:9px}dl dt{font-weight:bold}`;

const drawn = (firm: StandInFirm, what: string, one: number) => hashOf(`${what} ${firm.id}`) % one === 0;

export function workshopGuide(
  firms: readonly StandInFirm[],
  root: string,
  path: string,
  asked: URLSearchParams,
): StandInAnswer | null {
  if (path === '/') return htmlAnswer(around(root, form(root, asked), '<p>Enter a trade and a place.</p>'));
  if (path === '/find' || path === '/part') return results(firms, root, asked, path === '/part');
  const detail = /^\/(?:members\/)?firm\/(\d{1,9})$/.exec(path);
  const firm = detail && firms[Number(detail[1])];
  if (firm) return htmlAnswer(around(root, '', firmPage(firm), firm.name));
  if (path === '/members/') return htmlAnswer(around(root, '', '<p>For members.</p>'));
  return null;
}

function results(
  firms: readonly StandInFirm[],
  root: string,
  asked: URLSearchParams,
  part: boolean,
): StandInAnswer {
  const found = findFirms(firms, {
    words: asked.get('what') ?? '',
    place: asked.get('where') ?? '',
    web: asked.get('web') === '1',
  });
  if (asked.get('order') === 'name') found.sort((a, b) => (a.name < b.name ? -1 : 1));
  const nth = Math.max(1, Math.min(1000, Number(asked.get('page') ?? 1) || 1));
  const shownFirms = found.slice((nth - 1) * ON_A_PAGE, nth * ON_A_PAGE);
  const rows = shownFirms.map((firm, i) => row(root, firm, i)).join('');
  const last = nth * ON_A_PAGE >= found.length;
  const next = new URLSearchParams(asked);
  next.set('page', String(nth + 1));
  const way = asked.get('way') ?? 'pages';
  const on =
    way === 'pages'
      ? pager(root, asked, nth, Math.ceil(found.length / ON_A_PAGE))
      : last
        ? ''
        : way === 'button'
          ? `<button class="on" data-more="${root}/part?${shown(next.toString())}">Show more (${found.length - nth * ON_A_PAGE})</button>`
          : `<div class="on-scroll" data-next="${root}/part?${shown(next.toString())}"><i>…</i></div>`;
  if (part) return htmlAnswer(`<div class="results">${rows}</div>${on}`);
  const count = `<p>Entries ${found.length ? (nth - 1) * ON_A_PAGE + 1 : 0} to ${Math.min(found.length, nth * ON_A_PAGE)} of <b>${found.length}</b></p>`;
  const side =
    '<aside class="side"><h4>Near</h4><ul><li><a href="#">Blansko</a> (31)</li><li><a href="#">Vyškov</a> (27)</li></ul><h4>Like this</h4><ul><li><a href="#">Carpenters</a> (88)</li></ul></aside>';
  return htmlAnswer(
    around(
      root,
      form(root, asked),
      `<div class="cols"><div>${count}<div class="results">${rows}</div>${on}</div>${side}</div>`,
    ),
  );
}

function row(root: string, firm: StandInFirm, i: number): string {
  const advert =
    i % ADVERT === 1
      ? `<div class="firm promo"><span class="tag">Sponsored</span><h3><a href="#">Saw blades sharpened by tomorrow, no ${firm.id}!</a></h3><p class="where"><span>All of Moravia</span></p></div>`
      : '';
  const link = `${root}${drawn(firm, 'members', MEMBERS) ? '/members' : ''}/firm/${firm.id}`;
  if (i % SMALL === 2)
    return `<div class="mini"><strong><a href="${link}">${shown(firm.name)}</a></strong> <em>${shown(firm.postcode)}</em> <u>${shown(firm.town)}</u>${firm.phone ? ` <span class="ring">☎ ${shown(firm.phone)}</span>` : ''}</div>${advert}`;
  const phone =
    firm.phone !== null && !drawn(firm, 'phone', NO_PHONE)
      ? `<span class="tel">Tel. ${shown(firm.phone)}</span>`
      : '';
  const web = firm.domain
    ? ` <span class="web">Web <a href="http://${shown(firm.domain)}/">${shown(firm.domain)}</a></span>`
    : '';
  return `<div class="firm"><span class="kind">${shown(firm.trade)}</span><h3><a href="${link}">${shown(firm.name)}</a></h3><p class="where">${firm.street ? `<span class="street">${shown(firm.street)}</span>, ` : ''}<span class="zip">${shown(firm.postcode)}</span> <span class="town">${shown(firm.town)}</span></p><p>${phone}${web}</p></div>${advert}`;
}

function pager(root: string, asked: URLSearchParams, nth: number, pages: number): string {
  const to = (n: number) => {
    const next = new URLSearchParams(asked);
    next.set('page', String(n));
    return `${root}/find?${shown(next.toString())}`;
  };
  const near = Array.from(
    { length: Math.min(pages, 9) },
    (_, i) => i + Math.max(1, Math.min(nth - 4, pages - 8)),
  );
  const numbers = near.map((n) => (n === nth ? `<b>${n}</b>` : `<a href="${to(n)}">${n}</a>`)).join('');
  return `<nav class="pager">${numbers}${nth < pages ? `<a class="next" href="${to(nth + 1)}">Next page</a>` : ''}</nav>`;
}

const WAYS = { pages: 'page by page', button: 'with a button', scroll: 'as one scrolls' };

function form(root: string, asked: URLSearchParams): string {
  const options = (all: Record<string, string>, chosen: string) =>
    Object.entries(all)
      .map(
        ([value, label]) =>
          `<option value="${value}"${value === chosen ? ' selected' : ''}>${label}</option>`,
      )
      .join('');
  return `<form class="find" action="${root}/find"><label>What <input name="what" value="${shown(asked.get('what') ?? '')}"></label><label>Where <input name="where" value="${shown(asked.get('where') ?? '')}"></label><label>Results <select name="way">${options(WAYS, asked.get('way') ?? 'pages')}</select></label><label>Order <select name="order">${options({ best: 'best first', name: 'by name' }, asked.get('order') ?? 'best')}</select></label><label><input type="checkbox" name="web" value="1"${asked.get('web') === '1' ? ' checked' : ''}> with a website</label><button>Search</button></form>`;
}

function firmPage(firm: StandInFirm): string {
  const line = (label: string, value: string | number | null) =>
    value === null || value === '' ? '' : `<dt>${label}</dt><dd>${shown(value)}</dd>`;
  return `<article class="cols"><div class="results"><h1>${shown(firm.name)}</h1><p class="about">${shown(firm.about)}</p><dl>${line('Trade', firm.trade)}${line('Street', firm.street)}${line('Town', `${firm.postcode} ${firm.town}`)}${line('Phone', firm.phone)}${line('E-mail', firm.mail)}${line('Website', firm.domain)}${line('Staff', firm.headcount)}${line('Founded', firm.founded)}</dl></div></article>`;
}

const around = (root: string, before: string, body: string, title = GUIDE_NAME) =>
  page(
    title,
    STYLE,
    `<header><b>${GUIDE_NAME}</b><a href="${root}/">Home</a><a href="${root}/members/">Members</a><a href="#">Add your firm</a></header>${before}<main>${body}</main><footer><p>Made up from end to end. Nobody here can be visited.</p></footer>`,
  );
