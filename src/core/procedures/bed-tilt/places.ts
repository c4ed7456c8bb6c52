/** Where a bed is read and where it stands, seen from above, X to the right, Y away from the operator, mm. */
import type { MachineSpec } from "../../machine/machine-spec";
import type { BedTiltPlan } from "./plan";

export type Place = { id: string; label: string; x: number; y: number };
type Bed = Pick<MachineSpec, "widthMm" | "depthMm">;

const [LOW, MIDDLE, HIGH] = [0, 0.5, 1];
const named = (id: string, label: string, fx: number, fy: number) => ({ id, label, fx, fy });
const FRONT_LEFT = named("fl", "front left", LOW, LOW);
const FRONT_RIGHT = named("fr", "front right", HIGH, LOW);
const BACK_LEFT = named("bl", "back left", LOW, HIGH);
const BACK_RIGHT = named("br", "back right", HIGH, HIGH);
const BACK = named("bm", "back middle", MIDDLE, HIGH);
const CENTRE = named("mm", "the middle", MIDDLE, MIDDLE);
const FRONT = named("fm", "front middle", MIDDLE, LOW);
const LEFT = named("ml", "middle left", LOW, MIDDLE);
const RIGHT = named("mr", "middle right", HIGH, MIDDLE);

/** In the order in which they are gone to. */
const READ = {
  "3": [FRONT_LEFT, FRONT_RIGHT, BACK],
  "5": [FRONT_LEFT, FRONT_RIGHT, BACK_RIGHT, BACK_LEFT, CENTRE],
  "9": [FRONT_LEFT, FRONT, FRONT_RIGHT, RIGHT, BACK_RIGHT, BACK, BACK_LEFT, LEFT, CENTRE],
} as const;
const STANDS = {
  four: [FRONT_LEFT, FRONT_RIGHT, BACK_LEFT, BACK_RIGHT],
  three: [FRONT_LEFT, FRONT_RIGHT, BACK],
} as const;

export function placesOf({ places, insetMm }: Pick<BedTiltPlan, "places" | "insetMm">, bed: Bed): Place[] {
  return READ[places].map((p) => at(p, insetMm, bed));
}

export function supportsOf(
  { supports, supportInsetMm }: Pick<BedTiltPlan, "supports" | "supportInsetMm">,
  bed: Bed,
): Place[] {
  return STANDS[supports].map((p) => at(p, supportInsetMm, bed));
}

function at({ id, label, fx, fy }: ReturnType<typeof named>, inset: number, { widthMm, depthMm }: Bed): Place {
  return { id, label, x: inset + fx * (widthMm - 2 * inset), y: inset + fy * (depthMm - 2 * inset) };
}
