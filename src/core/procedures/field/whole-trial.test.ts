import { expect, it } from "vitest";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { galvoField } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  scale: { seed: 1, machine: SAMPLE_GALVO, plan: { way: "scale" } },
  seven: { seed: 2, machine: SAMPLE_GALVO, plan: { way: "seven" } },
  "nine by rule": { seed: 3, machine: SAMPLE_GALVO, gauge: "rule", plan: { way: "nine", knownMm: 0 } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: galvoField, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
