/**
 * Sum of products as if worked out with twice the digits, then rounded once: where large terms cancel to a small sum.
 *
 * [Ogita, Rump & Oishi, SIAM J. Sci. Comput. 26 (2005) 1955, algorithm Dot2, with Dekker's splitting]
 */
const SPLITTER = 2 ** 27 + 1;

/** @param b as many numbers as `a` */
export function accurateDot(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  let error = 0;
  for (let i = 0; i < a.length; i++) {
    const x = a[i] ?? Number.NaN;
    const y = b[i] ?? Number.NaN;
    const product = x * y;
    const next = sum + product;
    const back = next - sum;
    error += sum - (next - back) + (product - back) + productError(x, y, product);
    sum = next;
  }
  return sum + error;
}

/** What rounding took from x y. */
function productError(x: number, y: number, product: number): number {
  const xs = SPLITTER * x;
  const ys = SPLITTER * y;
  const xHigh = xs - (xs - x);
  const yHigh = ys - (ys - y);
  const xLow = x - xHigh;
  const yLow = y - yHigh;
  return xLow * yLow - (product - xHigh * yHigh - xLow * yHigh - xHigh * yLow);
}
