import type { TrialView } from "../../../server/trial/trial-view";

/** What stands in the corner of every drawing of a trial. */
export function titleBlock(view: TrialView, title: string, couponCode: string, delivery: string): string[] {
  return [
    `${title} · coupon ${couponCode}`,
    [view.machine.name, view.optic ? `optic ${view.optic}` : ""].filter(Boolean).join(" · "),
    delivery,
  ];
}
