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
        "The kerf comes out below nothing.",
        "Part and hole were mixed up, an offset is still switched on in a program, or the scale is wrong.",
      ),
    );
  else if (quantity.value > WIDE_MM)
    findings.push(
      note(
        "wide",
        `A cut of ${shownLength(quantity.value, unit, 2)} is very wide.`,
        "Out of focus, far too slow, or a size that was misread. Look at the cut first.",
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
        `The scale of the machine is mixed in: by up to ${shownLength(cuts.scaleShareMm, unit, 3)}.`,
        "From one of part and hole alone the two cannot be told apart. Measure the other too.",
      ),
      tone: "note",
    });
  const apart = cuts?.apart?.quantity;
  if (apart && Math.abs(apart.value) > expandedUncertainty(apart))
    findings.push({
      ...note(
        "apart",
        `Sizes along ${apart.value > 0 ? "X" : "Y"} lose ${shownLength(Math.abs(apart.value), unit, 3)} more than along ${apart.value > 0 ? "Y" : "X"}.`,
        "A beam that is not round, or play of a drive. One offset for both leaves half of this on each; both kerfs are kept.",
      ),
      tone: "note",
    });
  if (round.plan.from?.thickness === null)
    findings.push({
      ...note(
        "thickness",
        "The thickness of this batch was never measured.",
        `It is ${plain(round.plan.from.nominalMm)} mm by name alone. Squeeze the sheet at several places and write it on its card.`,
      ),
      tone: "note",
    });
  return findings;
}

/** Whether the cut removed material along each axis. */
export function isCut({ kerf, cuts }: KerfFound): boolean {
  return kerf.quantity.value >= LEAST_MM && AXES.every((axis) => (cuts?.along[axis]?.quantity.value ?? LEAST_MM) >= 0);
}
