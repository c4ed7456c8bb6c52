/** What follows from a round part and its drive, in words and figures, each with its sum. */
import type { PartShape } from "../../artwork/develop";
import type { RotaryDrive } from "../../core/machine/part-spec";
import { fixed, inUnit, plain, shownLength } from "../../core/metrology/quantity-text";
import { type LengthUnit, MM_PER_INCH } from "../../core/metrology/units";
import {
  artworkFactor,
  circumferenceMm,
  type DriveNumbers,
  partSteps,
  type Wraps,
  wrapsOf,
} from "../../core/round-part/round-part";
import { sideAngleRad, slantMm, travelAtEnds } from "../../core/round-part/taper";

export type Fact = { label: string; value: string; sum: string };

const WHOLE_WITHIN = 1e-6;

export function factsOf(
  part: PartShape,
  {
    drive,
    numbers,
    axis,
    artworkMm,
    unit,
  }: {
    drive: RotaryDrive;
    numbers: DriveNumbers | null;
    axis: string;
    artworkMm: number | null;
    unit: LengthUnit;
  },
): Fact[] {
  const shown = (value: number, decimals = 2) => shownLength(value, unit, decimals);
  const typed = (value: number) => inUnit(value, unit, 3);
  if (part.kind === "taper") {
    const ends = travelAtEnds(part);
    return [
      {
        label: "Around its ends",
        value: `${shown(circumferenceMm(part.firstMm))} and ${shown(circumferenceMm(part.lastMm))}`,
        sum: "π × what is across",
      },
      {
        label: "Its side",
        value: `${shown(slantMm(part))}, ${fixed((180 / Math.PI) * sideAngleRad(part), 2)}° to the axis`,
        sum: "by half of what the ends differ, and how far they lie apart",
      },
      {
        label: `What is sent along ${axis} goes`,
        value: `${fixed(ends[0], 4)} and ${fixed(ends[1], 4)} times`,
        sum: `at its ends: across ÷ ${typed(part.turnsByMm)} by which it turns`,
      },
      ...wrapFact(artworkMm, Math.min(part.firstMm, part.lastMm), shown),
    ];
  }
  const around = circumferenceMm(part.markedMm);
  const factor = artworkFactor(part);
  const steps = numbers && partSteps({ drive, ...part }, numbers);
  return [
    { label: "Once around", value: shown(around), sum: `π × ${typed(part.markedMm)}` },
    ...(factor === 1
      ? []
      : [
          {
            label: "For this part, artwork times",
            value: `${fixed(factor, 4)} along ${axis}`,
            sum: `${typed(part.turnsByMm)} ÷ ${typed(part.markedMm)}; what the controller holds stays`,
          },
        ]),
    ...(steps && numbers
      ? [
          {
            label: "A step of the drive",
            value: `${shown(steps.stepMm, 5)}`,
            sum:
              drive === "roller"
                ? `π × ${typed(numbers.rollerDiameterMm ?? 0)} ÷ ${plain(numbers.stepsPerRevolution, 1)} steps${factor === 1 ? "" : ` ÷ ${fixed(factor, 4)}`}`
                : `once around ÷ ${plain(numbers.stepsPerRevolution, 1)} steps`,
          },
          {
            label: unit === "mm" ? "Pulses per mm" : "Pulses per inch",
            value: fixed((unit === "mm" ? 1 : MM_PER_INCH) / steps.stepMm, 3),
            sum: `for a controller without a rotary of its own: ${axis} told so for this part`,
          },
          {
            label: "Steps for a turn of it",
            value: plain(steps.perTurn, 2),
            sum:
              Math.abs(steps.perTurn - Math.round(steps.perTurn)) < WHOLE_WITHIN
                ? "a whole number: the seam closes"
                : `steps are whole: the seam closes within ${shown(steps.stepMm / 2, 4)}`,
          },
          ...(steps.topSpeedMmPerS === null
            ? []
            : [
                {
                  label: "Its surface goes at most",
                  value: `${fixed(steps.topSpeedMmPerS, 1)} mm/s`,
                  sum: `a step × ${plain(numbers.mostStepsPerS ?? 0)} steps a second`,
                },
              ]),
        ]
      : []),
    ...wrapFact(artworkMm, part.markedMm, shown),
  ];
}

function wrapFact(artworkMm: number | null, diameterMm: number, shown: (value: number) => string): Fact[] {
  if (artworkMm === null) return [];
  const wraps = wrapsOf(artworkMm, diameterMm);
  return [
    {
      label: "The artwork",
      value: wrapText(wraps, shown),
      sum: `${shown(artworkMm)} of ${shown(circumferenceMm(diameterMm))} around`,
    },
  ];
}

export function wrapText(wraps: Wraps, shown: (value: number) => string): string {
  if (wraps.kind === "once") return "goes once around";
  if (wraps.kind === "gap") return `leaves a gap of ${shown(wraps.mm)}`;
  return `overlaps by ${shown(wraps.mm)}${wraps.turns >= 2 ? `, ${fixed(wraps.turns, 1)} times around` : ""}`;
}
