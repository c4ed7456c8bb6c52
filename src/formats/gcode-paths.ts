/** The burned geometry of a G-code program: the same stream that the drawing was made of. */
import type { MachinePoint } from "../core/geometry/frames";
import type { GcodeProgram } from "./gcode-parser";

export type BurnedPath = {
  points: MachinePoint[];
  speedMmPerS: number;
  power: number;
  scan: { rowPitchMm: number; direction: "both" | "right-going" } | null;
};

/** Joins consecutive moves with the beam on into paths; closed ones end where they began. */
export function burnedPaths(program: GcodeProgram): BurnedPath[] {
  const paths: BurnedPath[] = [];
  let open: BurnedPath | null = null;
  let scan: BurnedPath["scan"] = null;
  for (const step of program.steps) {
    if (step.kind === "scan begin") scan = { rowPitchMm: step.rowPitchMm, direction: step.direction };
    if (step.kind === "scan end") scan = null;
    if (step.kind !== "move" || step.power === 0) {
      open = null;
      continue;
    }
    if (!open || open.speedMmPerS !== step.feedMmPerS || open.power !== step.power) {
      open = { points: [step.from], speedMmPerS: step.feedMmPerS, power: step.power, scan };
      paths.push(open);
    }
    open.points.push(step.to);
  }
  return paths;
}
