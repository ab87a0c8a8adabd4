import { openLists, openWorkspace, type Db } from '../server/db/open.ts';
import { allLists } from '../server/tables/lists/list-rows.ts';
import { fillLists } from './lists.ts';
import { fillOutreach } from './outreach.ts';
import type { Contact } from '../contract/responses.ts';
import { writeContacts } from '../server/tables/contacts.ts';
import { allSavedTapes, writeSavedTape } from '../server/tables/saved-tapes.ts';

/** What the desk at Ternhollow Filtration has in its workspace: a list of customers, and the tapes of this quarter. */

const MAKERS = ['16.23', '16.25', '18.12', '22.26', '25.51', '30.12', '31.00'];
const COUNTRIES = ['central-europe', 'nordic', 'baltic'];

interface DemoTape {
  kind: 'tape' | 'part';
  name: string;
  description: string;
  lines: readonly object[];
  sort?: readonly object[];
}

const line = (id: string, field: string, test: object, more: object = {}) => ({ id, field, test, ...more });

const TAPES: readonly DemoTape[] = [
  {
    kind: 'tape',
    name: 'Targets: workshops that spray, sand and mould',
    description:
      'Coating shops, joineries, composite moulders and printers of 20 to 249 staff that are no customers yet; better if they plan or paint by a system, grew, or have just taken a growth loan.',
    lines: [
      line('l1', 'industry', { scheme: 'nace-2.1', any: MAKERS, rank: 'any' }, { must: true }),
      line('l2', 'place', { countries: COUNTRIES }),
      line('l3', 'headcount', { from: 20, to: 249 }),
      line('l4', 'revenue', { from: 2e6, to: 4e7, currency: 'EUR' }, { estimates: true, unknown: 'keep' }),
      line('l5', 'list', { any: ['our-customers'] }, { not: true }),
      {
        id: 'l6',
        parked: true,
        either: [
          line('l7', 'technology', { any: ['production-planning', 'paint-line-control'] }),
          line('l8', 'growth', { of: 'headcount', over: '1y', from: 0.1 }),
          {
            id: 'l9',
            has: 'deals',
            as: 'target',
            lines: [
              line('l10', 'kind', { any: ['growth-loan'] }),
              line('l11', 'date', { past: '18 months' }),
            ],
          },
        ],
      },
    ],
    sort: [{ by: 'revenue', descending: true }],
  },
  {
    kind: 'tape',
    name: 'Rivals: makers of air-cleaning plant',
    description:
      'Makers of industrial air-cleaning and ventilation plant in the same countries, the largest first.',
    lines: [
      line('l1', 'industry', { scheme: 'nace-2.1', any: ['28.25'], rank: 'any', kin: 'sure' }),
      line('l2', 'place', { countries: COUNTRIES }),
      line('l3', 'status', { any: ['active'] }),
    ],
    sort: [{ by: 'revenue', descending: true }],
  },
  {
    kind: 'tape',
    name: 'Dealers: machine tools and workshop supplies',
    description: 'Wholesalers of machine tools near the clusters of workshops, with somebody in sales.',
    lines: [
      line('l1', 'industry', { scheme: 'nace-2.1', any: ['46.62'], rank: 'any' }),
      line('l2', 'place', { countries: COUNTRIES }),
      line('l3', 'departments', { key: 'sales', from: 1 }, { unknown: 'keep' }),
      line('l4', 'site-answers', { is: true }, { unknown: 'keep' }),
    ],
    sort: [{ by: 'headcount', descending: true }],
  },
  {
    kind: 'tape',
    name: 'Open day: small joineries around Brno',
    description: 'Very small joineries within 40 km of the open day, records checked lately only.',
    lines: [
      line('l1', 'industry', { scheme: 'nace-2.1', any: ['16.23', '16.25', '43.32'], rank: 'any' }),
      line('l2', 'place', { near: { lat: 49.19522, lon: 16.60796, km: 40, label: 'Brno' } }),
      line('l3', 'headcount', { from: 0, to: 9 }),
      line('l4', 'checked', { past: '24 months' }),
    ],
  },
  {
    kind: 'part',
    name: 'Our target market',
    description: 'The trades and countries that we sell to.',
    lines: [
      line('l1', 'industry', { scheme: 'nace-2.1', any: MAKERS, rank: 'any' }),
      line('l2', 'place', { countries: COUNTRIES }),
    ],
  },
];

const BOOK = 'Whom our engineers know';

/** A small address book: heads and directors at some companies of the trades sold to. */
function contacts(universe: Db): Contact[] {
  return universe
    .prepare<[], Contact>(
      `SELECT p.name, p.mail, p.phone, p.title, c.name AS organisation, c.key AS company
       FROM person p JOIN company c ON c.id = p.company_id JOIN company_code k ON k.company_id = c.id AND k.rank = 0
       WHERE k.code IN ('25.51', '16.25', '28.25') AND p.level IN ('head', 'director') AND p.mail IS NOT NULL AND p.id % 5 = 0
       ORDER BY p.id LIMIT 60`,
    )
    .all();
}

/** Fills the workspace of a folder unless it has lists or tapes already. */
export async function fillWorkspace(dir: string, universe: Db): Promise<void> {
  const workspace = openWorkspace(dir);
  const lists = openLists(dir);
  try {
    if (allLists(lists).length || allSavedTapes(workspace).length) return;
    lists.transaction(() => fillLists(lists, universe))();
    fillTapes(workspace, universe);
  } finally {
    workspace.close();
    lists.close();
  }
  await fillOutreach(dir, universe);
}

function fillTapes(workspace: Db, universe: Db): void {
  writeContacts(workspace, BOOK, contacts(universe));
  TAPES.forEach(({ kind, name, description, lines, sort }, i) => {
    const body = {
      format: 'just-tally.tape',
      version: 1,
      name,
      description,
      subject: 'companies',
      lines,
      ...(sort ? { sort } : {}),
    };
    writeSavedTape(workspace, {
      kind,
      name,
      body: JSON.stringify(body),
      count: null,
      universe: null,
      opening: i === 0 ? 1 : 0,
    });
  });
}
