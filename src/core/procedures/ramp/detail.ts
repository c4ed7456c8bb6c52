/** A small drawing of the strip with its scale and the typed point. */
import type { Detail, Primitive } from "../../drawing/scene";
import { settingText } from "../../marking/cell-settings";
import { plain } from "../../metrology/quantity-text";
import type { Focus, History } from "../../trial/history";
import type { RampPlan } from "./plan";
import { ticksOf, valueAt } from "./strip";

const RADIUS = 4;

/** The scale with the setting beside it, and the place that is typed. */
export function stripDetail({ rounds }: History<RampPlan>, { typed }: Focus): Detail | null {
  const plan = rounds.at(-1)?.plan;
  if (!plan) return null;
  const along = (s: number) => (1.5 * RADIUS * s) / plan.lengthMm - 0.75 * RADIUS;
  const stroke = (points: { x: number; y: number }[], tone: Primitive["tone"], isHeavy = false): Primitive => ({
    kind: "stroke",
    points,
    closed: points.length > 2,
    weight: isHeavy ? "heavy" : "thin",
    widthMm: 0,
    dashed: false,
    tone,
  });
  const [low, high] = [-0.5, 0.5];
  const isTyped = typed !== null && typed >= 0 && typed <= plan.lengthMm;
  const ends = [
    { x: along(0), y: low },
    { x: along(plan.lengthMm), y: low },
    { x: along(plan.lengthMm), y: high },
    { x: along(0), y: high },
  ];
  const ticks = ticksOf(plan).flatMap(({ s, number }): Primitive[] =>
    number
      ? [
          stroke(
            [
              { x: along(s), y: low },
              { x: along(s), y: low - 0.3 },
            ],
            "ink",
          ),
        ]
      : [],
  );
  const text = (s: number, what: string, y: number): Primitive => ({
    kind: "text",
    at: { x: along(s), y },
    text: what,
    anchor: "middle",
    size: 1,
    tone: "ink",
  });
  const value = (s: number) => settingText(plan.varied, Number(valueAt(plan, s).toFixed(1)));
  return {
    title: isTyped ? `${plain(typed)} mm is ${value(typed)}` : "The strip",
    note: `0 mm is ${value(0)}, ${plain(plan.lengthMm)} mm is ${value(plan.lengthMm)}`,
    radius: RADIUS,
    primitives: [
      stroke(ends, "ink"),
      ...ticks,
      text(0, "0", low - 1),
      text(plan.lengthMm, plain(plan.lengthMm), low - 1),
      ...(isTyped
        ? [
            stroke(
              [
                { x: along(typed), y: low - 0.5 },
                { x: along(typed), y: high + 0.8 },
              ],
              "needs you",
              true,
            ),
          ]
        : []),
    ],
  };
}
