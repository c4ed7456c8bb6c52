/** A round becomes burned: its layout is frozen, and what was set aside for it stays on the bench until it is put back. */
import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf } from "../../data/machines";
import { addToPutBack, toPutBackOf } from "../../data/put-back";
import { freezeRound, type Round } from "../../data/rounds";
import { Refusal } from "../refusal";
import type { FullTrial, LaidOut } from "./trial-record";

/** @throws Refusal where it is burned already */
export function freezeBurn(db: Db, { trial }: FullTrial, round: Round, frozen: LaidOut, now: number): void {
  if (!freezeRound(db, round.id, frozen, now)) throw new Refusal("round", "This round is burned already.");
  const open = toPutBackOf(db, trial.machineId).map((item) => item.what);
  for (const aside of frozen.spec.setAside ?? []) {
    if (open.includes(aside.what)) continue;
    addToPutBack(db, trial.machineId, aside.what, now, { roundId: round.id, ...keptOf(db, trial.machineId, aside) });
  }
}

/** What the controller held before, where it is a setting that is set otherwise. */
function keptOf(db: Db, machineId: number, { setting }: NonNullable<RoundSpec["setAside"]>[number]) {
  if (!setting) return { setting: null, ledgerEntryId: null };
  const controller = holdersOf(db, machineId).find((h) => h.role === "controller");
  const entry = entriesOf(db, ownerOfMachine(machineId)).find(
    (e) => e.undoneAt === null && e.setting === setting && e.holderId === controller?.id,
  );
  return { setting, ledgerEntryId: entry?.id ?? null };
}
