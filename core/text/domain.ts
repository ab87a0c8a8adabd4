/** The domain in a web or mail address: "https://www.foo.example/x" and "a@foo.example" → "foo.example". Null where there is none. */
export function domainOf(text: string | null): string | null {
  if (text === null) return null;
  const host = text
    .trim()
    .toLowerCase()
    .replace(/^[a-z]+:\/\//, '')
    .split('@')
    .at(-1)!
    .split(/[/?#:]/)[0]!
    .replace(/^www\./, '');
  return /^[^\s.]+(\.[^\s.]+)+$/.test(host) ? host : null;
}
