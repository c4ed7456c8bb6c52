/** What was noticed while a kerf was read. */

import { AXES } from "../../machine/machine-kind";
import { USUAL_KERF_MM } from "../../measuring/beyond-machines";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, shownLength } from "../../metrology/quantity-text";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { KerfFound } from "./found";
import type { KerfPlan } from "./plan";

const { low: LEAST_MM, high: WIDE_MM } = USUAL_KERF_MM;

export function findingsOf(
  history: History<KerfPlan>,
  round: RoundRecord<KerfPlan>,
  found: KerfFound | null,
): Finding[] {
  const unit = lengthUnitOf(history);
  const note = (id: string, headline: string, text: string, site: string | null = null): Finding => ({
    id,
    headline,
    text,
    site,
    tone: "needs you",
  });
  const findings: Finding[] = [];
  if (!found) return findings;
  const { quantity } = found.kerf;
  if (quantity.value + expandedUncertainty(quantity) <= 0)
    findings.push(
      note(
        "negative",
        "The kerf is less than zero.",
        "Check that part and hole are not mixed up. Switch off the offset in every other program, and check the axis scale.",
      ),
    );
  else if (quantity.value > WIDE_MM)
    findings.push(
      note(
        "wide",
        `A kerf of ${shownLength(quantity.value, unit, 2)} is unusually wide.`,
        "Check the focus, the speed and the readings.",
      ),
    );
  else if (quantity.value < LEAST_MM)
    findings.push(
      note(
        "no cut",
        `A kerf of ${shownLength(Math.max(0, quantity.value), unit, 3)} is too small for a cut.`,
        "Check the readings, and that part and hole are not mixed up. Switch off the offset in every other program.",
      ),
    );
  const { cuts } = found;
  const crossed = AXES.filter((axis) => (cuts?.along[axis]?.quantity.value ?? LEAST_MM) < 0);
  if (quantity.value >= LEAST_MM && crossed.length > 0)
    findings.push(
      note(
        "mixed up",
        `Along ${crossed.map((axis) => axis.toUpperCase()).join(" and ")} the part is larger than the hole.`,
        "Check that part and hole are not mixed up. Measure both again.",
      ),
    );
  if (cuts && cuts.scaleShareMm > 0)
    findings.push({
      ...note(
        "scale",
        `The axis scale changes the kerf by up to ${shownLength(cuts.scaleShareMm, unit, 3)}.`,
        "Measure both part and hole, to separate kerf and axis scale.",
      ),
      tone: "note",
    });
  const apart = cuts?.apart?.quantity;
  if (apart && Math.abs(apart.value) > expandedUncertainty(apart))
    findings.push({
      ...note(
        "apart",
        `The kerf along ${apart.value > 0 ? "X" : "Y"} is ${shownLength(Math.abs(apart.value), unit, 3)} wider than along ${apart.value > 0 ? "Y" : "X"}.`,
        "The beam is not round, or a drive has backlash. With one offset, half of this difference remains on each axis. The stock card stores both kerfs.",
      ),
      tone: "note",
    });
  if (round.plan.from?.thickness === null)
    findings.push({
      ...note(
        "thickness",
        "The thickness of this batch is not measured.",
        `The nominal thickness is ${plain(round.plan.from.nominalMm)} mm. Measure the thickness at several points and enter it on the stock card.`,
      ),
      tone: "note",
    });
  return findings;
}

/** Whether the cut removed material along each axis. */
export function isCut({ kerf, cuts }: KerfFound): boolean {
  return kerf.quantity.value >= LEAST_MM && AXES.every((axis) => (cuts?.along[axis]?.quantity.value ?? LEAST_MM) >= 0);
}
