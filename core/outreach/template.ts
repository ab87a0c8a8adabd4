import { Problem } from '../tape/problem.ts';

/**
 * Templates of messages. A field stands in braces, as {first name}; a part in square brackets goes where a field in it is not
 * known, as "[You use {technology}.]"; a field outside of brackets that is not known holds the message back.
 */

/** What a template can name, with what it is. */
export const TEMPLATE_FIELDS = {
  'first name': 'The first name of the person',
  'last name': 'The surname',
  name: 'First name and surname',
  title: 'The title of the person’s post',
  company: 'The company, without its legal form',
  town: 'The town of the head office',
  industry: 'The main industry code in words',
  headcount: 'How many people work there',
  technology: 'A technology seen there',
  'last deal': 'The last deal of the company, with its month',
  trigger: 'What set the message off: the latest event or deal, named or hinted as the message says',
  proof: 'The proof that the message names',
  sender: 'The name of who writes',
} as const;
export type TemplateField = keyof typeof TEMPLATE_FIELDS;

/** What is known of one person, for each field; null where it is not. */
export type FieldValues = Readonly<Record<TemplateField, string | null>>;

type Piece = { text: string } | { field: TemplateField };
/** Pieces that stand always, or go together. */
interface Part {
  optional: boolean;
  pieces: Piece[];
}

/** Takes a template apart. @throws Problem naming what is wrong in it, as `field` of the request */
export function readTemplate(text: string, field: string): Part[] {
  const parts: Part[] = [];
  let part: Part = { optional: false, pieces: [] };
  const wrong = (message: string, value: string) =>
    new Problem('wrong-template', message, {
      field,
      value,
      rule: `fields in braces: ${Object.keys(TEMPLATE_FIELDS).join(', ')}; parts in square brackets`,
    });
  for (const [token] of text.matchAll(/\{[^{}]*\}|[^[\]{}]+|[[\]{}]/g)) {
    if (token === '[' || token === ']') {
      if ((token === '[') === part.optional)
        throw wrong(
          token === '[' ? 'A bracket stands within brackets.' : 'A closing bracket has no opening one.',
          token,
        );
      parts.push(part);
      part = { optional: token === '[', pieces: [] };
    } else if (token.length > 1 && token.startsWith('{')) {
      const name = token.slice(1, -1).trim().toLowerCase();
      if (!(name in TEMPLATE_FIELDS)) throw wrong(`“${token}” is no field of a template.`, token);
      part.pieces.push({ field: name as TemplateField });
    } else if (token === '{' || token === '}') throw wrong('A brace has no partner.', token);
    else part.pieces.push({ text: token });
  }
  if (part.optional) throw wrong('An opening bracket has no closing one.', '[');
  return [...parts, part];
}

export interface Filled {
  text: string;
  /** Fields outside of brackets that are not known; they stand in the text in braces. */
  unfilled: TemplateField[];
}

/** Fills a template for one person. Blanks left double by parts that went are taken out, and the second full stop where a name ends in one. @throws Problem as `readTemplate` */
export function fillTemplate(template: string, values: FieldValues, field: string): Filled {
  const unfilled: TemplateField[] = [];
  let text = '';
  for (const { optional, pieces } of readTemplate(template, field)) {
    const missing = pieces.flatMap((piece) =>
      'field' in piece && values[piece.field] === null ? [piece.field] : [],
    );
    if (optional && missing.length) continue;
    unfilled.push(...missing);
    for (const piece of pieces)
      text += 'text' in piece ? piece.text : (values[piece.field] ?? `{${piece.field}}`);
  }
  const tidy = text
    .split('\n')
    .map((line) =>
      line
        .replace(/ {2,}/g, ' ')
        .replace(/ ([,;:!?]|\.(?!\.))/g, '$1')
        .replace(/(?<!\.)\.\.(?!\.)/g, '.')
        .trim(),
    )
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
  return { text: tidy, unfilled: [...new Set(unfilled)] };
}

/** The fields in braces that are left in a text somebody wrote: what is still to be filled. */
export function leftUnfilled(text: string): string[] {
  return [...new Set([...text.matchAll(/\{([^{}\n]{1,40})\}/g)].map(([, name]) => name!.trim()))];
}

/** Words of a text as a reader counts them: what stands between blanks and has a letter or a figure. */
export function countWords(text: string): number {
  return (text.match(/\S+/g) ?? []).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
}
