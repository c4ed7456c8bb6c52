/**
 * How well pictures of burned coupons are read: pictures drawn of the marks of practice machines, held against the marks themselves.
 *
 * Simulated errors: turn of the coupon, light that falls off, grain of the stock, blur, noise, dirt, scatter of row ends, scale of the
 * machine. The picture is drawn by what share of each pixel is covered; the reader fits smeared edges.
 */

import { burnFile } from "../../burning/practice-burn";
import { fitWidths } from "../../core/beam/width-fit";
import type { RoundSpec } from "../../core/coupon/round-spec";
import { scaleFromDpi } from "../../core/picture/picture-scale";
import { type PictureRead, readPicture } from "../../core/picture/read-picture";
import { widthSite } from "../../core/procedures/focus/ladder/coupon";
import { cellsOf, type LadderPlan } from "../../core/procedures/focus/plan";
import { focus } from "../../core/procedures/focus/procedure";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import type { Mark } from "../../practice/gantry";
import { trueValue } from "../../practice/measure";
import { practiceFromSeed } from "../../practice/practice-truth";
import { SCAN_LOOK, type ScanLook, type ScanPicture, scanPicture } from "../../practice/scan-picture";
import { SAMPLE_MACHINE } from "../sample-machine";
import { usualLadder } from "../usual-ladder";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };

export type Burned = { spec: RoundSpec; marks: readonly Mark[]; at: { xMm: number; yMm: number } };

/** One block of forty rows at one speed. */
export function burnedRows(seed: number, speedMmPerS: number): Burned {
  const { defaults } = scanOffset.plan(context);
  const plan = {
    ...defaults,
    speedsMmPerS: [speedMmPerS],
    rowsPerBlock: 40,
    rowPitchMm: 0.5,
    rowLengthMm: 20,
    stockWidthMm: 60,
    stockHeightMm: 52,
  };
  return burned(scanOffset.round(plan, context, "measure"), seed);
}

const LADDER: LadderPlan = { ...usualLadder(context), judged: "by widths", marks: "lines", stockHeightMm: 62 };

/** A ladder of cells of single lines. */
export function burnedLadder(seed: number): Burned {
  return burned(focus.round(LADDER, context, "measure"), seed);
}

/** Focus height by the widths of a ladder: as the picture shows them, and as they are. `null` where it is not solved. */
export function focusBoth(
  { spec, marks, at }: Burned,
  read: PictureRead,
): { seen: number | null; true: number | null } {
  if (!read.ok) throw new Error(read.why);
  const cells = cellsOf(LADDER).flatMap(({ number, heightMm: zMm }) => {
    const site = spec.sites.find((s) => s.id === widthSite(number));
    const seen = read.sites.find((s) => s.site === site?.id);
    const truth = site && trueValue(site.measurand, marks, at);
    if (seen?.ok && truth?.ok) return [{ zMm, seen: seen.value, u: seen.u, true: truth.value }];
    return seen && !seen.ok && seen.isBlank ? [{ zMm, seen: 0, u: 0, true: 0 }] : [];
  });
  const focusBy = (which: "seen" | "true") => {
    const fit = fitWidths(
      cells.map(({ zMm, u, ...of }) =>
        u > 0 ? { zMm, status: "marked" as const, widthMm: of[which], u } : { zMm, status: "unmarked" as const },
      ),
      1,
    );
    return fit.status === "solved" ? fit.z0.value : null;
  };
  return { seen: focusBy("seen"), true: focusBy("true") };
}

function burned(spec: RoundSpec, seed: number): Burned {
  // Straight axes: rows that are lost would leave rows of another mean height, and a lean would stand in their ends.
  const truth = { ...practiceFromSeed(seed, SAMPLE_MACHINE), axes: undefined, rowShift: undefined };
  const { name, gcode: dialect } = SAMPLE_MACHINE;
  const text = gcodeOf(spec, { couponCode: "T-1", machineName: name, dialect, bed: SAMPLE_MACHINE });
  const burn = burnFile(text, "T-1", SAMPLE_MACHINE, truth, { table: [], switchedOn: true }, spec);
  if (!burn.ok) throw new Error(burn.message);
  return { spec, marks: burn.marks, at: burn.corner };
}

export function pictureOf({ spec, marks, at }: Burned, look: Partial<ScanLook>, seed: number): ScanPicture {
  const [piece] = spec.pieces;
  if (!piece) throw new Error("nothing is burned");
  return scanPicture(marks, at, piece, { ...SCAN_LOOK, ...look }, seed);
}

export function readOf(
  { spec }: Burned,
  picture: { width: number; height: number; grey: Uint8Array },
  dpi: number,
): PictureRead {
  const [piece] = spec.pieces;
  if (!piece) throw new Error("nothing is burned");
  return readPicture(picture, piece, spec.sites, scaleFromDpi(dpi, dpi));
}

export type SiteError = { site: string; error: number; u: number; note: string };

/** What was read at each site minus what the marks are, mm. @throws Error when the coupon was not found */
export function siteErrors({ spec, marks, at }: Burned, read: PictureRead): SiteError[] {
  if (!read.ok) throw new Error(read.why);
  return read.sites.flatMap((seen) => {
    const site = spec.sites.find((s) => s.id === seen.site);
    const truth = site && trueValue(site.measurand, marks, at);
    if (!truth?.ok || !seen.ok) return [];
    return [{ site: seen.site, error: seen.value - truth.value, u: seen.u, note: seen.note }];
  });
}

export function rms(errors: readonly SiteError[]): number {
  return Math.sqrt(errors.reduce((sum, e) => sum + e.error ** 2, 0) / errors.length);
}
