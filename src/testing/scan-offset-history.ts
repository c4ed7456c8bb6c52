/** Histories for tests, made from staggers as if they had been read. Readings are constructed, not simulated. */

import type { MachineSpec } from "../core/machine/machine-spec";
import type { Gauge } from "../core/metrology/gauge";
import { ENDS, gapSiteId, REFERENCE_SITES, type RowEnd, siteId } from "../core/procedures/scan-offset/coupon";
import { SCAN_OFFSET, type ScanOffsetPlan } from "../core/procedures/scan-offset/plan";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import type { SettingsInForce, SettingTable } from "../core/settings/setting";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";
import type { History, RoundRecord } from "../core/trial/history";
import type { PlanContext } from "../core/trial/plan-form";
import { SAMPLE_MACHINE } from "./sample-machine";

export const TEST_GAUGE: Gauge = {
  id: "calipers",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0.02,
  placing: { sdMm: 0.01, relativeDoubt: 0.5 },
};

export const table = (rows: [number, number][] = []): SettingTable => ({
  shape: "table",
  rows: rows.map(([at, value]) => ({ at, value })),
});

export type Read = {
  /** Stagger at both ends, mm, by speed; a pair where the ends differ. */
  staggers: Record<number, number | { left: number; right: number }>;
  reference?: number;
  purpose?: RoundRecord["purpose"];
  inForce?: SettingTable | null;
  way?: ScanOffsetPlan["way"];
  repeats?: number;
  /** Gaps to the outlines, mm, by speed. */
  gaps?: Record<number, Gaps>;
  /** What the controller stores of the shift of scanned rows, by key. */
  shiftInForce?: SettingsInForce;
};

/** By end and direction of the rows: `gaps.left.right` is the left gap of right-going rows. */
export type Gaps = Record<RowEnd, Record<RowEnd, number>>;

/** One round in which every site was read three times, a little apart so that there is scatter. */
export function readAs(read: Read, n = 1, machine: MachineSpec = SAMPLE_MACHINE): RoundRecord<ScanOffsetPlan> {
  const speeds = Object.keys(read.staggers).map(Number);
  const context: PlanContext = { machine, couponCode: "T-1", inForce: {} };
  const plan: ScanOffsetPlan = {
    ...scanOffset.plan(context).defaults,
    speedsMmPerS: speeds,
    repeats: read.repeats ?? 3,
    way: read.way ?? "closed blocks",
    outline: read.gaps ? "each block" : "none",
  };
  const answers: Answer[] = speeds.flatMap((v) => {
    const s = read.staggers[v] ?? 0;
    const ends = typeof s === "number" ? { left: s, right: s } : s;
    return [
      ...three(siteId(v, "left"), ends.left, plan.repeats, n),
      ...three(siteId(v, "right"), ends.right, plan.repeats, n),
    ];
  });
  for (const [v, gaps] of Object.entries(read.gaps ?? {}))
    for (const end of ENDS)
      for (const going of ENDS) answers.push(...three(gapSiteId(Number(v), end, going), gaps[end][going], 1, n));
  const { reference } = read;
  if (reference !== undefined)
    answers.push(...Object.values(REFERENCE_SITES).flatMap((site) => three(site, reference, plan.repeats, n)));
  return {
    n,
    purpose: read.purpose ?? "measure",
    plan,
    spec: scanOffset.round(plan, context, read.purpose ?? "measure"),
    inForce: { [SCAN_OFFSET]: read.inForce === undefined ? table() : read.inForce, ...read.shiftInForce },
    answers,
  };
}

export function historyOf(
  rounds: RoundRecord<ScanOffsetPlan>[],
  more: Partial<History<ScanOffsetPlan>> = {},
): History<ScanOffsetPlan> {
  return {
    rounds,
    gauges: [TEST_GAUGE],
    available: [TEST_GAUGE],
    machine: SAMPLE_MACHINE,
    tolerance: 0.05,
    decisions: {},
    ...more,
  };
}

function three(site: string, value: number, repeats: number, round: number): Answer[] {
  const spread = [0, 0.006, -0.006];
  return Array.from({ length: repeats }, (_, i) => ({
    site,
    content: { status: "read", value: { kind: "quantity", value: value + (spread[i % 3] ?? 0) } },
    u: null,
    gauge: TEST_GAUGE.id,
    session: String(round),
    shares: PLAIN_SHARES,
    from: "typed",
  }));
}
