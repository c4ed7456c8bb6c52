/**
 * QR by Householder reflections, on columns.
 * [Golub & Van Loan, Matrix Computations, 4th ed. 2013, 5.2]
 */
export type Row = readonly number[];

/** Turns the columns of A into those of R in place, and applies the same reflections to the vectors `alongside`. */
export function householder(columns: readonly number[][], alongside: readonly number[][]): void {
  const v = columns[0]?.slice() ?? [];
  for (let j = 0; j < columns.length; j++) {
    const column = columns[j] ?? [];
    let squared = 0;
    for (let i = j; i < column.length; i++) {
      const value = at(column, i);
      v[i] = value;
      squared += value * value;
    }
    const length = Math.sqrt(squared);
    if (length === 0) continue;
    const first = at(column, j);
    const reflected = first > 0 ? first + length : first - length;
    v[j] = reflected;
    // |v|^2 without taking away what was just added.
    squared = 2 * length * (length + Math.abs(first));
    for (let c = j; c < columns.length; c++) reflect(columns[c] ?? [], v, squared, j);
    for (const c of alongside) reflect(c, v, squared, j);
  }
}

function reflect(column: number[], v: number[], squared: number, from: number): void {
  let sum = 0;
  for (let i = from; i < column.length; i++) sum += at(v, i) * at(column, i);
  const factor = (2 * sum) / squared;
  for (let i = from; i < column.length; i++) column[i] = at(column, i) - factor * at(v, i);
}

/** @param columns the columns of an upper triangle R @returns rows of its inverse */
export function invertUpper(columns: readonly number[][]): number[][] {
  const n = columns.length;
  const r = (i: number, j: number) => at(columns[j] ?? [], i);
  const inverse = Array.from({ length: n }, () => zeros(n));
  for (let column = 0; column < n; column++) {
    for (let i = column; i >= 0; i--) {
      let sum = i === column ? 1 : 0;
      for (let k = i + 1; k <= column; k++) sum -= r(i, k) * at(inverse[k] ?? [], column);
      (inverse[i] ?? [])[column] = sum / r(i, i);
    }
  }
  return inverse;
}

/** Pushed one by one, so that the engine keeps it as plain doubles. */
export function zeros(length: number): number[] {
  const all: number[] = [];
  for (let i = 0; i < length; i++) all.push(0.5);
  for (let i = 0; i < length; i++) all[i] = 0;
  return all;
}

/** Sum of products. @param b as many numbers as `a` */
export function dot(a: Row, b: Row): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += at(a, i) * at(b, i);
  return sum;
}

/** NaN beyond the ends. */
export function at(row: Row, index: number): number {
  return row[index] ?? Number.NaN;
}
