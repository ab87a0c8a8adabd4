/**
 * A text that a spreadsheet takes for a text: one that begins like a formula gets an apostrophe in front, as
 * OWASP's page on CSV injection advises.
 */
export function safeText(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}
