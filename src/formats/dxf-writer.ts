/**
 * A piece as DXF in mm: a layer a set of marking settings, light polylines, Y up as on the coupon.
 *
 * [Autodesk DXF Reference, R2000 group codes; $INSUNITS 4 = mm]
 */
import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from "@tarikjabiri/dxf";
import type { Piece } from "../core/coupon/piece";
import { strokesWith } from "../core/coupon/strokes";
import type { DxfText } from "./dxf-parser";

const WHITE_OR_BLACK = 7;
/** Half a nanometre of rounding. */
const DECIMALS = 6;

export function dxfOf(piece: Piece): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const settings of piece.settings) {
    dxf.addLayer(layerName(settings.id), WHITE_OR_BLACK, "Continuous");
    dxf.setCurrentLayerName(layerName(settings.id));
    for (const stroke of strokesWith(piece, settings))
      dxf.addLWPolyline(
        stroke.points.map((p) => ({ point: point2d(rounded(p.x), rounded(p.y)) })),
        { flags: stroke.closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
      );
  }
  return dxf.stringify();
}

/** Lines and texts by layer, in mm; the layers in their order. */
export type LayeredDrawing = {
  layers: readonly string[];
  paths: readonly { layer: string; closed: boolean; points: readonly { x: number; y: number }[] }[];
  texts: readonly DxfText[];
};

export function dxfOfLayers({ layers, paths, texts }: LayeredDrawing): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const all = [...new Set([...layers, ...paths.map((p) => p.layer), ...texts.map((t) => t.layer)])];
  for (const layer of all) {
    const name = layerName(layer);
    if (name !== "0") dxf.addLayer(name, WHITE_OR_BLACK, "Continuous");
    dxf.setCurrentLayerName(name);
    for (const path of paths.filter((p) => p.layer === layer))
      dxf.addLWPolyline(
        path.points.map((p) => ({ point: point2d(rounded(p.x), rounded(p.y)) })),
        { flags: path.closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
      );
    for (const { at, heightMm, text, turnDeg } of texts.filter((t) => t.layer === layer))
      dxf.addText(point3d(rounded(at.x), rounded(at.y), 0), rounded(heightMm), text, { rotation: rounded(turnDeg) });
  }
  return dxf.stringify();
}

/** Layer names hold no characters that the format keeps for itself. */
export function layerName(settingsId: string): string {
  return settingsId.replace(/[<>/\\":;?*|=`,]/g, "_");
}

function rounded(value: number): number {
  return Number(value.toFixed(DECIMALS));
}
