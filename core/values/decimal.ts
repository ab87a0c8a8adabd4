/** Which of point and comma is the decimal mark of a column. */

/** What the figures of a column say: how many can only be read with a decimal point, with a decimal comma, and how many with either. */
export interface DecimalEvidence {
  point: number;
  comma: number;
  /** Figures such as 1.250, which are whole with one mark and not with the other. */
  onlyPoints: number;
  onlyCommas: number;
}

export function decimalEvidence(cells: readonly string[]): DecimalEvidence {
  const found: DecimalEvidence = { point: 0, comma: 0, onlyPoints: 0, onlyCommas: 0 };
  for (const cell of cells)
    for (const [number] of cell.slice(0, 100).matchAll(/\d[\d.,'’]*\d/g)) {
      // Two points are a day, a phone number or groups; of those only groups say anything.
      const marks = number.replace(/[^.,]/g, '');
      if (marks === '') continue;
      const last = marks.at(-1)!;
      const behind = number.length - 1 - number.lastIndexOf(last);
      const grouped = new RegExp(`^\\d{1,3}(?:\\${last}\\d{3})+$`).test(number);
      if (marks.length > 1 && [...marks].every((mark) => mark === last)) {
        if (grouped) found[last === '.' ? 'comma' : 'point']++;
      } else if (marks.length > 1) {
        if (new Set(marks.slice(0, -1)).size === 1 && marks[0] !== last)
          found[last === '.' ? 'point' : 'comma']++;
      } else if (behind === 3 && grouped && !number.startsWith('0')) {
        found[last === '.' ? 'onlyPoints' : 'onlyCommas']++;
      } else found[last === '.' ? 'point' : 'comma']++;
    }
  return found;
}

/**
 * The decimal mark that the evidence shows: that which more figures can only have. Whole figures (`whole`) with one
 * mark before three figures are thousands. Null where nothing shows it.
 */
export function decimalOf(evidence: DecimalEvidence, whole: boolean): '.' | ',' | null {
  const point = evidence.point + (whole ? evidence.onlyCommas : 0);
  const comma = evidence.comma + (whole ? evidence.onlyPoints : 0);
  if (point === comma) return null;
  return comma > point ? ',' : '.';
}

/** Whether any figure of the column is another number with the other mark. */
export function needsDecimal({ onlyPoints, onlyCommas }: DecimalEvidence): boolean {
  return onlyPoints + onlyCommas > 0;
}
