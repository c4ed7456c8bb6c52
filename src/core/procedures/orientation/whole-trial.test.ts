import { expect, it } from "vitest";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { orientation } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "order not known": { seed: 1, machine: SAMPLE_GALVO, burns: 3 },
  "other head": { seed: 5, machine: SAMPLE_GALVO, burns: 3 },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: orientation, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
