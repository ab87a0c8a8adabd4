import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { parsePage } from './page.ts';
import { pagesOfSite, siteFacts, siteRecord, type SiteSignatures } from './read-site.ts';

const signatures = JSON.parse(readFileSync('data/site-signatures.json', 'utf8')) as SiteSignatures;
const facts = (html: string) =>
  siteFacts(parsePage(html), signatures, ['korbiva', 'planodor']).map(
    ({ field, value }) => `${field} ${value}`,
  );

describe('the pages of a company’s site', () => {
  it('say what is offered by their links, buttons and headings, in several languages', () => {
    expect(
      facts('<a href="/q">Request a quote</a><button>Do košíku</button><h2>Preisliste 2026</h2>'),
    ).toEqual(['offers quote-form', 'offers shop', 'offers price-list']);
    expect(facts('<p>We never request a quote from anybody, nor have we a shop.</p>')).toEqual([]);
  });

  it('say how one reaches it, and its number', () => {
    expect(
      facts(
        '<p>Tel. <a href="tel:1">+420 000 018 552</a></p><p>info (at) drevanko.example</p><a href="mailto:OFFICE@drevanko.example?subject=x">mail</a><p>IČO: 250 00 118</p>',
      ).sort(),
    ).toEqual([
      'mail info@drevanko.example',
      'mail office@drevanko.example',
      'phone +420 000 018 552',
      'registration 250 00 118',
    ]);
  });

  it('give away programs by what these leave in them', () => {
    expect(
      facts('<script src="/lib/korbiva/start.js"></script><meta name="generator" content="planodor">'),
    ).toEqual(['technologies korbiva', 'technologies planodor']);
  });

  it('lead to those worth reading, on their own host alone', () => {
    const home = parsePage(
      '<a href="/">Home</a><a href="/kontakt">Kontakt</a><a href="imprint">Imprint</a><a href="http://other.example/contact">Contact</a><a href="/quote">Get a quote</a><a href="javascript:x()">Contact</a>',
    );
    expect(pagesOfSite(home, 'http://firm.example/', signatures)).toEqual([
      'http://firm.example/kontakt',
      'http://firm.example/imprint',
      'http://firm.example/quote',
    ]);
  });

  it('come to one record that says where each was seen', () => {
    const offer = (value: string) => ({ field: 'offers' as const, value });
    expect(
      siteRecord([
        { url: 'http://a.example/', facts: [offer('shop')] },
        {
          url: 'http://a.example/q',
          facts: [offer('shop'), offer('quote-form'), { field: 'phone', value: '+420 1' }],
        },
      ]),
    ).toEqual({
      offers: 'shop; quote-form',
      phone: '+420 1',
      'own:Seen on': 'shop: /; quote-form: /q; +420 1: /q',
    });
  });
});
