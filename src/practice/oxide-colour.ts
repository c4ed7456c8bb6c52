/**
 * Colours of steel that a pulsed beam has heated: light from both faces of a thin oxide interferes.
 *
 *   R = |(r1 + r2 e^(-i d))/(1 + r1 r2 e^(-i d))|^2,   d = 4 pi (n - i k) t / wavelength
 *
 * [Born and Wolf, Principles of Optics, 7th ed. 1999, 1.6.4; from memory] Indices of an oxide on steel and how thick it becomes are invented. The eye: fits
 * of the CIE 1931 functions by bells [Wyman, Sloan and Shirley, JCGT 2 (2013) 1; from memory], under light of equal energy, white being a grey mirror.
 */

/** Shares of the three primaries of a screen, not linear: as a file has them, 0 to 1. */
export type FileColour = readonly [red: number, green: number, blue: number];

const OXIDE = { n: 2.35, k: 0.06 };
const STEEL = { n: 2.9, k: 3.2 };

/** @param thicknessNm of the oxide; 0 is bare steel */
export function oxideColour(thicknessNm: number): FileColour {
  const [X, Y, Z] = seenAs(thicknessNm);
  const linear = [
    3.2406 * X - 1.5372 * Y - 0.4986 * Z,
    -0.9689 * X + 1.8758 * Y + 0.0415 * Z,
    0.0557 * X - 0.204 * Y + 1.057 * Z,
  ];
  const [red = 0, green = 0, blue = 0] = linear.map((c) => Math.max(0, Math.min(1, c)) ** (1 / 2.2));
  return [red, green, blue];
}

/** L*, a* and b* as a colour gauge shows them. */
export function oxideNumbers(thicknessNm: number): readonly [l: number, a: number, b: number] {
  const [x, y, z] = seenAs(thicknessNm);
  const [fx, fy, fz] = [Math.cbrt(x / D65.x), Math.cbrt(y), Math.cbrt(z / D65.z)];
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** White of the screen, Y = 1. Equal energy has X = Y = Z. */
const D65 = { x: 0.9505, z: 1.089 };

function seenAs(thicknessNm: number): [number, number, number] {
  let [x, y, z, white] = [0, 0, 0, 0];
  for (let nm = 390; nm <= 730; nm += 5) {
    const [cx, cy, cz] = eye(nm);
    const r = reflected(thicknessNm, nm);
    x += cx * r;
    y += cy * r;
    z += cz * r;
    white += cy;
  }
  return [(D65.x * x) / white, y / white, (D65.z * z) / white];
}

type Complex = readonly [re: number, im: number];

function times([a, b]: Complex, [c, d]: Complex): Complex {
  return [a * c - b * d, a * d + b * c];
}

function over([a, b]: Complex, [c, d]: Complex): Complex {
  const size = c * c + d * d;
  return [(a * c + b * d) / size, (b * c - a * d) / size];
}

function reflected(thicknessNm: number, nm: number): number {
  const air: Complex = [1, 0];
  const oxide: Complex = [OXIDE.n, -OXIDE.k];
  const steel: Complex = [STEEL.n, -STEEL.k];
  const face = (a: Complex, b: Complex) => over([a[0] - b[0], a[1] - b[1]], [a[0] + b[0], a[1] + b[1]]);
  const [first, second] = [face(air, oxide), face(oxide, steel)];
  const turn = (4 * Math.PI * thicknessNm) / nm;
  const fall = Math.exp(-turn * OXIDE.k);
  const back = times(second, [fall * Math.cos(turn * OXIDE.n), -fall * Math.sin(turn * OXIDE.n)]);
  const [re, im] = over([first[0] + back[0], first[1] + back[1]], [1 + times(first, back)[0], times(first, back)[1]]);
  return re * re + im * im;
}

function bell(nm: number, at: number, below: number, above: number): number {
  return Math.exp(-(((nm - at) * (nm < at ? below : above)) ** 2) / 2);
}

function eye(nm: number): [number, number, number] {
  return [
    1.056 * bell(nm, 599.8, 0.0264, 0.0323) +
      0.362 * bell(nm, 442, 0.0624, 0.0374) -
      0.065 * bell(nm, 501.1, 0.049, 0.0382),
    0.821 * bell(nm, 568.8, 0.0213, 0.0247) + 0.286 * bell(nm, 530.9, 0.0613, 0.0322),
    1.217 * bell(nm, 437, 0.0845, 0.0278) + 0.681 * bell(nm, 459, 0.0385, 0.0725),
  ];
}
