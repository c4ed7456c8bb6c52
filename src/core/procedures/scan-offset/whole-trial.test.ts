import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { scanOffset } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  blocks: { seed: 1 },
  outlines: { seed: 2, plan: { outline: "each block" } },
  "open rows": { seed: 3, plan: { delivery: "rows" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: scanOffset, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
