/**
 * A piece as SVG in true millimetres.
 *
 * One group a set of marking settings; the groups are told apart by line weight and dash, and carry their settings as
 * data attributes. Y runs down in SVG, so y = height - Y of the coupon. Six decimals: half a nanometre of rounding.
 * [W3C SVG 1.1 (Second Edition), 7.10 units, 8.3 path data]
 */
import { groupPen } from "../core/coupon/group-pen";
import type { MarkingSettings, Piece } from "../core/coupon/piece";
import { type Stroke, strokesWith } from "../core/coupon/strokes";
import { plain } from "../core/metrology/quantity-text";

const DECIMALS = 6;

/** Settings that not every group has, as they are written. */
export const SOMETIMES = [
  ["data-pulses-khz", "pulseKHz"],
  ["data-pulse-ns", "pulseNs"],
  ["data-dwell-ms", "dwellMs"],
  ["data-above-focus-mm", "aboveFocusMm"],
  ["data-passes", "passes"],
] as const satisfies readonly (readonly [string, keyof MarkingSettings])[];

/**
 * The whole file.
 *
 * @param marked whether its settings say how it is to be marked; a drawing that is cut by whatever suits the stock does not
 */
export function svgOf(piece: Piece, marked = true): string {
  const groups = piece.settings.map((settings) => group(piece, settings, marked));
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${number(piece.widthMm)}mm" height="${number(piece.heightMm)}mm" viewBox="0 0 ${number(piece.widthMm)} ${number(piece.heightMm)}">
<title>${escaped(piece.label)}</title>
${groups.join("\n")}
</svg>
`;
}

function group(piece: Piece, settings: MarkingSettings, marked: boolean): string {
  const scan = settings.scan
    ? ` data-row-pitch-mm="${number(settings.scan.rowPitchMm)}" data-direction="${settings.scan.direction}"`
    : "";
  const more = SOMETIMES.map(([name, key]) =>
    settings[key] === undefined ? "" : ` ${name}="${number(settings[key])}"`,
  );
  const pen = groupPen(piece, settings);
  const paths = [...strokesWith(piece, settings)];
  const how = ` data-use="${settings.use}" data-speed-mm-per-s="${number(settings.speedMmPerS)}" data-power-percent="${number(settings.powerPct)}" data-run-up-mm="${number(settings.runUpMm)}"${more.join("")}${scan}`;
  return `<g id="${escaped(settings.id)}" data-label="${escaped(settings.label)}"${marked ? how : ""} fill="none" stroke="#000" stroke-width="${pen.widthMm}" stroke-dasharray="${pen.dashMm.join(" ") || "none"}">
${paths.map((p) => `<path d="${pathData(p, piece.heightMm)}"/>`).join("\n")}
</g>`;
}

function pathData(path: Stroke, heightMm: number): string {
  const points = path.points.map((p) => `${number(p.x)} ${number(heightMm - p.y)}`);
  return `M${points.join("L")}${path.closed ? "Z" : ""}`;
}

function number(value: number): string {
  return plain(value, DECIMALS).replace("−", "-");
}

function escaped(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}
