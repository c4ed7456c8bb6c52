/** What was read of a bed. */
import { mean, pooled } from "../../fitting/repeats";
import type { Measured } from "../../metrology/measured";
import { quantitiesAt } from "../answer";
import type { History, RoundRecord } from "../contract";
import type { MachineSpec } from "../machine-spec";
import { type Place, placesOf, supportsOf } from "./places";
import type { BedTiltPlan } from "./plan";
import { type BedPlane, bedPlane, type ReadPlace } from "./plane";

/** How a place is found again, mm, before anybody came to one twice, and what that is worth. (common practice, no source) */
const EYE = { sd: 0.1, freedom: 2 };

export type BedRead = {
  places: (Place & { read: number[] })[];
  plane: BedPlane;
  /** How much each support is to be raised, so that all are as high as the highest. */
  lifts: { support: Place; lift: Measured }[];
  /** Standard uncertainty of one reading. */
  sdMm: number;
  freedom: number;
};

/** A number that grows when the head goes away is larger where the bed is higher. */
function heightSense({ readAt }: BedTiltPlan): 1 | -1 {
  return readAt === "scale, closer" ? -1 : 1;
}

export function isCurved({ places }: BedTiltPlan, { kind }: Pick<MachineSpec, "kind">): boolean {
  return kind === "galvo" && places !== "3";
}

export function readBed({ machine }: History<BedTiltPlan>, { plan, answers }: RoundRecord<BedTiltPlan>): BedRead {
  const places = placesOf(plan, machine).map((p) => ({ ...p, read: quantitiesAt(answers, p.id) }));
  const { sd, freedom } = pooled(
    places.map((p) => p.read),
    EYE,
  );
  const sdMm = Math.hypot(sd, plan.settableMm / Math.sqrt(12));
  const known = places.flatMap(({ x, y, read }): ReadPlace[] =>
    read.length > 0 ? [{ x, y, z: heightSense(plan) * mean(read), u: sdMm / Math.sqrt(read.length) }] : [],
  );
  const plane = bedPlane(known, isCurved(plan, machine), freedom);
  return {
    places,
    plane,
    lifts: plane.status === "solved" ? liftsOf(plane, supportsOf(plan, machine)) : [],
    sdMm,
    freedom,
  };
}

function liftsOf(
  { difference }: Extract<BedPlane, { status: "solved" }>,
  supports: readonly Place[],
): BedRead["lifts"] {
  const [first] = supports;
  if (!first) return [];
  const highest = supports.reduce((best, s) => (difference(best, s).value > 0 ? s : best), first);
  return supports.map((support) => ({ support, lift: difference(support, highest) }));
}
