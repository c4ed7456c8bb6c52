/** What makes which result stale or due for a check, as a table for the documents: made from the needs of the procedures. */
import { CHANGES, type ChangeKind, changeKindSchema } from "../machine/change";
import { type Effect, type Need, reasonOf, WHY } from "../machine/need";
import type { AnyProcedure } from "../procedures/contract";

type Stands = Pick<AnyProcedure, "title" | "needs" | "stock">;

const EFFECT_WORDS: Record<Effect, string> = { stale: "stale", check: "check due" };

/** Markdown; one row for each thing that can change, one column for each procedure. */
export function staleTable(procedures: readonly Stands[]): string {
  const rows = [
    ...changeKindSchema.options.map((kind) => row(CHANGES[kind].happened, procedures, (n) => isChange(n, kind))),
    ...settingReasons(procedures).map((why) => row(why, procedures, (n) => n.on === "setting" && n.why === why)),
    row(WHY.otherOptic, procedures, (n) => n.on === "optic"),
    known(WHY.knownOptic, procedures, "optic"),
    row(WHY.otherRotary, procedures, (n) => n.on === "rotary"),
    known(WHY.knownRotary, procedures, "rotary"),
    [WHY.newBatch, ...procedures.map((p) => effectText(p.stock ? "check" : undefined))],
    [WHY.ownEntry, ...procedures.map(() => EFFECT_WORDS.stale)],
    [WHY.gauge, ...procedures.map(() => EFFECT_WORDS.stale)],
    ["the recheck interval of the machine is over", ...procedures.map(() => EFFECT_WORDS.check)],
  ];
  const head = ["After the proof", ...procedures.map((p) => p.title)];
  return [head, head.map(() => "---"), ...rows].map((cells) => `| ${cells.join(" | ")} |`).join("\n");
}

function isChange(need: Need, kind: ChangeKind): boolean {
  return need.on === "change" && need.what === kind;
}

function settingReasons(procedures: readonly Stands[]): string[] {
  return [...new Set(procedures.flatMap((p) => p.needs.flatMap((n) => (n.on === "setting" ? [reasonOf(n)] : []))))];
}

function row(what: string, procedures: readonly Stands[], is: (need: Need) => boolean): string[] {
  return [what, ...procedures.map((p) => effectText(p.needs.find(is)?.effect))];
}

function known(what: string, procedures: readonly Stands[], on: "optic" | "rotary"): string[] {
  return [what, ...procedures.map((p) => effectText(p.needs.some((n) => n.on === on) ? "check" : undefined))];
}

function effectText(effect: Effect | undefined): string {
  return effect ? EFFECT_WORDS[effect] : "–";
}
