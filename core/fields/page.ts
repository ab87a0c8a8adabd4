import { SECTIONS, type Field } from './field.ts';
import { SUBJECTS } from './registry.ts';

/** The page that tells of every field, made from the registry: what it is, how its line is typed, what it is called in files. */
export function fieldsPage(): string {
  const parts = [
    '# Fields',
    'Made from the registry (`npm run fields`); `core/fields/` is where a field is declared, once.',
  ];
  for (const { many, fields } of SUBJECTS.values())
    for (const [section, heading] of Object.entries(SECTIONS)) {
      const own = fields.filter((field) => field.section === section);
      if (own.length) parts.push(`## ${heading}, of ${many}`, ...own.map(entry));
    }
  return `${parts.join('\n\n')}\n`;
}

function entry(field: Field): string {
  const { label, id, kind, meaning, openers, files, column, values, dated } = field;
  const facts = [
    openers.length ? `Line: ${openers.map((one) => `\`${one} …\``).join(', ')}.` : 'No line of its own.',
    column ? `Column: “${column.heading}”.` : 'No column.',
    values ? `Values: ${values.map((value) => value.key).join(', ')}.` : '',
    dated ? `How old a value is: ${dated === 'year' ? 'its own year' : `the day of \`${dated}\``}.` : '',
    files.length
      ? `In files: ${files.map((file) => `\`${file.id}\` (${file.headings.slice(0, 3).join(', ')})`).join('; ')}.`
      : '',
  ];
  return [`### ${label}`, `\`${id}\`, ${kind}. ${meaning}`, facts.filter(Boolean).join(' ')].join('\n\n');
}
