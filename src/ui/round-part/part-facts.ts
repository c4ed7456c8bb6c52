/** What follows from a round part and its drive, in words and figures, each with its sum. */
import type { PartShape } from "../../artwork/develop";
import { fixed, plain, shownLength } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { RotaryDrive } from "../../core/procedures/part-spec";
import {
  artworkFactor,
  circumferenceMm,
  type DriveNumbers,
  partSteps,
  type Wraps,
  wrapsOf,
} from "../../core/rotary/round-part";
import { sideAngleRad, slantMm, travelAtEnds } from "../../core/rotary/taper";

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
  const mm = (value: number, decimals = 2) => shownLength(value, unit, decimals);
  if (part.kind === "taper") {
    const ends = travelAtEnds(part);
    return [
      {
        label: "Around its ends",
        value: `${mm(circumferenceMm(part.firstMm))} and ${mm(circumferenceMm(part.lastMm))}`,
        sum: "π × what is across",
      },
      {
        label: "Its side",
        value: `${mm(slantMm(part))}, ${fixed((180 / Math.PI) * sideAngleRad(part), 2)}° to the axis`,
        sum: "by half of what the ends differ, and how far they lie apart",
      },
      {
        label: `100 mm sent along ${axis} go`,
        value: `${mm(100 * ends[0])} and ${mm(100 * ends[1])}`,
        sum: `at its ends: across ÷ ${plain(part.turnsByMm, 2)} mm by which it turns`,
      },
      ...wrapFact(artworkMm, Math.min(part.firstMm, part.lastMm), mm),
    ];
  }
  const around = circumferenceMm(part.markedMm);
  const factor = artworkFactor(part);
  const steps = numbers && partSteps({ drive, ...part }, numbers);
  return [
    { label: "Once around", value: mm(around), sum: `π × ${plain(part.markedMm, 3)} mm` },
    ...(factor === 1
      ? []
      : [
          {
            label: `For this part, artwork times`,
            value: `${fixed(factor, 4)} along ${axis}`,
            sum: `${plain(part.turnsByMm, 3)} ÷ ${plain(part.markedMm, 3)}; what the controller holds stays`,
          },
        ]),
    ...(steps && numbers
      ? [
          {
            label: "A step of the drive",
            value: `${mm(steps.stepMm, 5)}`,
            sum:
              drive === "roller"
                ? `π × ${plain(numbers.rollerDiameterMm ?? 0, 3)} ÷ ${plain(numbers.stepsPerRevolution, 1)} steps${factor === 1 ? "" : ` ÷ ${fixed(factor, 4)}`}`
                : `once around ÷ ${plain(numbers.stepsPerRevolution, 1)} steps`,
          },
          {
            label: "Pulses per mm",
            value: fixed(1 / steps.stepMm, 3),
            sum: `for a controller without a rotary of its own: ${axis} told so for this part`,
          },
          {
            label: "Steps for a turn of it",
            value: plain(steps.perTurn, 2),
            sum:
              Math.abs(steps.perTurn - Math.round(steps.perTurn)) < WHOLE_WITHIN
                ? "a whole number: the seam closes"
                : `steps are whole: the seam closes within ${mm(steps.stepMm / 2, 4)}`,
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
    ...wrapFact(artworkMm, part.markedMm, mm),
  ];
}

function wrapFact(artworkMm: number | null, diameterMm: number, mm: (value: number) => string): Fact[] {
  if (artworkMm === null) return [];
  const wraps = wrapsOf(artworkMm, diameterMm);
  return [
    {
      label: "The artwork",
      value: wrapText(wraps, mm),
      sum: `${mm(artworkMm)} of ${mm(circumferenceMm(diameterMm))} around`,
    },
  ];
}

export function wrapText(wraps: Wraps, mm: (value: number) => string): string {
  if (wraps.kind === "once") return "goes once around";
  if (wraps.kind === "gap") return `leaves a gap of ${mm(wraps.mm)}`;
  return `overlaps by ${mm(wraps.mm)}${wraps.turns >= 2 ? `, ${fixed(wraps.turns, 1)} times around` : ""}`;
}
