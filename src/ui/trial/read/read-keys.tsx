import { isShownAtMachine } from "../../../core/coupon/ask";
import type { Ask } from "../../../core/coupon/site";
import { Kbd } from "../../primitives/kbd";

const PHRASES: [string, string] = ["Alt 1, Alt 2", "first, second phrase"];
const SEVERAL: [string, string] = [".29 .30 .29", "several readings in one line"];
const KEYS: [string, string][] = [
  ["Alt P, Alt N", "previous, next"],
  ["Alt R", "same place again"],
  ["Alt Z", "take back"],
];

/** The keys of the Read stage that stand on no button. */
export function ReadKeys({ ask, practice }: { ask: Ask; practice: boolean }) {
  const keys = [
    ...(ask.kind === "quantity" && ask.signedBy ? [PHRASES] : []),
    ...(ask.kind === "quantity" ? [SEVERAL] : []),
    ...KEYS,
    ...(practice ? [["Alt M", practiceWords(ask)] as [string, string]] : []),
  ];
  return (
    <p className="flex flex-wrap gap-x-4 gap-y-1 text-[16px] text-ink2 max-lg:hidden">
      {keys.map(([key, what]) => (
        <span key={key}>
          <Kbd>{key}</Kbd> {what}
        </span>
      ))}
    </p>
  );
}

function practiceWords(ask: Ask): string {
  if (ask.kind === "cells") return "look at the cells";
  return isShownAtMachine({ ask }) ? "read it on the practice machine" : "set the jaws";
}
