/** A burn of a field, whichever way it is measured: the stock in the middle of the field, at its focus height. */
import type { CouponPath, MarkingSettings, Piece } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import type { Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { burnedAtFocus } from "./focus-height";
import type { Vector } from "./map";
import type { FieldPlan } from "./plan";

type Burn = {
  id: string;
  settings: MarkingSettings;
  paths: CouponPath[];
  sites: Site[];
  delivery: string;
  /** Lines of the checklist for this way alone. */
  checks: string[];
};

export function fieldBurn(plan: FieldPlan, context: PlanContext, purpose: Purpose, burn: Burn): RoundSpec {
  const { machine, couponCode } = context;
  const { fieldMm, stockMm } = plan;
  const piece: Piece = {
    id: burn.id,
    label: `Field, coupon ${couponCode}`,
    stock: `flat stock ${plain(fieldMm)} × ${plain(fieldMm)}, ${plain(stockMm)} thick`,
    widthMm: fieldMm,
    heightMm: fieldMm,
    settings: [burn.settings],
    paths: burn.paths,
  };
  return {
    pieces: [piece],
    placement: { xMm: (machine.widthMm - fieldMm) / 2, yMm: (machine.depthMm - fieldMm) / 2 },
    program: [
      { kind: "tell", text: "Lay flat stock in the middle of the field. Hold it down: it must not bend." },
      burnedAtFocus(plan),
      { kind: "mark", piece: burn.id, settings: burn.settings.id },
    ],
    sites: burn.sites,
    delivery: burn.delivery,
    checklist: [
      eyewearLine(machine),
      `Use stock of ${plain(stockMm)} mm. The result is valid for this thickness only.`,
      "Switch off any correction of the drawing in the program that sends it.",
      ...burn.checks,
      ...(purpose === "measure" ? [] : ["Check that every new setting is in the controller."]),
    ],
  };
}

/** From the middle of the field to the coupon, which is as large as the working field. */
export function onCoupon({ x, y }: Vector, { fieldMm }: Pick<FieldPlan, "fieldMm">): CouponPoint {
  return { x: x + fieldMm / 2, y: y + fieldMm / 2 };
}

/** Coupon code and day, as burned on the coupon. */
export function signatureText({ couponCode, day }: PlanContext): string {
  return [couponCode, ...(day ? [day] : [])].join(" ");
}
