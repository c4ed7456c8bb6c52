/** Asks as coupons make them, and what they want of a gauge: without the schemas, which pages need not load. */
import type { Ask } from "./site";

type SignWords = Extract<Ask, { kind: "quantity" }>["signedBy"];

/** A length between jaws. @param of.plausibleUpTo mm; beyond it the person is asked once whether it is right */
export function lengthAsk(of: { plausibleUpTo: number; jaws?: "outside" | "inside"; signedBy?: SignWords }): Ask {
  return { kind: "quantity", dimension: "length", signedBy: null, jaws: "outside", ...of };
}

/** A length that the machine shows, or an engraved scale. @param of.stepMm in which it is shown */
export function readoutAsk({ plausibleUpTo, stepMm }: { plausibleUpTo: number; stepMm: number }): Ask {
  return {
    kind: "quantity",
    dimension: "length",
    signedBy: null,
    jaws: "outside",
    plausibleUpTo,
    atMachine: { step: stepMm },
  };
}

/** Whether a gauge is needed for it; everything else is said by eye, or read where the machine shows it. */
export function isMeasured(ask: Ask): boolean {
  if (ask.kind === "quantity") return ask.atMachine === undefined;
  return ask.kind === "pair" || ask.kind === "points" || ask.kind === "vector";
}

/** Whether the number is read where the machine shows it. */
export function isShownAtMachine({ ask }: { ask: Ask }): boolean {
  return ask.kind === "quantity" && ask.atMachine !== undefined;
}
