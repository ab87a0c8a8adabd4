/** Values by key, made where they are not there, up to a number of bytes; those not asked for longest go first. */
export class Recent<V> {
  private readonly values = new Map<string, V>();
  private readonly mostBytes: number;
  private readonly bytesOf: (value: V) => number;
  private bytes = 0;

  /** The value made last is kept however large it is. */
  constructor(mostBytes: number, bytesOf: (value: V) => number) {
    this.mostBytes = mostBytes;
    this.bytesOf = bytesOf;
  }

  /** Forgets the values under some keys. */
  forget(which: (key: string) => boolean): void {
    for (const [key, value] of this.values)
      if (which(key)) {
        this.values.delete(key);
        this.bytes -= this.bytesOf(value);
      }
  }

  get(key: string, make: () => V): V {
    let value = this.values.get(key);
    if (value === undefined) {
      value = make();
      this.bytes += this.bytesOf(value);
    } else this.values.delete(key);
    this.values.set(key, value);
    for (const [oldest, old] of this.values) {
      if (this.bytes <= this.mostBytes || oldest === key) break;
      this.values.delete(oldest);
      this.bytes -= this.bytesOf(old);
    }
    return value;
  }
}
