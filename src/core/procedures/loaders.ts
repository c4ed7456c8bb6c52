/**
 * The procedures one by one, for where each weighs: the page of a trial loads the one that it shows.
 *
 * By their ids. A test holds them against the registry.
 */
import type { AnyProcedure } from "./contract";

export const LOADERS: Readonly<Record<string, () => Promise<AnyProcedure>>> = {
  "axis-scale": () => import("./axis-scale/procedure").then((m) => m.axisScale),
  "bed-tilt": () => import("./bed-tilt/procedure").then((m) => m.bedTilt),
  "fixture-stops": () => import("./fixture-stops/procedure").then((m) => m.fixtureStops),
  focus: () => import("./focus/procedure").then((m) => m.focus),
  kerf: () => import("./kerf/procedure").then((m) => m.kerf),
  rotary: () => import("./rotary/procedure").then((m) => m.rotary),
  "scan-offset": () => import("./scan-offset/procedure").then((m) => m.scanOffset),
  squareness: () => import("./squareness/procedure").then((m) => m.squareness),
  origin: () => import("./origin/procedure").then((m) => m.origin),
  "made-up": () => import("./made-up/procedure").then((m) => m.madeUp),
};
