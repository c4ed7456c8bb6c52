/** In which file a machine takes a coupon. */
import type { MachineKind } from "./machine-spec";

/** A galvo takes drawings whose groups carry their marking settings; a gantry takes RS-274. (common practice, no source) */
export function burnFileOf(kind: MachineKind): "drawing" | "g-code" {
  return kind === "galvo" ? "drawing" : "g-code";
}
