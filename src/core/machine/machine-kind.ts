/** Kinds of machine and their axes, without the schemas: pages that only name them load no more than this. */

export const MACHINE_KINDS = ["CO2 gantry", "diode gantry", "galvo"] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

/** The two axes along which a machine moves: X to the right, Y away from the operator. */
export const AXES = ["x", "y"] as const;
export type Axis = (typeof AXES)[number];

/** A kind of machine as a person reads it: `CO₂ gantry`. */
export function kindText(kind: MachineKind): string {
  return kind.replace("CO2", "CO₂");
}

/** A galvo takes drawings whose groups carry their marking settings; a gantry takes RS-274. (common practice, no source) */
export function burnFileOf(kind: MachineKind): "drawing" | "g-code" {
  return kind === "galvo" ? "drawing" : "g-code";
}
