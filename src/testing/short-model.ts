/** Short models for tests. */
import type { Observation, Row } from "../core/estimate/model";

/** A plain reading of one gauge. */
export function reading(
  id: string,
  { row, y, u, point = id, typed = y }: { row: Row; y: number; u: number; point?: string; typed?: number },
): Observation {
  return {
    id,
    label: `the ${id}`,
    row,
    y,
    u,
    source: { id: "placing", label: "Repeatability", kind: "A" },
    group: "gauge",
    reading: {
      point,
      pointLabel: `the ${point}`,
      repeat: 0,
      gauge: "calipers",
      gaugeLabel: "calipers",
      session: "1",
      typed,
      per: 1,
      sizeSign: 1,
      signedByWords: true,
    },
    canBeWrong: true,
  };
}
