/** A whole round on a practice machine without screens: laid out, exported, burned, read at every site. */
import type { Site } from "../core/coupon/site";
import type { Gauge } from "../core/metrology/gauge";
import { type Answer, PLAIN_SHARES } from "../core/procedures/answer";
import type { AnyProcedure, PlanContext, Purpose, RoundRecord } from "../core/procedures/contract";
import { gcodeOf } from "../formats/gcode-writer";
import type { GantryTruth, PracticeController } from "../practice/gantry-truth";
import type { Hand } from "../practice/measure";
import type { Random } from "../practice/random";
import { burnFile, siteReader } from "./practice-burn";

export type Rehearsal = {
  procedure: AnyProcedure;
  plan: unknown;
  context: PlanContext;
  purpose: Purpose;
  n: number;
  truth: GantryTruth;
  controller: PracticeController;
  gauge: Gauge;
  hand: Hand;
  random: Random;
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
  const text = gcodeOf(sent, {
    couponCode,
    machineName: machine.name,
    dialect: machine.gcode,
    bed: machine,
  });
  const burn = burnFile(text, couponCode, machine, r.truth, r.controller);
  if (!burn.ok) throw new Error(burn.message);
  const { marks } = burn;
  const answersAt = (site: Site) => {
    const readHere = siteReader(site, marks, spec.placement, r.truth);
    return Array.from({ length: site.repeats }, (): Answer => {
      const read = readHere(r.hand, r.random);
      return {
        site: site.id,
        content: read.ok ? { status: "read", value: read.value } : { status: "cannot read", why: read.why },
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
