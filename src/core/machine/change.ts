/** What can happen to a machine that may make invalid what was measured on it. */
import { z } from "zod";
import type { MachineKind } from "./machine-kind";

const GANTRIES: readonly MachineKind[] = ["CO2 gantry", "diode gantry"];
const ALL: readonly MachineKind[] = [...GANTRIES, "galvo"];

/** `label` is chosen from, `happened` stands in reasons. */
export const CHANGES = {
  belt: change("belt changed or tightened", "the belt was changed or tightened", GANTRIES),
  motor: change("motor changed", "a motor was changed", GANTRIES),
  driver: change("motor driver changed", "a motor driver was changed", ALL),
  acceleration: change("acceleration changed", "the acceleration was changed", ALL),
  firmware: change("new firmware", "the controller got new firmware", ALL),
  mirrors: change("mirrors moved or cleaned", "the mirrors were moved or cleaned", ALL),
  tube: change("tube or source changed", "the tube or source was changed", ALL),
  supply: change("laser supply changed", "the supply of the laser was changed", ALL),
  gantry: change("gantry beam shifted", "the beam of the gantry was shifted", GANTRIES),
  head: change("head mounted or turned", "the head was mounted or turned", ["galvo"]),
  thickness: change("stock of another thickness", "stock of another thickness is used", ["galvo"]),
  home: change("home switch moved", "a home switch was moved", GANTRIES),
  bed: change("bed moved", "the bed was moved", ALL),
} as const;

export type ChangeKind = keyof typeof CHANGES;
export const changeKindSchema = z.enum(Object.keys(CHANGES) as [ChangeKind, ...ChangeKind[]]);

function change(label: string, happened: string, kinds: readonly MachineKind[]) {
  return { label, happened, kinds };
}

/** What can happen to a machine of this kind. */
export function changesOn(kind: MachineKind): ChangeKind[] {
  return changeKindSchema.options.filter((change) => CHANGES[change].kinds.includes(kind));
}
