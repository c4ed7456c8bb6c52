import type { MachineKind } from "./machine-spec";

/** A kind of machine as a person reads it: `CO₂ gantry`. */
export function kindText(kind: MachineKind): string {
  return kind.replace("CO2", "CO₂");
}
