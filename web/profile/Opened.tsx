import { Profile } from './Profile.tsx';
import { RecordPage } from './RecordPage.tsx';

/** The page of what is open: a company by key, or another record by subject and key, as "people/person-12". */
export function Opened({ openKey }: { openKey: string }) {
  const slash = openKey.indexOf('/');
  return slash < 0 ? (
    <Profile companyKey={openKey} />
  ) : (
    <RecordPage subject={openKey.slice(0, slash)} recordKey={openKey.slice(slash + 1)} />
  );
}
