import { words } from './companies/making.ts';
import type { FileColumn, Subject } from './field.ts';
import { allParties, fieldsOf } from './related/making.ts';

export const DEAL_KINDS = ['growth-loan', 'equity-round', 'acquisition', 'merger', 'buy-out'] as const;

const { label, category, number, date, parties } = fieldsOf('deals', 'date');

/** Columns of a file that name a party of a deal: by registration number or domain or else by name, several separated by semicolons. */
export const PARTY_COLUMNS: readonly (FileColumn & { role: string })[] = [
  [
    'target',
    'Target',
    [
      'target',
      'target company',
      'borrower',
      'issuer',
      'seller company',
      'company',
      'zielunternehmen',
      'ziel',
      'ubernommenes unternehmen',
      'cilova spolecnost',
      'cil',
      'prevzata spolecnost',
      'spolka przejmowana',
      'societe cible',
      'cible',
      'societa target',
      'empresa objetivo',
    ],
  ],
  [
    'buyer',
    'Buyer',
    [
      'buyer',
      'acquirer',
      'acquiror',
      'purchaser',
      'buyers',
      'kaufer',
      'erwerber',
      'kupujici',
      'nabyvatel',
      'kupujacy',
      'nabywca',
      'acquereur',
      'acheteur',
      'acquirente',
      'comprador',
      'koper',
      'kober',
      'kopare',
    ],
  ],
  [
    'investor',
    'Investors',
    [
      'investor',
      'investors',
      'lead investor',
      'lead investors',
      'other investors',
      'lender',
      'lenders',
      'backers',
      'kapitalgeber',
      'investori',
      'investisseur',
      'investisseurs',
      'investitore',
      'investitori',
      'inversor',
      'inversores',
      'inwestor',
    ],
  ],
  [
    'sell-adviser',
    'Advisers to the seller',
    [
      'sell side adviser',
      'seller adviser',
      'advisers to the seller',
      'sell adviser',
      'berater verkaufer',
      'poradce prodavajiciho',
      'conseil vendeur',
    ],
  ],
  [
    'buy-adviser',
    'Advisers to the buyer',
    [
      'buy side adviser',
      'buyer adviser',
      'advisers to the buyer',
      'buy adviser',
      'berater kaufer',
      'poradce kupujiciho',
      'conseil acquereur',
    ],
  ],
].map(([role, name, headings]) => ({
  id: `party-${role as string}`,
  role: role as string,
  label: name as string,
  headings: headings as string[],
}));

/** Growth loans, equity rounds, acquisitions, mergers and buy-outs, with their parties. */
export const deals: Subject = {
  id: 'deals',
  one: 'deal',
  many: 'deals',
  table: 'deal',
  relation: {
    table: 'deal_party',
    record: 'deal_id',
    preposition: 'with',
    known: 'deals_known',
    roles: [
      { key: 'target', label: 'target', stored: ['target'] },
      { key: 'buyer', label: 'buyer', stored: ['buyer'] },
      { key: 'investor', label: 'investor', stored: ['investor'] },
      { key: 'adviser', label: 'adviser', stored: ['sell-adviser', 'buy-adviser'] },
      { key: 'sell-adviser', label: 'adviser to the seller', stored: ['sell-adviser'] },
      { key: 'buy-adviser', label: 'adviser to the buyer', stored: ['buy-adviser'] },
    ],
  },
  fields: [
    {
      ...label('name', 'Deal', 'What was done, in a few words.', {
        width: 250,
        headings: 'deal, deal name, headline, transaction',
      }),
      files: [
        { id: 'name', label: 'Deal', headings: ['deal', 'deal name', 'headline', 'transaction'] },
        ...PARTY_COLUMNS,
      ],
    },
    category('kind', 'Kind', 'What kind of deal it is.', {
      openers: 'kind, kind of deal',
      values: DEAL_KINDS.map((key) => ({ key, label: key === 'buy-out' ? key : key.replaceAll('-', ' ') })),
      headings:
        'kind, type, deal type, round, funding round, funding type, round type, financing type, kind of deal, transaktionsart, art der transaktion, transaktionstyp, dealart, typ transakce, druh transakce, rodzaj transakcji, type d operation, tipo operazione, tipo de operacion',
    }),
    date('date', 'Date', 'The day the deal was closed.', {
      openers: 'date, closed',
      headings:
        'date, closed, closing date, announced, deal date, datum, datum transaktion, vollzug, datum transakce, data, date de l operation, data transakcji',
    }),
    {
      id: 'amount',
      subject: 'deals',
      section: 'size',
      dated: 'date',
      kind: 'money',
      label: 'Amount',
      meaning: 'What was paid, lent or put in; often undisclosed.',
      store: { at: 'range', stem: 'amount' },
      openers: ['amount', 'value'],
      column: { heading: 'Amount', width: 112, numeric: true },
      files: [
        {
          id: 'amount',
          label: 'Amount',
          headings: words(
            'amount, value, deal value, size, price, kaufpreis, transaktionsvolumen, transaktionswert, dealvolumen, volumen, cena, hodnota, hodnota transakce, wartosc transakcji, montant, valeur, importo, valore, importe, valor',
          ),
        },
        { id: 'amount-currency', label: 'Currency of the amount', headings: ['currency', 'amount currency'] },
        { id: 'amount-year', label: 'Year of the amount', headings: ['amount year', 'year of the amount'] },
        { id: 'amount-from', label: 'Amount from', headings: ['amount from', 'amount min', 'value from'] },
        { id: 'amount-to', label: 'Amount to', headings: ['amount to', 'amount max', 'value to'] },
        { id: 'amount-basis', label: 'Basis of the amount', headings: ['amount basis'] },
      ],
    },
    parties('target', 'Target', 'The company that was bought, lent to or put money in.', {
      width: 190,
      store: { at: 'parties', role: 'target' },
    }),
    parties('buyer', 'Buyer', 'Who bought.', { width: 190, store: { at: 'parties', role: 'buyer' } }),
    parties('investors', 'Investors', 'Who lent or put money in.', {
      width: 190,
      store: { at: 'parties', role: 'investor' },
    }),
    parties('sell-advisers', 'Advisers to the seller', 'Who advised the selling side.', {
      width: 190,
      store: { at: 'parties', role: 'sell-adviser' },
    }),
    parties('buy-advisers', 'Advisers to the buyer', 'Who advised the buying side.', {
      width: 190,
      store: { at: 'parties', role: 'buy-adviser' },
    }),
    number('bidders', 'Bidders approached', 'How many possible buyers the selling side approached.', {
      openers: 'bidders, bidders approached',
      headings: 'bidders, bidders approached, approached',
    }),
    allParties('deals'),
    category('source', 'Source', 'The sources that have the deal.', {
      section: 'standing',
      store: { at: 'many', table: 'deal_source', value: 'source', known: null },
    }),
  ],
};
