/** The height at which a field is burned: it belongs to the field. */
import type { Op } from "../../coupon/program";
import { plain } from "../../metrology/quantity-text";
import type { FieldPlan } from "./plan";

export function burnedAtFocus({ heightMm }: Pick<FieldPlan, "heightMm">): Op {
  return heightMm
    ? { kind: "set height", zMm: heightMm, by: "hand", text: `Set the height to ${plain(heightMm, 2)} mm.` }
    : { kind: "tell", text: "Set the head to its focus height above the top face of the stock." };
}
