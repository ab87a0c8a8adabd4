/** Beginnings by which a spreadsheet takes a text for a formula (OWASP, "CSV Injection"). */
const FORMULA = /^[=+\-@\t\r\uFF1D\uFF0B\uFF0D\uFF20]/;
/** A number in international form: a plus sign before figures alone is no formula. */
const PHONE = /^\+\d[\d\s()/.-]*$/;

/** A text that a spreadsheet takes for a text: one that begins like a formula gets an apostrophe in front. */
export function safeText(text: string): string {
  return FORMULA.test(text) && !PHONE.test(text) ? `'${text}` : text;
}
