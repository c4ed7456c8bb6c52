/** What a practice rotary really is, and the part on it: hidden from everything that computes corrections. */
import { z } from "zod";
import type { HeldNumber } from "./axes-truth";
import { type Random, seeded, seedOf } from "./random";

export const rotaryTruthSchema = z.object({
  /** Steps that really turn roller or chuck once, by those that its controller held when they were first read back. */
  stepsByFound: z.number().positive(),
  /** The roller as a loaded part rolls on it, by the diameter that the controller held then; 1 of a chuck. */
  rollerByFound: z.number().positive(),
  /** Lost of each mm on the way there and on the way back, as a share, and how much that wanders from move to move, sd. */
  slipThere: z.number().nonnegative(),
  slipBack: z.number().nonnegative(),
  gripSd: z.number().nonnegative(),
  /** Up and down in a turn, mm, and where that begins, rad. */
  runoutMm: z.number().nonnegative(),
  runoutRad: z.number(),
  /** Lost motion of its belt or gear, mm at the surface. */
  playMm: z.number().nonnegative(),
  /** -1: it turns the other way. */
  turns: z.union([z.literal(1), z.literal(-1)]),
});
export type RotaryTruth = z.infer<typeof rotaryTruthSchema>;

/** A wild first number is usual: microsteps, or a gear, that nobody counted. */
const WILD = [0.4, 0.5, 2, 2.5];
/** One rotary in so many: held wildly wrong, slips, turns the other way. (invented) */
const [WILD_OF, SLIPS_OF, MIRRORED_OF] = [6, 5, 8];

/** Rollers up to 2.5 % off and now and then slipping, chucks that run out by up to 0.15 mm; one in six with a wild number of steps. */
export function rotaryFromSeed(seed: number, drive: "roller" | "chuck"): RotaryTruth {
  const random = seeded(seedOf(seed, "rotary", drive));
  const oneOf = (count: number) => random.even() < 1 / count;
  const wild = oneOf(WILD_OF) ? random.oneOf(WILD) : 1;
  const isRoller = drive === "roller";
  const slips = isRoller && oneOf(SLIPS_OF);
  return {
    stepsByFound: wild * (isRoller ? 1 : 1 + random.between(-0.02, 0.02)),
    rollerByFound: isRoller ? 1 + random.between(-0.025, 0.025) : 1,
    slipThere: slips ? random.between(0, 0.004) : 0,
    slipBack: slips ? random.between(0.004, 0.012) : 0,
    gripSd: isRoller ? 0.0002 : 0,
    runoutMm: isRoller ? 0 : random.between(0, 0.15),
    runoutRad: random.between(0, 2 * Math.PI),
    playMm: random.between(0, 0.15),
    turns: oneOf(MIRRORED_OF) ? -1 : 1,
  };
}

/** The same with everything random taken out. */
export function withoutSlip(truth: RotaryTruth): RotaryTruth {
  return { ...truth, slipThere: 0, slipBack: 0, gripSd: 0, runoutMm: 0, playMm: 0, turns: 1 };
}

/** What its controller holds: by the keys of the two numbers. */
export type RotaryHeld = { steps: HeldNumber | undefined; roller: HeldNumber | undefined };

const AT = " @ ";

/** By which key a stand-in keeps a number of one rotary: another one has numbers of its own. */
export function rotaryKey(setting: string, rotary: string): string {
  return `${setting}${AT}${rotary}`;
}

/** The setting of such a key, and the rotary that it is of; `null` where it is of none. */
export function settingOfKey(key: string): { setting: string; rotary: string | null } {
  const [setting = key, rotary = null] = key.split(AT);
  return { setting, rotary };
}

/** A part as it really is, by what it was laid out for. */
export type RoundPart = {
  /** Across, mean over its form, mm. */
  markedMm: number;
  restsOnMm: number;
  /** Across it is so much thicker and thinner than its mean, half a turn apart, mm. */
  ovalMm: number;
};

/** Tubes and bottles: 0.4 % off what they are called (sd), up to 0.04 mm oval. (invented) */
export function partFromSeed(seed: number, laid: { diameterMm: number; restsOnMm: number }): RoundPart {
  const random = seeded(seedOf(seed, "part", laid.diameterMm, laid.restsOnMm));
  const off = 1 + 0.004 * random.normal();
  const own = 1 + 0.004 * random.normal();
  const markedMm = laid.diameterMm * off;
  const restsOnMm = laid.restsOnMm === laid.diameterMm ? markedMm : laid.restsOnMm * own;
  return { markedMm, restsOnMm, ovalMm: random.between(0, 0.04) };
}

/** A drive that is moved: how far the marked surface has gone. Angles of motor, roller and part follow one another. */
export class TurningPart {
  private angleRad = 0;
  private slack = 0;

  constructor(
    private readonly truth: RotaryTruth,
    private readonly part: RoundPart,
    private readonly laid: { drive: "roller" | "chuck"; diameterMm: number },
    private readonly held: RotaryHeld,
    private readonly random: Random,
  ) {}

  /** Where the marked surface is, mm from where it began; onward is up. */
  get surfaceMm(): number {
    const { runoutMm, runoutRad, turns } = this.truth;
    const lag = this.slack / (this.part.markedMm / 2);
    const angle = this.angleRad + lag;
    // The axis of a part that runs out goes round: what is on top is carried to one side.
    const aside = (runoutMm / 2) * (Math.sin(angle + runoutRad) - Math.sin(runoutRad));
    return turns * ((angle * this.part.markedMm) / 2 - aside);
  }

  /** @param sentMm as the controller is sent along the axis that it replaces */
  move(sentMm: number): void {
    const turned = this.turnedBy(sentMm);
    this.angleRad += turned;
    const half = this.truth.playMm / 2;
    this.slack = Math.max(-half, Math.min(half, this.slack - (turned * this.part.markedMm) / 2));
  }

  /** By how much the part turns for what is sent, rad. */
  private turnedBy(sentMm: number): number {
    const { stepsByFound, rollerByFound, slipThere, slipBack, gripSd } = this.truth;
    const [steps, roller] = [ratioOf(this.held.steps), ratioOf(this.held.roller)];
    // Revolutions of roller or chuck, were the numbers right; then what the steps really make of them.
    const grips = 1 - (sentMm >= 0 ? slipThere : slipBack) + (gripSd > 0 ? gripSd * this.random.normal() : 0);
    if (this.laid.drive === "chuck") return (((2 * sentMm) / this.laid.diameterMm) * steps) / stepsByFound;
    const rolled = ((sentMm / roller) * steps * rollerByFound) / stepsByFound;
    return (2 * rolled * grips) / this.part.restsOnMm;
  }
}

function ratioOf(held: HeldNumber | undefined): number {
  return held && held.found > 0 && held.now > 0 ? held.now / held.found : 1;
}

/** Numbers by key, as they are kept with a practice machine. */
export const rotariesSchema = z.record(z.string(), rotaryTruthSchema);
