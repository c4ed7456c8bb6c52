/** Which axes are measured: both, or one alone. */
import type { Axis } from "../machine/machine-kind";
import { field, type When } from "../trial/plan-field";

const AXES_CHOSEN = { "X and Y": "X and Y", X: "X alone", Y: "Y alone" } as const;

export type AxesChosen = { axes: keyof typeof AXES_CHOSEN };

/** Asks which axes are measured. @param group of the form */
export function axesField(group: string) {
  return field.choice(AXES_CHOSEN, { label: "Axes", group, usual: "X and Y" });
}

/** Fields of one axis count only if it is measured. */
export const WITH_X: When = { field: "axes", is: ["X and Y", "X"] };
export const WITH_Y: When = { field: "axes", is: ["X and Y", "Y"] };

/** X before Y. */
export function axesOf({ axes }: AxesChosen): Axis[] {
  return axes === "X and Y" ? ["x", "y"] : axes === "X" ? ["x"] : ["y"];
}
