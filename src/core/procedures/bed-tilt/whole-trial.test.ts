import { expect, it } from "vitest";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { bedTilt } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "five points": { seed: 1 },
  "nine points, closer, three supports": {
    seed: 2,
    plan: { places: "9", readAt: "scale, closer", supports: "three", pitchMm: 0 },
  },
  "a galvo": { seed: 3, machine: SAMPLE_GALVO },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: bedTilt, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
