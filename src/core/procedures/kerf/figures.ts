/** Mates: how each went in by its offset. Sizes: the kerf that each of them tells. */
import type { XyFigure } from "../../drawing/figure";
import { coverageFactor } from "../../fitting/student-t";
import { expandedUncertainty } from "../../metrology/measured";
import { fromInternal, type LengthUnit } from "../../metrology/units";
import type { KerfFound } from "./found";
import { cutSideMm } from "./layout";
import type { KerfPlan } from "./plan";
import type { MatesRead } from "./read-mates";

/** @param odd points whose judgement contradicts the others */
export function figuresOf(plan: KerfPlan, found: KerfFound, odd: ReadonlySet<string>, unit: LengthUnit): XyFigure[] {
  return found.mates ? [matesFigure(found, found.mates, odd, unit)] : [sizesFigure(plan, found, unit)];
}

function matesFigure({ snug }: KerfFound, mates: MatesRead, odd: ReadonlySet<string>, unit: LengthUnit): XyFigure {
  const shown = (mm: number) => fromInternal(mm, unit);
  const reach = snug ? expandedUncertainty(snug) : 0;
  return {
    kind: "xy",
    id: "mates",
    title: "How they went in: 1 loose, 3 snug, 5 will not go",
    line: [],
    absent: null,
    x: { label: "offset per side", unit },
    y: { label: "fit", unit: "" },
    points: mates.judged.map((m) => ({
      x: shown(m.x),
      y: m.rank + 1,
      expanded: 0,
      state: odd.has(m.site) ? "suspect" : "good",
    })),
    span: snug ? { from: shown(snug.value - reach), to: shown(snug.value + reach), label: "snug" } : null,
  };
}

/** In the order in which they were read. */
function sizesFigure(plan: KerfPlan, { cuts }: KerfFound, unit: LengthUnit): XyFigure {
  const shown = (mm: number) => fromInternal(mm, unit);
  const side = cutSideMm(plan);
  const read = (cuts?.read ?? []).filter((r) => r.square?.face !== "bottom");
  const kerf = cuts?.kerf.quantity;
  const reach = kerf ? expandedUncertainty(kerf) : 0;
  const whole = (at: number) =>
    kerf ? { x: at, y: shown(kerf.value), low: shown(kerf.value - reach), high: shown(kerf.value + reach) } : null;
  return {
    kind: "xy",
    id: "sizes",
    title: "Kerf by each place, and of all",
    span: null,
    absent: null,
    x: { label: "place, in the order read", unit: "" },
    y: { label: "kerf", unit },
    points: read.map((r, i) => ({
      x: i + 1,
      y: shown(r.square ? (r.square.of === "part" ? side - r.mean : r.mean - side) : r.mean / plan.cuts),
      expanded: shown((coverageFactor(Infinity) * r.u) / (r.square ? 1 : plan.cuts)),
      state: "good",
    })),
    line: [whole(1), whole(read.length)].filter((p) => p !== null),
  };
}
