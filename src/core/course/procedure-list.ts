/**
 * The procedures there are, in the order in which they are done in practice; what is done rarely comes last. A line each: the registry and
 * the pages, which load the one that they show, come from this list.
 */
import type { AnyProcedure } from "../procedures/contract";

export type ListedProcedure = { id: string; load: () => Promise<AnyProcedure> };

export const PROCEDURE_LIST: readonly ListedProcedure[] = [
  { id: "orientation", load: () => import("../procedures/orientation/procedure").then((m) => m.orientation) },
  { id: "focus", load: () => import("../procedures/focus/procedure").then((m) => m.focus) },
  { id: "field", load: () => import("../procedures/field/procedure").then((m) => m.galvoField) },
  { id: "head-turn", load: () => import("../procedures/head-turn/procedure").then((m) => m.headTurn) },
  { id: "axis-scale", load: () => import("../procedures/axis-scale/procedure").then((m) => m.axisScale) },
  { id: "scan-offset", load: () => import("../procedures/scan-offset/procedure").then((m) => m.scanOffset) },
  { id: "test-array", load: () => import("../procedures/test-array/procedure").then((m) => m.testArray) },
  { id: "ramp", load: () => import("../procedures/ramp/procedure").then((m) => m.ramp) },
  { id: "kerf", load: () => import("../procedures/kerf/procedure").then((m) => m.kerf) },
  { id: "rotary", load: () => import("../procedures/rotary/procedure").then((m) => m.rotary) },
  { id: "bed-tilt", load: () => import("../procedures/bed-tilt/procedure").then((m) => m.bedTilt) },
  { id: "squareness", load: () => import("../procedures/squareness/procedure").then((m) => m.squareness) },
  { id: "origin", load: () => import("../procedures/origin/procedure").then((m) => m.origin) },
  { id: "fixture-stops", load: () => import("../procedures/fixture-stops/procedure").then((m) => m.fixtureStops) },
];
