/** Numbers as a person reads them: only the digits that mean something, never floating-point noise. */

import type { Measured } from "./measured";
import { expandedUncertainty } from "./measured";
import { fromInternal, type LengthUnit, UNITS, type UnitId } from "./units";

const MAX_DECIMALS = 6;

/** Decimals that show two significant digits of `step` (an uncertainty); 0 to 6. */
export function decimalsFor(step: number): number {
  if (!(step > 0) || !Number.isFinite(step)) return 3;
  const wanted = 1 - Math.floor(Math.log10(step));
  return Math.min(MAX_DECIMALS, Math.max(0, wanted));
}

/** A number with fixed decimals; a rounded zero carries no minus. */
export function fixed(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? (0).toFixed(decimals) : text.replace("-", "−");
}

/** The same with a plus where it is positive: for changes. */
export function signed(value: number, decimals: number): string {
  const text = fixed(value, decimals);
  return text.startsWith("−") || Number(text) === 0 ? text : `+${text}`;
}

/** Value without trailing zeros, up to `decimals`: for nominal figures such as speeds. */
export function plain(value: number, decimals = 3): string {
  const text = value.toFixed(decimals);
  // Not by way of a number: small ones would come out as 1e-7.
  const short = text.includes(".") ? text.replace(/\.?0+$/, "") : text;
  return short === "-0" ? "0" : short.replace("-", "−");
}

/** A unit after its number: none before a degree sign. [SI Brochure, 9th edition, 2019, 5.4.3, from memory] */
export function afterNumber(unit: UnitId): string {
  const { symbol } = UNITS[unit];
  return symbol === "" || symbol === "°" ? symbol : ` ${symbol}`;
}

/** `0.148 ± 0.005 mm`: the value with its expanded (95 %) uncertainty. */
export function withUncertainty(m: Measured, unit: UnitId): string {
  const expanded = fromInternal(expandedUncertainty(m), unit);
  const decimals = decimalsFor(expanded);
  const value = fixed(fromInternal(m.value, unit), decimals);
  return `${value} ± ${fixed(expanded, decimals)}${afterNumber(unit)}`;
}

/** `300 mm/s`. */
export function inUnit(internal: number, unit: UnitId, decimals = 3): string {
  return `${plain(fromInternal(internal, unit), decimals)}${afterNumber(unit)}`;
}

/** Decimals that show in `unit` what `mmDecimals` show in mm, or a little more. */
export function decimalsIn(unit: LengthUnit, mmDecimals: number): number {
  return Math.max(0, mmDecimals + { mm: 0, in: 2, thou: -1 }[unit]);
}

/** A length in mm as the screen shows it: `0.0114 in` for 0.29 mm read to two decimals. */
export function shownLength(mm: number, unit: LengthUnit, mmDecimals: number): string {
  return `${shownNumber(mm, unit, mmDecimals)} ${UNITS[unit].symbol}`;
}

/** The same without its unit: for columns that name it. */
export function shownNumber(mm: number, unit: LengthUnit, mmDecimals: number): string {
  return fixed(fromInternal(mm, unit), decimalsIn(unit, mmDecimals));
}
