import { expect, test } from "vitest";
import { thinQr } from "./thin-qr";

/** Row by row. */
const A = [
  [1, 2, 0.5],
  [0, 3, -1],
  [2, -1, 4],
  [1, 1, 1],
  [-3, 0, 2],
];
const [ROWS, COLUMNS] = [5, 3];
const qr = thinQr(Float64Array.from(A.flat()), ROWS, COLUMNS);
const q = (i: number, j: number) => qr?.q[i * COLUMNS + j] ?? Number.NaN;
const inverse = (i: number, j: number) => qr?.inverse[i * COLUMNS + j] ?? Number.NaN;
const sum = (count: number, of: (k: number) => number) =>
  Array.from({ length: count }, (_, k) => of(k)).reduce((total, value) => total + value, 0);

test("the columns of Q are orthonormal", () => {
  for (let j = 0; j < COLUMNS; j++)
    for (let k = 0; k < COLUMNS; k++) expect(sum(ROWS, (i) => q(i, j) * q(i, k))).toBeCloseTo(j === k ? 1 : 0, 12);
});

test("A times the inverse of R is Q", () => {
  for (let i = 0; i < ROWS; i++)
    for (let j = 0; j < COLUMNS; j++)
      expect(sum(COLUMNS, (k) => (A[i]?.[k] ?? Number.NaN) * inverse(k, j))).toBeCloseTo(q(i, j), 12);
});

test("the determinant is that of A'A, by hand", () => {
  const dot = (j: number, k: number) => sum(ROWS, (i) => (A[i]?.[j] ?? 0) * (A[i]?.[k] ?? 0));
  const [a, b, c, d, e, f] = [dot(0, 0), dot(0, 1), dot(0, 2), dot(1, 1), dot(1, 2), dot(2, 2)];
  const determinant = a * (d * f - e * e) - b * (b * f - e * c) + c * (b * e - d * c);
  expect(2 * (qr?.logDeterminant ?? 0)).toBeCloseTo(Math.log(determinant), 10);
});

test("columns that do not stand apart are refused, also where they nearly do not", () => {
  expect(thinQr(Float64Array.from([1, 2, 2, 4, 3, 6]), 3, 2)).toBeNull();
  expect(thinQr(Float64Array.from([1, 0, 0, 0, 0, 0]), 3, 2)).toBeNull();
  expect(thinQr(Float64Array.from([1, 1, 1, 1 + 1e-14, 1, 1]), 3, 2)).toBeNull();
});

test("columns of any size are taken, where they stand apart", () => {
  for (const size of [1e-9, 1e9])
    expect(thinQr(Float64Array.from([1, 2, 0, 1, 1, 0].map((v) => v * size)), 3, 2)).not.toBeNull();
});

test("stays orthogonal where columns nearly coincide", () => {
  const near = thinQr(Float64Array.from([1, 1, 1, 1 + 1e-7, 1, 1 - 1e-7]), 3, 2);
  const product = sum(3, (i) => (near?.q[2 * i] ?? 0) * (near?.q[2 * i + 1] ?? 0));
  expect(Math.abs(product)).toBeLessThan(1e-14);
});
