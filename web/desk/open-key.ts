/** How the Desk's address names an open record: a company by its key, another by subject and key. */
export function openKeyOf(subject: string, key: string): string {
  return subject === 'companies' ? key : `${subject}/${key}`;
}
