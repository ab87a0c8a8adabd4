/** SQL text with its values, in order of the question marks; the text has no other question marks. */
export interface Sql {
  text: string;
  values: readonly (string | number)[];
}

/** SQL without values, or with those of its question marks. */
export function sql(text: string, ...values: (string | number)[]): Sql {
  return { text, values };
}

/** Puts pieces into a text, one for each `@`. */
export function filled(text: string, ...pieces: Sql[]): Sql {
  let at = 0;
  return {
    text: text.replace(/@/g, () => pieces[at++]!.text),
    values: pieces.flatMap((piece) => piece.values),
  };
}

export function joined(pieces: readonly Sql[], by: string): Sql {
  return {
    text: pieces.map((piece) => piece.text).join(by),
    values: pieces.flatMap((piece) => piece.values),
  };
}

/** `?, ?, ?` for some values, or `NULL`, which nothing is in, for none. */
export function listed(values: readonly (string | number)[]): Sql {
  return { text: values.length ? values.map(() => '?').join(', ') : 'NULL', values };
}

/** The statement with its values written into it, for reading and pasting. */
export function written({ text, values }: Sql): string {
  let at = 0;
  return text.replace(/\?/g, () => literal(values[at++]!));
}

/** A value as SQL: a number, or a text between quotes. */
export function literal(value: string | number): string {
  return typeof value === 'string' ? `'${value.replaceAll("'", "''")}'` : String(value);
}
