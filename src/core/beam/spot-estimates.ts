/** The beam, as far as widths tell it: its spot and how deep its focus is. */

import type { MachineSpec } from "../machine/machine-spec";
import { knownWavelengthNm } from "../machine/not-known";
import type { Measured } from "../metrology/measured";
import type { Estimate } from "../trial/outcome";
import type { BeamFit } from "./beam-widths";
import type { Doses } from "./doses";
import { depthOfFocus } from "./mark-width-law";
import type { WidthFit } from "./width-fit";

/** The widths alone do not tell: a size of spot stands on what was told of the marking. */
const SPOT_OF = { lines: "if lines add up", pulses: "if single pulses mark", beam: "by its second moment" } as const;
/** Depth of focus is where the beam is no more than this share wider than at focus. (common practice, no source) */
export const DEPTH_SHARE = 0.1;

/** Of the beam, besides its focus. */
export function spotEstimates(
  { fit, beam }: { fit: WidthFit | null; beam: BeamFit | null },
  { doses }: { doses: Doses },
  machine: Pick<MachineSpec, "wavelengthNm" | "assumed">,
): Estimate[] {
  const known = fit?.status === "solved" ? fit.known : null;
  const ofBeam = (id: string, label: string, quantity: Measured, unit: "mm" | "one" = "mm"): Estimate => ({
    id,
    label,
    quantity,
    unit,
    headline: false,
    helps: null,
    budget: [
      {
        id: "ladder",
        label: "Widths and how they scatter",
        kind: "A",
        standardUncertainty: quantity.standardUncertainty,
        degreesOfFreedom: quantity.degreesOfFreedom,
      },
    ],
  });
  return [
    ...(known
      ? [
          ofBeam("spot", `Radius of the spot at focus, ${SPOT_OF[doses]}`, known.w0),
          ofBeam("depth", "Height in which its area doubles", known.zR),
          ofBeam("ten percent", "Depth of focus, either way, until it is a tenth wider", tenPercent(known.zR)),
        ]
      : []),
    ...(beam?.status === "solved"
      ? [
          ofBeam("spot", "Width of the beam at focus", beam.d0),
          ofBeam("depth", "Height in which its area doubles", beam.zR),
          ofBeam("ten percent", "Depth of focus, either way, until it is a tenth wider", tenPercent(beam.zR)),
          // M² needs the real wavelength.
          ...(knownWavelengthNm(machine) === null ? [] : [ofBeam("m2", "Times an ideal beam, M²", beam.m2, "one")]),
        ]
      : []),
  ];
}

function tenPercent(zR: Measured): Measured {
  const share = depthOfFocus({ zR: 1 }, DEPTH_SHARE);
  return { ...zR, value: share * zR.value, standardUncertainty: share * zR.standardUncertainty };
}
