/**
 * A piece as SVG in true millimetres.
 *
 * One group a set of marking settings; the groups are told apart by line weight and dash, and carry their settings as
 * data attributes. Y runs down in SVG, so y = height - Y of the coupon.
 * [W3C SVG 1.1 (Second Edition), 7.10 units, 8.3 path data]
 */
import { groupPen } from "../core/coupon/group-pen";
import type { MarkingSettings, Piece } from "../core/coupon/piece";
import { type Stroke, strokesWith } from "../core/coupon/strokes";
import { groupAttributes, svgNumber } from "./svg-group";

/**
 * The whole file.
 *
 * @param marked whether its settings say how it is to be marked; a drawing that is cut by whatever suits the stock does not
 */
export function svgOf(piece: Piece, marked = true): string {
  const groups = piece.settings.map((settings) => group(piece, settings, marked));
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${svgNumber(piece.widthMm)}mm" height="${svgNumber(piece.heightMm)}mm" viewBox="0 0 ${svgNumber(piece.widthMm)} ${svgNumber(piece.heightMm)}">
<title>${escaped(piece.label)}</title>
${groups.join("\n")}
</svg>
`;
}

function group(piece: Piece, settings: MarkingSettings, marked: boolean): string {
  const pen = groupPen(piece, settings);
  const paths = [...strokesWith(piece, settings)];
  return `<g id="${escaped(settings.id)}" data-label="${escaped(settings.label)}"${marked ? groupAttributes(settings) : ""} fill="none" stroke="#000" stroke-width="${pen.widthMm}" stroke-dasharray="${pen.dashMm.join(" ") || "none"}">
${paths.map((p) => `<path d="${pathData(p, piece.heightMm)}"/>`).join("\n")}
</g>`;
}

function pathData(path: Stroke, heightMm: number): string {
  const points = path.points.map((p) => `${svgNumber(p.x)} ${svgNumber(heightMm - p.y)}`);
  return `M${points.join("L")}${path.closed ? "Z" : ""}`;
}

function escaped(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}
