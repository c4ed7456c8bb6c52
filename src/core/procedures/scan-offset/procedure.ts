/** Scan offset: the delay of the beam when rows are burned in both directions, for each speed. */
import type { Site } from "../../coupon/site";
import type { Primitive } from "../../drawing/scene";
import { isUndecided, UNDECIDED } from "../../measuring/plain-course";
import { siteIsDone, sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { AXIS_SCALE } from "../axis-scale/setting";
import { defineProcedure } from "../contract";
import { checkPlan } from "./check-plan";
import { scanOffsetRound } from "./coupon";
import { detailOf } from "./detail";
import { observeStagger } from "./observe-line";
import { asSent } from "./own-compensation";
import { hasOutline, type ScanOffsetPlan } from "./plan";
import { planWarnings, scanOffsetPlan } from "./plan-faults";

import { judgeScanOffset, proofRound } from "./proof";
import { SCAN_SETTINGS, settingsOf } from "./setting";
import { solveScanOffset } from "./solve";

/** Stagger of neighbouring rows that is not seen in engraved work, mm. (common practice, no source) */
const DEFAULT_TOLERANCE_MM = 0.05;

/** From the end of the rows to its tick. */
const TICK_OUTWARD_MM = 2.6;

export const scanOffset = defineProcedure<ScanOffsetPlan>({
  id: "scan-offset",
  title: "Scan offset",
  summary: "Rows burned both ways end in line",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: SCAN_SETTINGS,
  needs: [
    { on: "setting", what: AXIS_SCALE.x, effect: "stale", why: "the axis scale was changed" },
    { on: "change", what: "belt", effect: "stale" },
    { on: "change", what: "motor", effect: "stale" },
    { on: "change", what: "driver", effect: "stale" },
    { on: "change", what: "acceleration", effect: "stale" },
    { on: "change", what: "firmware", effect: "stale" },
    { on: "change", what: "tube", effect: "check" },
    { on: "change", what: "supply", effect: "check" },
  ],
  tolerance: { default: DEFAULT_TOLERANCE_MM, unit: "mm", label: "Largest residual stagger" },
  recheck: { defaultDays: 180, why: "Belts stretch and bearings wear. Twice a year is usual." },
  plan: scanOffsetPlan,
  sets: settingsOf,
  actsFrom: (plan) => (plan.way === "own strokes" ? "ustrina" : "controller"),
  warnings: planWarnings,
  round: scanOffsetRound,
  asSent,
  checkPlan,
  observe: observeStagger,
  solve: solveScanOffset,
  next: nextRound,
  judge: judgeScanOffset,
  overlay: readTicks,
  detail: detailOf,
});

function nextRound(history: History<ScanOffsetPlan>, outcome: Outcome, verdict: Verdict | null): Next<ScanOffsetPlan> {
  const last = history.rounds.at(-1);
  if (!last) return { do: "stop", why: "Nothing is laid out yet." };
  const unread = sitesLeft(last.spec.sites, last.answers).map((s) => s.id);
  if (last.purpose === "check" && proofRound(history)) return afterCheck(history, verdict, last, unread);
  if (outcome.status !== "solved" || (last.purpose !== "proof" && unread.length === last.spec.sites.length))
    return {
      do: "read",
      sites: unread,
      why: outcome.status === "unsolvable" ? outcome.reason : "Read the coupon first.",
    };
  if (last.purpose === "proof" && proofRound(history)) return afterProof(history, verdict, last, unread);
  const way = last.plan.way === "bare strokes" && history.machine.scansBlocks ? "closed blocks" : last.plan.way;
  return {
    do: "round",
    purpose: "proof",
    plan: { ...last.plan, way },
    set: outcome.corrections.map((c) => c.setting),
    why: "Enter the new values, then burn the same coupon again. The rows should end in line.",
  };
}

/** A check that holds is the end; one that does not goes on to a correction from what it found. */
function afterCheck(
  { machine }: History<ScanOffsetPlan>,
  verdict: Verdict | null,
  last: RoundRecord<ScanOffsetPlan>,
  unread: string[],
): Next<ScanOffsetPlan> {
  if (unread.length > 0) return { do: "read", sites: unread, why: "Read the remaining points of the check." };
  if (verdict?.result === "proved") return { do: "stop", why: "Still valid. Change nothing." };
  if (verdict && isUndecided(verdict, last)) return { do: "read", sites: waySites(verdict), why: UNDECIDED };
  return {
    do: "round",
    purpose: "proof",
    plan: last.plan,
    set: settingsOf(last.plan, machine),
    why: "Correct with the results of the check, then burn a proof.",
  };
}

function waySites(verdict: Verdict): string[] {
  return verdict.ways[0]?.sites ?? [];
}

function afterProof(
  { machine }: History<ScanOffsetPlan>,
  verdict: Verdict | null,
  last: RoundRecord<ScanOffsetPlan>,
  unread: string[],
): Next<ScanOffsetPlan> {
  if (unread.length > 0) return { do: "read", sites: unread, why: "Read the remaining points of the proof." };
  if (verdict?.result === "proved") return { do: "stop", why: "Proved: the rows end in line." };
  if (verdict && isUndecided(verdict, last)) return { do: "read", sites: waySites(verdict), why: UNDECIDED };
  return {
    do: "round",
    purpose: "proof",
    plan: last.plan,
    set: settingsOf(last.plan, machine),
    why: "Correct with the results of this burn, then burn another proof.",
  };
}

/** A tick beside every end that is read, smaller where several stand together. */
function readTicks(history: History<ScanOffsetPlan>): Primitive[] {
  const round = history.rounds.at(-1);
  if (!round) return [];
  const radiusMm = hasOutline(round.plan) ? 0.8 : 1.2;
  return round.spec.sites.flatMap((site): Primitive[] => {
    if (!site.place || !siteIsDone(site, round.answers)) return [];
    const outward = isLeft(site) ? -TICK_OUTWARD_MM : TICK_OUTWARD_MM;
    const at = { x: site.place.at.x + outward, y: site.place.at.y };
    return [{ kind: "highlight", at, radiusMm, sign: "tick", tone: "proved" }];
  });
}

function isLeft({ id, measurand }: Site): boolean {
  return measurand.kind === "row gap" && measurand.rows.kind === "row ends"
    ? measurand.rows.end === "left"
    : id.endsWith("left");
}
