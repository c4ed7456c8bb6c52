/**
 * Models of real coupons, clean and with slips, and everything that the estimator says of them, as text. No proof of a number: the references
 * are in the other tests. It shows what a change of the estimator changes; a difference needs a reason in the commit.
 */
import { describe, expect, it } from "vitest";
import { seeded, seedOf } from "../../practice/random";
import { pairsOfSlips, type SlipMaker } from "../../testing/rehearsal/slip-rehearsal";
import { SLIP_SETS } from "../../testing/rehearsal/slip-sets";
import type { History, RoundRecord } from "../trial/history";
import { adjust, combine } from "./adjustment";
import { acceptedBy, examine, seenIn } from "./examination";
import { influences, sameAs } from "./influence";
import { type Model, ofReadings } from "./model";
import { slipsIn } from "./slips";

const SEED = 130_000;
const short = (value: number) => (Number.isFinite(value) ? Number(value.toPrecision(6)) : String(value));

function linesOf(model: Model): string[] {
  const { slips, isLoose } = slipsIn(model);
  const examination = examine(model, new Set());
  const adjustment = adjust(ofReadings(model));
  if (!examination || !adjustment) return ["not solved"];
  const { each, checked } = influences(adjustment);
  const [first] = examination.suspects;
  const accepted = first ? examine(model, new Set(acceptedBy(first))) : null;
  return [
    `${model.observations.length} observations, ${checked} checked, loose ${isLoose}`,
    ...[...adjustment.scatter].map(([id, s]) => `scatter ${id}: ${short(s.factor)}, freedom ${short(s.freedom)}`),
    ...model.wanted.map(({ id, row }) => {
      const { quantity, parts } = combine(adjustment, row);
      const budget = parts.map((p) => `${p.id} ${short(p.standardUncertainty)}`).join(", ");
      return `${id}: ${short(quantity.value)}, u ${short(quantity.standardUncertainty)}; ${budget}`;
    }),
    ...each.map(
      (i) =>
        `${i.observation.id}: r ${short(i.redundancy)}, t ${i.t === null ? "none" : short(i.t)}, freedom ${short(i.freedom)}, seen ${short(i.smallestSeen)}, error ${short(i.error)}, same as ${sameAs(adjustment, i.index).length}`,
    ),
    ...slips.map(
      (s) => `slip ${s.id}: gain ${short(s.gain)}, fit ${short(s.fit)}, ${[...s.added.values()].map(short)}`,
    ),
    ...examination.suspects.map(
      (s) =>
        `suspect ${s.id}: ${s.headline} ${s.text} ${s.orElse.join(" ")} moves ${[...s.moves].map(([id, by]) => `${id} ${short(by)}`)}`,
    ),
    `once the first is accepted: ${accepted?.suspects.map((s) => s.id).join(", ") ?? "nothing to accept"}`,
    ...seenIn(examination.adjustment).map(
      (s) =>
        `seen ${s.wanted.id}: ${s.worst ? `${s.worst.observation.id} ${short(s.worst.smallest)} moves ${short(s.worst.effect)}` : "none"}; unchecked ${s.unchecked.map((u) => `${u.observation.id} ${short(u.effect)}`)}; alone ${s.alone.map((a) => a.point)}`,
    ),
  ];
}

function modelWith(set: (typeof SLIP_SETS)[number], history: History, maker: SlipMaker | null): Model | null {
  const round = history.rounds[0] as RoundRecord;
  const slip = maker?.(round, seeded(seedOf(SEED, "slip")));
  const read = slip ? { ...round, answers: slip.answers } : round;
  return set.procedure.observe?.({ ...history, rounds: [read] }, read) ?? null;
}

describe.each(SLIP_SETS.map((set) => [set.name, set] as const))("%s", (name, set) => {
  it("is examined as before", async () => {
    const history = set.historyOf(SEED);
    const makers = [null, ...set.makers.slice(-2), ...pairsOfSlips(set.makers).slice(3, 4)];
    const text = makers.flatMap((maker, i) => {
      const model = modelWith(set, history, maker);
      return ["", `# ${i}`, ...(model ? linesOf(model) : ["no model"])];
    });
    await expect(`${text.join("\n")}\n`).toMatchFileSnapshot(`whole-model/${name}.txt`);
  });
});
