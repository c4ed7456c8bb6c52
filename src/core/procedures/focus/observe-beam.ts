/** Widths of the beam itself as observations around the beam that most of them agree on. */

import { type BeamWidth, beamAround, beamSlopes, beamWidth } from "../../beam/beam-widths";
import { WIDTH_SCATTER } from "../../beam/width-fit";
import { type Model, usual } from "../../estimate/model";
import { gaugeTerms, modelOf } from "../../measuring/length-readings";
import { plain } from "../../metrology/quantity-text";
import { knownSetting, SETTING } from "./found";
import type { WidthReading } from "./observe-widths";

type BeamWidths = {
  readings: readonly WidthReading[];
  /** As they are fitted. */
  widths: readonly BeamWidth[];
  /** Of all that is asked for, mm. */
  heights: readonly number[];
  /** Standard uncertainty of setting and reading a height, mm. */
  settingMm: number;
  /** Id of the estimate of the focus by these widths. */
  focusId: string;
};

/** Before any width is read: width and focal depth, mm. (common practice, no source) */
const USUAL = { d0: 0.2, zR: 1.5 };

/** @returns `null` while too few widths are read */
export function beamModel({ readings, widths, heights, settingMm, focusId }: BeamWidths): Model | null {
  const taken = readings.some((r) => !r.imagined);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const beam = taken ? beamAround(widths) : { ...USUAL, z0: (low + high) / 2 };
  if (!beam || readings.length === 0) return null;
  const used = readings.map((r) => ({ ...r, u: Math.hypot(r.u, WIDTH_SCATTER * beamWidth(r.zMm, beam)) }));
  return modelOf(used, {
    row: (r) => beamSlopes(r.zMm, beam),
    y: (r) => r.value - beamWidth(r.zMm, beam),
    terms: gaugeTerms(used, { jawsOf: () => "outside", lengthOf: (r) => r.value }),
    facts: (r) => ({ pointLabel: `the width at ${plain(r.zMm)} mm`, signedByWords: false }),
    known: [
      usual("z0", "usual focus within the ladder", (high - low) / 3),
      usual("ln d0", "usual width of the beam", 1),
      usual("ln zR", "usual focal depth", 1),
      knownSetting(settingMm),
    ],
    wanted: [
      { id: focusId, label: "the focus height", row: { z0: 1, [SETTING]: 1 }, proves: 1 },
      { id: "spot", label: "the width of the beam", row: { "ln d0": beam.d0 } },
      { id: "depth", label: "the focal depth", row: { "ln zR": beam.zR } },
    ],
  });
}
