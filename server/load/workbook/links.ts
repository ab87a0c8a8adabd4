import { fold } from '../../../core/text/fold.ts';
import { readXml } from './xml.ts';
import type { Zip } from './zip.ts';

/** Where cells of a sheet lead to: a cell that only says "Link" means what is behind it. */

/** Texts of cells that say no more than that something is behind them; folded. */
const LINK_WORDS: ReadonlySet<string> = new Set(
  'link, website, webseite, web, homepage, internet, url, www, open, visit, view, here, hier, click, click here, to the website, zur website, zur webseite, web page, page web, site, site web, sito, sito web, sitio, sitio web, odkaz, stranka, strona, strona www, hemsida, hjemmeside, nettside, kotisivut, honlap, mail, e-mail, email, write, schreiben, kontakt, contact, profile, profil'.split(
    ', ',
  ),
);

/** Addresses of the web and of mail that a sheet's links lead to, by what the sheet calls them. */
export async function linkTargets(zip: Zip, sheet: string): Promise<ReadonlyMap<string, string>> {
  const at = sheet.lastIndexOf('/') + 1;
  const text = await zip.text(`${sheet.slice(0, at)}_rels/${sheet.slice(at)}.rels`);
  const targets = new Map<string, string>();
  if (text === null) return targets;
  readXml(text, {
    open: (name, { Id, Target = '' }) => {
      if (name !== 'Relationship') return;
      if (/^https?:\/\//i.test(Target)) targets.set(Id!, Target);
      // Behind the address of a mail may stand what it is to be about.
      else if (/^mailto:/i.test(Target)) targets.set(Id!, Target.slice('mailto:'.length).split('?')[0]!);
    },
  });
  return targets;
}

/** What a cell says: its text, or where it leads to where the text says no more than that it does. */
export const saidBy = (text: string, target: string | undefined): string =>
  target !== undefined && (text.trim() === '' || LINK_WORDS.has(fold(text.trim().slice(0, 40))))
    ? target
    : text;
