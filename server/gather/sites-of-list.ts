import { domainOf } from '../../core/text/domain.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Services } from '../services.ts';
import { listByKey, memberKeys } from '../tables/lists/list-rows.ts';
import type { SiteOf } from '../tables/gather/runs.ts';

/** The companies on a list with their websites. @throws Problem where there is no such list of companies */
export function sitesOfList(
  { listsDb, universe }: Pick<Services, 'listsDb' | 'universe'>,
  key: string,
): SiteOf[] {
  const list = listByKey(listsDb, key);
  if (!list || list.subject !== 'companies')
    throw new Problem('unknown-list', `There is no list of companies "${key}".`, {
      field: 'spec.sites.list',
      value: key,
      rule: 'the key of a list of companies',
    });
  const company = universe.prepare<[string], SiteOf>(
    'SELECT name, country, registration, web FROM company WHERE key = ?',
  );
  return memberKeys(listsDb, key).flatMap((member) => {
    const found = company.get(member);
    return found ? [{ ...found, web: domainOf(found.web) }] : [];
  });
}
