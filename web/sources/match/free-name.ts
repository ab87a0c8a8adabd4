/** A name that no list has: the one wished, or it with a number. */
export function freeName(wished: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? wished : `${wished} ${n}`;
    if (!taken.includes(name)) return name;
  }
}
