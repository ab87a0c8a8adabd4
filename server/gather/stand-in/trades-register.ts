import { findFirms, type StandInFirm } from './firms.ts';
import { htmlAnswer, page, shown, type StandInAnswer } from './html.ts';

/** Another directory of the stand-in, of quite another build: a form that posts, a table, name and address in one cell, numbered pages. */

export const REGISTER_HOST = 'trades-register.example';
export const REGISTER_NAME = 'Register of Trades';

const ON_A_PAGE = 25;
const STYLE = `body{font:13px Verdana,sans-serif;margin:16px;color:#111}table{border-collapse:collapse;width:100%}td,th{border:1px solid #999;padding:4px 7px;text-align:left;vertical-align:top}th{background:#e8e2d0}tr.sum td{background:#eee}`;

export function tradesRegister(
  firms: readonly StandInFirm[],
  root: string,
  path: string,
  asked: URLSearchParams,
): StandInAnswer | null {
  if (path === '/')
    return htmlAnswer(
      page(
        REGISTER_NAME,
        STYLE,
        `<h1>${REGISTER_NAME}</h1><form method="post" action="${root}/entries"><p><label for="t">Trade or name</label> <input id="t" name="t"> <label for="o">Town</label> <input id="o" name="o"> <input type="submit" name="go" value="Look up"></p></form>`,
      ),
    );
  if (path !== '/entries') return null;
  const found = findFirms(firms, { words: asked.get('t') ?? '', place: asked.get('o') ?? '', web: false });
  const nth = Math.max(1, Math.min(1000, Number(asked.get('p') ?? 1) || 1));
  const rows = found
    .slice((nth - 1) * ON_A_PAGE, nth * ON_A_PAGE)
    .map(
      (firm, i) =>
        `<tr><td>${(nth - 1) * ON_A_PAGE + i + 1}</td><td>${shown(firm.name)}<br>${[firm.street, `${firm.postcode} ${firm.town}`].filter(Boolean).map(shown).join(', ')}</td><td>${shown(firm.trade)}</td><td>${firm.registration ? shown(firm.registration) : ''}</td><td>${firm.phone ? `T: ${shown(firm.phone)}` : ''}${firm.phone && firm.mail ? '<br>' : ''}${firm.mail ? `M: ${shown(firm.mail)}` : ''}</td></tr>`,
    );
  const pages = Math.ceil(found.length / ON_A_PAGE);
  const to = (n: number) => {
    const next = new URLSearchParams({ t: asked.get('t') ?? '', o: asked.get('o') ?? '', p: String(n) });
    return `${root}/entries?${shown(next.toString())}`;
  };
  const numbers = Array.from({ length: Math.min(pages, 40) }, (_, i) =>
    i + 1 === nth ? `<strong>${i + 1}</strong>` : `<a href="${to(i + 1)}">${i + 1}</a>`,
  );
  return htmlAnswer(
    page(
      REGISTER_NAME,
      STYLE,
      `<h1>${REGISTER_NAME}</h1><table><tr><th>No.</th><th>Firm</th><th>Trade</th><th>Number</th><th>Contact</th></tr>${rows.join('')}<tr class="sum"><td colspan="5">${found.length} entries</td></tr></table><p>Page ${numbers.join(' ')}</p>`,
    ),
  );
}
