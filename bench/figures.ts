/** What the bench says of its timings. */

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

export const median = (values: readonly number[]) => quantile(values, 0.5);

export function geometricMean(values: readonly number[]): number {
  return Math.exp(values.reduce((sum, value) => sum + Math.log(value), 0) / values.length);
}

/** Milliseconds with three figures, and in seconds from ten thousand on. */
export function time(ms: number): string {
  if (ms >= 10_000) return `${(ms / 1000).toFixed(1)} s`;
  return `${ms >= 100 ? ms.toFixed(0) : ms.toPrecision(3)} ms`;
}

export const times = (ratio: number) => `${ratio >= 100 ? ratio.toFixed(0) : ratio.toPrecision(3)}x`;
export const megabytes = (bytes: number) => `${Math.round(bytes / 2 ** 20).toLocaleString('en-GB')} MB`;

/** How long things took, each asked several times: median, 95th percentile and worst. */
export class TimingTable {
  private readonly rows: string[][];

  constructor(title: string) {
    this.rows = [[title, 'times', 'median', 'p95', 'worst']];
  }

  /** `took` in milliseconds. */
  add(name: string, took: readonly number[]): void {
    const figures = took.length
      ? [median(took), quantile(took, 0.95), Math.max(...took)].map(time)
      : ['-', '-', '-'];
    this.rows.push([name, String(took.length), ...figures]);
  }

  print(): void {
    printTable(this.rows);
  }
}

/** Prints rows of cells as a table, the first row its head. */
export function printTable(rows: readonly (readonly string[])[]): void {
  const widths = rows[0]!.map((_, i) => Math.max(...rows.map((row) => row[i]!.length)));
  rows.forEach((row, at) => {
    console.log(
      `| ${row.map((cell, i) => (i === 0 ? cell.padEnd(widths[i]!) : cell.padStart(widths[i]!))).join(' | ')} |`,
    );
    if (at === 0) console.log(`| ${widths.map((width) => '-'.repeat(width)).join(' | ')} |`);
  });
  console.log();
}
