/** Whether a change is worth entering. */
import { expandedUncertainty } from "../fitting/student-t";
import type { Measured } from "../metrology/measured";
import type { CorrectionRow } from "./outcome";

/** Beyond its doubt and half of a step of the controller: yes. Within one step, doubt and all: no. */
export function worthOf(change: Measured, step: number): CorrectionRow["worth"] {
  const size = Math.abs(change.value);
  const expanded = expandedUncertainty(change);
  if (size > expanded && size > step / 2) return "yes";
  return size + expanded <= step ? "no" : "cannot tell";
}
