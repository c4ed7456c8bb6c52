/**
 * Difference of two colours as an eye sees it: CIEDE2000. A difference of 1 is just visible side by side.
 * [ISO/CIE 11664-6:2014; Sharma, Wu and Dalal, Color Res. Appl. 30 (2005) 21; both from memory]
 */
import type { Lab } from "./lab";

const RAD = Math.PI / 180;

export function colourDifference(one: Lab, other: Lab): number {
  const mean = (Math.hypot(one.a, one.b) + Math.hypot(other.a, other.b)) / 2;
  const g = 0.5 * (1 - Math.sqrt(mean ** 7 / (mean ** 7 + 25 ** 7)));
  const [first, second] = [polar(one, g), polar(other, g)];
  const dl = other.l - one.l;
  const dc = second.c - first.c;
  const isGrey = first.c * second.c === 0;
  const turn = isGrey ? 0 : halfTurn(second.h - first.h);
  const dh = 2 * Math.sqrt(first.c * second.c) * Math.sin((turn / 2) * RAD);
  const l = (one.l + other.l) / 2;
  const c = (first.c + second.c) / 2;
  const h = isGrey ? first.h + second.h : middleHue(first.h, second.h);
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RAD) +
    0.24 * Math.cos(2 * h * RAD) +
    0.32 * Math.cos((3 * h + 6) * RAD) -
    0.2 * Math.cos((4 * h - 63) * RAD);
  const sl = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const sc = 1 + 0.045 * c;
  const sh = 1 + 0.015 * c * t;
  const rotation = 2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7)) * Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * RAD);
  const [x, y, z] = [dl / sl, dc / sc, dh / sh];
  return Math.sqrt(x * x + y * y + z * z - rotation * y * z);
}

/** Chroma and hue, degrees from 0 to 360. */
function polar({ a, b }: Lab, g: number): { c: number; h: number } {
  const wide = (1 + g) * a;
  const h = wide === 0 && b === 0 ? 0 : Math.atan2(b, wide) / RAD;
  return { c: Math.hypot(wide, b), h: h < 0 ? h + 360 : h };
}

function halfTurn(degrees: number): number {
  if (degrees > 180) return degrees - 360;
  return degrees < -180 ? degrees + 360 : degrees;
}

function middleHue(one: number, other: number): number {
  const sum = one + other;
  if (Math.abs(one - other) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
}
