/** A whole round on a practice machine without screens: laid out, exported, burned, read at every site. */

import { burnFile, type PracticeAnswer, siteReader } from "../../burning/practice-burn";
import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Site } from "../../core/coupon/site";
import { burnFileOf } from "../../core/machine/machine-kind";
import type { Gauge } from "../../core/metrology/gauge";
import type { AnyProcedure } from "../../core/procedures/contract";
import { type Answer, PLAIN_SHARES } from "../../core/trial/answer";
import type { Purpose, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import { svgOf } from "../../formats/svg-writer";
import type { PracticeController } from "../../practice/gantry-truth";
import type { Hand } from "../../practice/measure";
import type { PracticeTruth } from "../../practice/practice-truth";
import type { Random } from "../../practice/random";
import type { PartCalled } from "../../practice/turned-part";

export type Rehearsal = {
  procedure: AnyProcedure;
  plan: unknown;
  context: PlanContext;
  purpose: Purpose;
  n: number;
  truth: PracticeTruth;
  controller: PracticeController;
  gauge: Gauge;
  hand: Hand;
  random: Random;
  /** A round part as it was called at its first burn; left out: as this round calls it. */
  called?: PartCalled | undefined;
};

export type Rehearsed = {
  round: RoundRecord;
  /** Reads some sites of the burned piece once more, as often as the round asks. */
  readAgain: (sites: readonly string[]) => Answer[];
};

/**
 * @throws Error when the practice machine refuses the exported file
 */
export function rehearseRound(r: Rehearsal): Rehearsed {
  const spec = r.procedure.round(r.plan, r.context, r.purpose);
  const { machine, couponCode, inForce } = r.context;
  const sent = r.procedure.asSent(spec, r.plan, inForce, machine);
  const burn = burnFile(fileOf(sent, r.context), couponCode, machine, r.truth, r.controller, {
    ...spec,
    called: r.called,
  });
  if (!burn.ok) throw new Error(burn.message);
  const answersAt = (site: Site) => {
    const readHere = siteReader(site, burn, { ...spec, called: r.called }, r.truth, machine, r.controller);
    return Array.from({ length: site.repeats }, (): Answer => {
      const read = readHere(r.hand, r.random);
      return {
        site: site.id,
        content: contentOf(read),
        u: null,
        gauge: r.gauge.id,
        session: String(r.n),
        shares: PLAIN_SHARES,
        from: "practice",
      };
    });
  };
  return {
    round: { n: r.n, purpose: r.purpose, plan: r.plan, spec, inForce, answers: spec.sites.flatMap(answersAt) },
    readAgain: (sites) => spec.sites.filter((s) => sites.includes(s.id)).flatMap(answersAt),
  };
}

/** The round as its machine takes it; a galvo takes its first piece. */
function fileOf(sent: RoundSpec, { machine, couponCode }: PlanContext): string {
  const [piece] = sent.pieces;
  if (!piece) return "";
  if (burnFileOf(machine.kind) === "drawing") return svgOf(piece);
  return gcodeOf(sent, { couponCode, machineName: machine.name, dialect: machine.gcode, bed: machine });
}

function contentOf(read: PracticeAnswer): Answer["content"] {
  if (!read.ok) return { status: "cannot read", why: read.why };
  return read.value ? { status: "read", value: read.value } : { status: "cannot read", why: "nothing there" };
}
