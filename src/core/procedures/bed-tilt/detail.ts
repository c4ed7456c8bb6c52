/** The bed from above: where it is read, where it stands, and which way it leans. */
import { type At, at, outline, words } from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import { fixed } from "../../metrology/quantity-text";
import type { Focus, History } from "../../trial/history";
import { supportsOf } from "./places";
import type { BedTiltPlan } from "./plan";
import { readBed } from "./read-bed";

const RADIUS = 3.6;
const SIZE = 4.4;
/** Numbers stand inside, between the supports and the middle. */
const LABEL = { x: 0.55, y: 0.5 };

export function detailOf(history: History<BedTiltPlan>, { site }: Focus): Detail | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const { machine } = history;
  const { places, lifts } = readBed(history, round);
  const scale = SIZE / Math.max(machine.widthMm, machine.depthMm);
  const scaled = ({ x, y }: At) => ({
    x: (x - machine.widthMm / 2) * scale,
    y: (y - machine.depthMm / 2) * scale,
  });
  const corners = [
    { x: 0, y: 0 },
    { x: machine.widthMm, y: 0 },
    { x: machine.widthMm, y: machine.depthMm },
    { x: 0, y: machine.depthMm },
  ].map(scaled);
  const dots = places.map(
    (p): Primitive => ({
      kind: "highlight",
      at: scaled(p),
      radiusMm: p.id === site ? 0.36 : 0.2,
      sign: p.read.length > 0 ? "tick" : "ring",
      tone: p.id === site ? "needs you" : "data",
    }),
  );
  const labels = supportsOf(round.plan, machine).flatMap((s): Primitive[] => {
    const lift = lifts.find((l) => l.support.id === s.id)?.lift.quantity.value;
    if (lift === undefined) return [];
    const { x, y } = scaled(s);
    const text = lift < 0.005 ? "highest" : `+${fixed(lift, 2)}`;
    return [words(at(x * LABEL.x, y * LABEL.y), text, { tone: "needs you" })];
  });
  return {
    title: "The bed from above",
    note: "front below",
    radius: RADIUS,
    strip: { low: -SIZE / 2 - 0.4, high: SIZE / 2 + 0.4 },
    primitives: [outline(corners, { tone: "ink", dashed: true }), ...dots, ...labels],
  };
}
