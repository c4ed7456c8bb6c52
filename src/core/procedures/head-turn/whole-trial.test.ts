import { expect, it } from "vitest";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { headTurn } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "in front": { seed: 1, machine: SAMPLE_GALVO },
  "other edge": { seed: 2, machine: SAMPLE_GALVO, plan: { edge: "left" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: headTurn, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
