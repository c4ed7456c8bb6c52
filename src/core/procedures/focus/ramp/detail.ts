/** The close-up: the plate from the side and the line on it, widest or faint away from focus. */
import { ASKED, at, INK, line, mark, type Pen } from "../../../drawing/close-up";
import type { Detail } from "../../../drawing/scene";
import type { Focus, History } from "../../../trial/history";
import type { RampPlan } from "../plan";
import { FIRST_SITE, LAST_SITE, THINNEST_SITE } from "./coupon";

const RADIUS = 3.4;
const SCALE: Pen = { tone: "faint" };
/** How wide the line looks along the plate, from low to high. */
const WIDTHS = [0, 0, 0.5, 0.42, 0.3, 0.2, 0.3, 0.42, 0.5, 0, 0];
const POINTED: Readonly<Record<string, number>> = { [FIRST_SITE]: 2, [THINNEST_SITE]: 5, [LAST_SITE]: 8 };

export function detailOf(history: History<RampPlan>, focus: Focus): Detail | null {
  const site = history.rounds.at(-1)?.spec.sites.find((s) => s.id === focus.site);
  if (!site) return null;
  const pitch = (2 * RADIUS) / WIDTHS.length;
  const x = (i: number) => -RADIUS + (i + 0.5) * pitch;
  const burned = WIDTHS.flatMap((width, i) =>
    width > 0 ? [mark(at(x(i) - pitch / 2, 0), at(x(i) + pitch / 2, 0), width)] : [],
  );
  const ticks = WIDTHS.map((_, i) => line(at(x(i), 0.6), at(x(i), 1.1), SCALE));
  const asked = POINTED[site.id];
  return {
    title: `Detail, ${site.label.toLowerCase()}`,
    note: asked === undefined ? "between the ticks, across the line" : "not to scale: low end left, high end right",
    radius: RADIUS,
    strip: { low: -2.4, high: 1.5 },
    primitives: [
      ...burned,
      ...ticks,
      line(at(-RADIUS, -2.4), at(RADIUS, -2.4), SCALE),
      line(at(-RADIUS, -2.4), at(RADIUS, -1.2), INK),
      ...(asked === undefined ? [] : [line(at(x(asked), -0.5), at(x(asked), 1.5), ASKED)]),
    ],
  };
}
