/** A word as a heading begins with it. */
export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
