import { Problem } from '../problem.ts';

/** A typed text with one blank wherever there are several: what it says is the same, and no expression lingers over blanks. */
export function squeezed(text: string): string {
  return text.trim().replace(/\s+/g, ' ');
}

/** Splits at a separator that stands outside quotation marks and brackets. */
export function splitOutside(text: string, separator: string): string[] {
  const parts: string[] = [];
  let start = 0;
  let inQuotes = false;
  let deep = 0;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '"') inQuotes = !inQuotes;
    else if (inQuotes) continue;
    else if (text[i] === '(') deep++;
    else if (text[i] === ')') deep--;
    else if (text[i] === separator && deep <= 0) {
      parts.push(text.slice(start, i));
      start = i + 1;
    }
  }
  return [...parts, text.slice(start)];
}

/** The lines typed at once, which `;` separates. */
export function partsOf(text: string): string[] {
  return splitOutside(text, ';')
    .map((part) => part.trim())
    .filter(Boolean);
}

/** What a reader of typed lines says when it is stuck. */
export function problem(understood: string, seen: string, expected: string, value: string): Problem {
  const start = understood ? `Understood “${understood}”; then came ` : 'Nothing understood in ';
  return new Problem('typed-grammar', `${start}${seen ? `“${seen}”` : 'nothing'}. Expected ${expected}.`, {
    field: 'text',
    value,
    rule: expected,
  });
}
