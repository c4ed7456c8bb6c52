/** A part that turned under the beam: where its marks came to lie around it, and what a person sees of them. */
import type { Turned } from "../core/coupon/round-spec";
import type { Feature, Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { Mark } from "./gantry";
import type { GantryTruth } from "./gantry-truth";
import { marksOf } from "./measure-places";
import { seeded, seedOf } from "./random";
import { partFromSeed, type RotaryHeld, type RotaryTruth, type RoundPart, TurningPart } from "./rotary-truth";
import type { Seen } from "./seen";

type Axis = Turned["axis"];

/** A gantry whose axis stands still: what was sent along it arrives as it was sent, to be turned into a way around the part. */
export function axisTakenOff(truth: GantryTruth, axis: Axis): GantryTruth {
  const straight = { runout: { amplitudeMm: 0, periodMm: 40, phaseRad: 0 }, step: null, homeMm: 0 };
  const { axes } = truth;
  return {
    ...truth,
    ...(axis === "x" ? { scaleX: 1, playMm: 0 } : { scaleY: 1 }),
    ...(axes
      ? {
          axes: {
            ...axes,
            leanRad: 0,
            [axis]: { ...axes[axis], ...straight },
            ...(axis === "y" ? { playYMm: 0 } : {}),
          },
        }
      : {}),
  };
}

/** How a part was called when it was first laid out: by that it stays the same part, whatever it is laid out as later. */
export type PartCalled = Pick<Turned, "diameterMm" | "restsOnMm">;

/** A rotary with a part on it. */
export type OnRotary = { truth: RotaryTruth; seed: number; held: RotaryHeld; called: PartCalled };

function turning(turned: Turned, { truth, seed, held, called }: OnRotary, chance: string): TurningPart {
  return new TurningPart(truth, partFromSeed(seed, called), turned, held, seeded(seedOf(seed, "grip", chance)));
}

/** Marks in the order in which they were burned, each moved to where it lies around the part; not cut off at a whole turn. */
export function laidAround(marks: readonly Mark[], turned: Turned, placement: Placement, on: OnRotary): Mark[] {
  const drive = turning(turned, on, marks.length.toString());
  const begin = turned.axis === "y" ? placement.yMm : placement.xMm;
  let stands = begin;
  const to = (sent: number) => {
    drive.move(sent - stands);
    stands = sent;
    return begin + drive.surfaceMm;
  };
  return marks.map((mark) => {
    if (turned.axis === "x") {
      const [x0, x1] = [to(mark.x0), to(mark.x1)];
      return { ...mark, x0, x1 };
    }
    const [y0, y1] = [to(mark.y0), to(mark.y1)];
    return { ...mark, y0, y1 };
  });
}

/** What a person sees of a part that turned. @returns `null` where the measurand is of another kind */
export function turnedSeen(
  measurand: Measurand,
  marks: readonly Mark[],
  placement: Placement,
  turned: Turned,
  on: OnRotary,
): Seen | null {
  const { truth, seed } = on;
  const part = partFromSeed(seed, on.called);
  switch (measurand.kind) {
    case "around":
      return aroundSeen(measurand, marks, placement, turned.axis, part, truth.turns);
    case "width":
      return widthSeen(marksOf(measurand.of, marks, placement)[0]);
    case "part size":
      return sizeSeen(measurand, part);
    case "line on part":
      return always(lineLength(measurand.nominalMm, seed));
    case "readout on line":
      return always(readoutOn(measurand, turning(turned, on, "traced"), truth.turns, seed, part.markedMm));
    default:
      return null;
  }
}

function always(value: number): Seen {
  return { ok: true, look: () => value, mean: value };
}

const NOTHING: Seen = { ok: false, why: "There are no such marks on the practice piece." };

function widthSeen(mark: Mark | undefined): Seen {
  return mark ? always(mark.widthMm) : NOTHING;
}

type Around = Extract<Measurand, { kind: "around" }>;

function aroundSeen(
  { from, to, as, tapeMm = 0 }: Around,
  marks: readonly Mark[],
  placement: Placement,
  axis: Axis,
  part: RoundPart,
  turns: 1 | -1,
): Seen {
  const find = (feature: Feature) => marksOf(feature, marks, placement)[0];
  const [a, b] = [find(from), find(to)];
  if (!a || !b) return NOTHING;
  const at = (m: Mark) => (axis === "y" ? (m.y0 + m.y1) / 2 : (m.x0 + m.x1) / 2);
  const went = turns * (at(b) - at(a));
  const around = Math.PI * part.markedMm;
  const beyond = Math.max(0, Math.round(went / around) - 1);
  switch (as) {
    case "onward": {
      const angle = (2 * (went - around * Math.floor(Math.max(0, went) / around))) / part.markedMm;
      // Peeled off and laid flat a tape is as long as its middle was around the part.
      return always((angle * (part.markedMm + tapeMm)) / 2);
    }
    case "beside":
      return always(went);
    case "turns too many":
      return always(Math.floor(Math.max(0, went) / around));
    case "turns beyond one":
      return always(beyond);
    case "gap": {
      const gap = around * (1 + beyond) - went;
      const clear = Math.abs(gap) - (a.widthMm + b.widthMm) / 2;
      return clear > 0
        ? always(Math.sign(gap) * clear)
        : { ok: false, why: "The lines lie on each other.", isBlank: true };
    }
  }
}

/** An oval part is as thick as where the jaws happen to take it. */
function sizeSeen({ of, where }: Extract<Measurand, { kind: "part size" }>, part: RoundPart): Seen {
  const mean = where === "marked" ? part.markedMm : part.restsOnMm;
  if (of === "circumference") return always(Math.PI * mean);
  return { ok: true, mean, look: (random) => mean + part.ovalMm * Math.cos(2 * Math.PI * random.even()) };
}

/** A hand cuts and sticks a line to within half a mm. (common practice, no source) */
function lineLength(nominalMm: number, seed: number): number {
  return nominalMm + seeded(seedOf(seed, "line", nominalMm)).between(-0.5, 0.5);
}

/** Where the readout stood when it was begun, and how far beyond the line it is turned back. */
const [BEGAN_AT_MM, BEYOND_MM] = [12.4, 5];
/** How a hand comes to a place: within what, in how many moves, the first of them a share of the way, none goes all of it at once. */
const [NEAR_MM, MOST_STEPS, TRIED, CAREFUL, LEAST] = [1e-4, 80, 0.05, 0.9, 1e-3];

/** The person turns until the dot stands on the end: a hair at a time. */
function readoutOn(
  { end, nominalMm, tapeMm = 0 }: Extract<Measurand, { kind: "readout on line" }>,
  drive: TurningPart,
  turns: 1 | -1,
  seed: number,
  diameterMm: number,
): number {
  let readout = BEGAN_AT_MM;
  const until = (surfaceMm: number) => {
    // A little first, to see how far it goes; then in steps that get shorter, never past the end.
    let goes = 1;
    for (let step = 0; step < MOST_STEPS; step++) {
      const before = turns * drive.surfaceMm;
      const left = surfaceMm - before;
      if (Math.abs(left) < NEAR_MM) return;
      const move = step === 0 ? TRIED * left : (CAREFUL * left) / goes;
      drive.move(move);
      readout += move;
      goes = Math.max(LEAST, (turns * drive.surfaceMm - before) / move);
    }
  };
  // From before the line, so that the play is used up.
  until(-BEYOND_MM);
  until(0);
  const first = readout;
  if (end === "first") return first;
  // Stuck on, its middle lies around more than the surface does.
  const angle = lineLength(nominalMm, seed) / ((diameterMm + tapeMm) / 2);
  until((angle * diameterMm) / 2);
  if (end === "second") return readout;
  until(-BEYOND_MM);
  until(0);
  return readout;
}

/** The words on the part, and which way its upper side went. */
export function turnsRight({ turns }: RotaryTruth): boolean {
  return turns === 1;
}
