/** The lines of a round that a person goes through at the machine. */
import type { RoundSpec } from "./round-spec";

/** What is looked after and done before anything is marked. */
export function beforeBurn({ checklist, program, setAside = [] }: RoundSpec): string[] {
  return [
    ...setAside.map(asideText),
    ...checklist,
    ...program.flatMap((op) => ("text" in op && op.kind !== "set height" ? [op.text] : [])),
  ];
}

/** Heights that a hand sets, one after the other. */
export function duringBurn({ program }: RoundSpec): string[] {
  return program.flatMap((op) => (op.kind === "set height" && op.by === "hand" ? [op.text] : []));
}

/** As it stands in the list of what is done before the burn. */
function asideText({ what, act }: NonNullable<RoundSpec["setAside"]>[number]): string {
  return act ?? `Set for this burn: ${what}. Restore it afterwards.`;
}
