/**
 * The thin QR factors of a tall matrix, by the modified Gram-Schmidt method, each column made orthogonal twice.
 *
 *   A = Q R,  Q'Q = 1        hat matrix H = Q Q',  leverage h_i = |row i of Q|^2,  (A'A)^-1 = R^-1 R^-T
 *
 * Twice is enough for columns that are orthogonal to working precision. [Bjorck, Numerical Methods for Least Squares Problems, 1996, 2.4.5]
 * Columns are scaled to unit length before, so that millimetres and shares can stand side by side.
 */

/** A column that keeps less than this share of its length beside the others adds nothing of its own. */
const RANK_TOLERANCE = 1e-11;

export type ThinQr = {
  rows: number;
  columns: number;
  /** rows x columns, row by row. */
  q: Float64Array;
  /** columns x columns, the inverse of R, row by row, upper triangle. */
  inverse: Float64Array;
  /** ln of the product of the diagonal of R. */
  logDeterminant: number;
};

/**
 * @param a rows x columns, row by row; left as it is
 * @returns `null` when the columns do not stand apart
 */
export function thinQr(a: Float64Array, rows: number, columns: number): ThinQr | null {
  const q = Float64Array.from(a);
  const r = new Float64Array(columns * columns);
  const at = (m: Float64Array, i: number) => m[i] ?? Number.NaN;
  let logDeterminant = 0;
  for (let j = 0; j < columns; j++) {
    const length = columnLength(q, rows, columns, j);
    if (length === 0) return null;
    for (let pass = 0; pass < 2; pass++)
      for (let k = 0; k < j; k++) {
        let sum = 0;
        for (let i = 0; i < rows * columns; i += columns) sum += at(q, i + k) * at(q, i + j);
        if (sum === 0) continue;
        r[k * columns + j] = at(r, k * columns + j) + sum;
        for (let i = 0; i < rows * columns; i += columns) q[i + j] = at(q, i + j) - sum * at(q, i + k);
      }
    const left = columnLength(q, rows, columns, j);
    if (left < RANK_TOLERANCE * length) return null;
    r[j * columns + j] = left;
    logDeterminant += Math.log(left);
    for (let i = 0; i < rows * columns; i += columns) q[i + j] = at(q, i + j) / left;
  }
  return { rows, columns, q, inverse: invertedUpper(r, columns), logDeterminant };
}

function columnLength(q: Float64Array, rows: number, columns: number, j: number): number {
  let sum = 0;
  for (let i = j; i < rows * columns; i += columns) sum += (q[i] ?? Number.NaN) ** 2;
  return Math.sqrt(sum);
}

function invertedUpper(r: Float64Array, n: number): Float64Array {
  const inverse = new Float64Array(n * n);
  for (let column = 0; column < n; column++)
    for (let i = column; i >= 0; i--) {
      let sum = i === column ? 1 : 0;
      for (let k = i + 1; k <= column; k++)
        sum -= (r[i * n + k] ?? Number.NaN) * (inverse[k * n + column] ?? Number.NaN);
      inverse[i * n + column] = sum / (r[i * n + i] ?? Number.NaN);
    }
  return inverse;
}
