/** Rows as Ustrina's own G-code sends them: each shifted against its direction of travel by the entry for its speed. */
import { settingsOf } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import type { MachineSpec } from "../../machine/machine-spec";
import { type SettingsInForce, tableValueAt } from "../../settings/setting";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan";

/** The spec with shifted rows for `own strokes`; the very same spec for every other way. */
export function asSent(
  spec: RoundSpec,
  plan: ScanOffsetPlan,
  inForce: SettingsInForce,
  machine: MachineSpec,
): RoundSpec {
  const table = inForce[SCAN_OFFSET];
  if (plan.way !== "own strokes" || table?.shape !== "table") return spec;
  const sense = machine.held[SCAN_OFFSET]?.sense ?? 1;
  return {
    ...spec,
    pieces: spec.pieces.map((piece) => ({
      ...piece,
      paths: piece.paths.map((path) => {
        const settings = settingsOf(piece, path.settings);
        const [from, to] = path.points;
        if (settings.use !== "rows" || !from || !to) return path;
        const entry = tableValueAt(table, settings.speedMmPerS, "interpolated") ?? 0;
        const earlier = -Math.sign(to.x - from.x) * sense * entry;
        return {
          ...path,
          points: path.points.map((p) => ({ x: p.x + earlier, y: p.y })),
        };
      }),
    })),
  };
}
