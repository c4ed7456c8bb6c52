/**
 * The procedures one by one, for where each weighs: the page of a trial loads the one that it shows.
 *
 * By their ids. A test holds them against the registry.
 */
import type { AnyProcedure } from "./contract";

export const LOADERS: Readonly<Record<string, () => Promise<AnyProcedure>>> = {
  "bed-tilt": () => import("./bed-tilt/procedure").then((m) => m.bedTilt),
  focus: () => import("./focus/procedure").then((m) => m.focus),
  "scan-offset": () => import("./scan-offset/procedure").then((m) => m.scanOffset),
  "made-up": () => import("./made-up/procedure").then((m) => m.madeUp),
};
