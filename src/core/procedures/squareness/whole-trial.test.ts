import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { squareness } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  diagonals: { seed: 1, plan: { repeats: 3 } },
  triangle: { seed: 2, gauge: "rule", plan: { way: "triangle" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: squareness, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
