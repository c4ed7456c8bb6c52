/**
 * The field of a lens in which work is done, and why it is not the number on the plate.
 *
 *   h = f theta,  theta = beam angle = twice the angle of the mirror;   side = 2 h        f = 290 mm, 20 degrees: h = 101.23 mm
 *
 * The number on a plate is the largest field that the lens can throw a beam into. Near its edge the spot grows, the power falls and the
 * error of the map is largest. (common practice, no source)
 */
import { plain } from "../metrology/quantity-text";

/** Beam angle that usual heads reach along each axis, rad. (common practice, no source) */
export const USUAL_BEAM_RAD = (20 * Math.PI) / 180;
/** Share of the largest field that keeps its edge out. (common practice, no source) */
const INSIDE = 0.95;

export type FieldLimit = { from: "angle" | "plate" | "controller"; sideMm: number; text: string };

/** From the middle of the field to where a beam of this angle falls, mm. */
export function fieldHeightMm(focalMm: number, beamRad: number): number {
  return focalMm * beamRad;
}

/** What each of lens, plate and controller allows, smallest first. */
export function fieldLimits(of: {
  focalMm: number | null;
  beamRad: number;
  plateMm: number | null;
  controllerMm: number;
}): FieldLimit[] {
  const limits: FieldLimit[] = [
    {
      from: "controller",
      sideMm: of.controllerMm,
      text: `The field of the machine page is ${plain(of.controllerMm, 1)} mm.`,
    },
  ];
  if (of.focalMm !== null) {
    const side = 2 * fieldHeightMm(of.focalMm, of.beamRad);
    const degrees = plain((of.beamRad * 180) / Math.PI, 1);
    limits.push({
      from: "angle",
      sideMm: side,
      text: `A beam angle of ${degrees}° and a focal length of ${plain(of.focalMm, 1)} mm reach ${plain(side, 1)} mm.`,
    });
  }
  if (of.plateMm !== null)
    limits.push({ from: "plate", sideMm: of.plateMm, text: `The plate of the lens says ${plain(of.plateMm, 1)} mm.` });
  return limits.sort((a, b) => a.sideMm - b.sideMm);
}

/** The field to calibrate, whole mm: the smallest of these, and where the plate is the limit, a little inside it. */
export function workingFieldMm(limits: readonly FieldLimit[]): number {
  const [smallest] = limits;
  const plate = limits.find((l) => l.from === "plate");
  const most = Math.min(smallest?.sideMm ?? Number.NaN, plate ? INSIDE * plate.sideMm : Infinity);
  return Math.floor(most);
}
