/** What fitted widths show besides the focus, and answers that contradict each other. */

import type { Doses } from "../../beam/doses";
import { dosePower, vanishesAside, widestAside } from "../../beam/mark-width-law";
import type { WidthFit } from "../../beam/width-fit";
import type { MachineSpec } from "../../machine/machine-spec";
import { knownWavelengthNm } from "../../machine/not-known";
import type { namedAnswers } from "../../measuring/length-readings";
import type { OrderedSuspect } from "../../measuring/ordered-suspects";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import type { Finding } from "../../trial/outcome";
import type { Way } from "./found";

type WithDoses = { doses: Doses };
/** No beam spreads less than an ideal one. */
const IDEAL_M2 = 1;

export function fitFindings(fit: WidthFit | null, plan: WithDoses, machine: MachineSpec): Finding[] {
  return [...widestAtFocus(fit, plan), ...noSpot(fit), ...twoWaists(fit), ...tooSmallSpot(fit, plan, machine)];
}

/**
 * Ways that contradict the surest one beyond the uncertainty of both.
 *
 * @param sites where each way is judged, by its id; @param named all that was read there, by which it is left out
 */
export function waysApart(
  ways: readonly Way[],
  sites: Readonly<Record<string, string>>,
  named: ReturnType<typeof namedAnswers>,
): OrderedSuspect[] {
  // Lines of one direction may have another focus: two waists are no contradiction.
  const [best, ...others] = ways.filter((w) => !w.onRequest);
  if (!best) return [];
  return others.flatMap((way): OrderedSuspect[] => {
    const gap = way.found.quantity.value - best.found.quantity.value;
    const both = Math.hypot(expandedUncertainty(way.found.quantity), expandedUncertainty(best.found.quantity));
    const site = sites[way.id];
    if (Math.abs(gap) <= both) return [];
    const judgements = named.filter(({ answer }) => answer.site === site).map(({ id }) => id);
    return [
      {
        id: `apart ${way.id} ${judgements.join(" ")}`,
        site: site ?? null,
        judgements,
        headline: `${way.label} the focus is ${plain(Math.abs(gap), 1)} mm ${gap > 0 ? "higher" : "lower"} than ${withinSentence(best.label)}.`,
        text: `The uncertainty of both is ${plain(both, 1)} mm. Judge again. Check that the stock is flat and that no height slipped.`,
      },
    ];
  });
}

function widestAtFocus(fit: WidthFit | null, plan: WithDoses): Finding[] {
  if (fit?.status !== "solved" || widestAside(fit.spot, dosePower(plan)) > 0) return [];
  return [
    {
      id: "widest at focus",
      tone: "note",
      site: null,
      headline: "Here the widest line is in focus, not the thinnest.",
      text: `So little more than is needed to mark reaches the stock that lines only fade on either side, and vanish ${plain(vanishesAside(fit.spot, dosePower(plan)), 1)} mm from focus. Do not go by the thinnest.`,
    },
  ];
}

function noSpot(fit: WidthFit | null): Finding[] {
  if (fit?.status !== "solved" || fit.known) return [];
  return [
    {
      id: "no spot",
      tone: "note",
      site: null,
      headline: "Focus is known, the spot is not.",
      text: "The lines do not turn from thinner to wider within this ladder, so its size cannot be told from how strong the marks are. The height is good all the same.",
    },
  ];
}

/** Lines along X and along Y are narrowest at different heights, by more than the uncertainty. */
function twoWaists(fit: WidthFit | null): Finding[] {
  if (fit?.status !== "solved" || !fit.waists) return [];
  const { x, y, apart: distance } = fit.waists;
  if (Math.abs(distance.value) <= expandedUncertainty(distance)) return [];
  const text = (m: Measured) => `${plain(m.value, 2)} ± ${plain(expandedUncertainty(m), 2)} mm`;
  return [
    {
      id: "two waists",
      tone: "note",
      site: null,
      headline: `The beam has two waists, ${plain(Math.abs(distance.value), 2)} ± ${plain(expandedUncertainty(distance), 2)} mm apart.`,
      text: `Lines along X have their focus at ${text(x)}, lines along Y at ${text(y)}. The middle suits both directions. Check that lens and mirrors are clean and not tilted.`,
    },
  ];
}

/** M^2 = pi w0^2 / (lambda zR), no beam has less than 1 [Siegman, Lasers, 1986, 17.1; M^2 from memory]. */
function tooSmallSpot(fit: WidthFit | null, { doses }: WithDoses, machine: MachineSpec): Finding[] {
  const wavelengthNm = knownWavelengthNm(machine);
  if (wavelengthNm === null) return [];
  if (fit?.status !== "solved" || !fit.known) return [];
  const { w0, zR } = fit.known;
  const m2 = (Math.PI * w0.value ** 2) / (wavelengthNm * 1e-6 * zR.value);
  const relative = Math.hypot((2 * w0.standardUncertainty) / w0.value, zR.standardUncertainty / zR.value);
  if (m2 * (1 + 2 * relative) >= IDEAL_M2) return [];
  return [
    {
      id: "spot too small",
      tone: "note",
      site: null,
      headline: `The spot comes out smaller than light of ${plain(wavelengthNm)} nm allows.`,
      text: `With this focal depth it would be ${plain(m2, 2)} times an ideal beam. The height is good all the same. Look whether ${doses === "pulses" ? "the energy of pulses adds up after all" : "widths were read too small"}, and whether ${machine.name} has that wavelength.`,
    },
  ];
}
