/** The close-up: the plate from the side and the line on it, widest or faint away from focus. */
import type { Detail, Primitive, Tone } from "../../../drawing/scene";
import type { Focus, History } from "../../../trial/history";
import type { RampPlan } from "../plan";
import { FIRST_SITE, LAST_SITE, THINNEST_SITE } from "./coupon";

const RADIUS = 3.4;
/** How wide the line looks along the plate, from low to high. */
const WIDTHS = [0, 0, 0.5, 0.42, 0.3, 0.2, 0.3, 0.42, 0.5, 0, 0];
const POINTED: Readonly<Record<string, number>> = { [FIRST_SITE]: 2, [THINNEST_SITE]: 5, [LAST_SITE]: 8 };

export function detailOf(history: History<RampPlan>, focus: Focus): Detail | null {
  const site = history.rounds.at(-1)?.spec.sites.find((s) => s.id === focus.site);
  if (!site) return null;
  const pitch = (2 * RADIUS) / WIDTHS.length;
  const x = (i: number) => -RADIUS + (i + 0.5) * pitch;
  const line = WIDTHS.flatMap((width, i) =>
    width > 0 ? [stroke(x(i) - pitch / 2, 0, x(i) + pitch / 2, 0, width, "ink")] : [],
  );
  const ticks = WIDTHS.map((_, i) => stroke(x(i), 0.6, x(i), 1.1, 0, "faint"));
  const at = POINTED[site.id];
  return {
    title: `Detail, ${site.label.toLowerCase()}`,
    note: at === undefined ? "between the ticks, across the line" : "not to scale: low end left, high end right",
    radius: RADIUS,
    strip: { low: -2.4, high: 1.5 },
    primitives: [
      ...line,
      ...ticks,
      stroke(-RADIUS, -2.4, RADIUS, -2.4, 0, "faint"),
      stroke(-RADIUS, -2.4, RADIUS, -1.2, 0, "ink"),
      ...(at === undefined ? [] : [stroke(x(at), -0.5, x(at), 1.5, 0, "needs you")]),
    ],
  };
}

function stroke(x0: number, y0: number, x1: number, y1: number, widthMm: number, tone: Tone): Primitive {
  return {
    kind: "stroke",
    closed: false,
    weight: widthMm > 0 ? "mark" : "thin",
    widthMm,
    dashed: false,
    tone,
    points: [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ],
  };
}
