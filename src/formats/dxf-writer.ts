/**
 * A piece as DXF in mm: a layer a set of marking settings, light polylines, Y up as on the coupon.
 *
 * [Autodesk DXF Reference, R2000 group codes; $INSUNITS 4 = mm]
 */
import { DxfWriter, LWPolylineFlags, point2d, Units } from "@tarikjabiri/dxf";
import type { Piece } from "../core/coupon/piece";
import { strokesWith } from "../core/coupon/strokes";

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

/** Layer names hold no characters that the format keeps for itself. */
export function layerName(settingsId: string): string {
  return settingsId.replace(/[<>/\\":;?*|=`,]/g, "_");
}

function rounded(value: number): number {
  return Number(value.toFixed(DECIMALS));
}
