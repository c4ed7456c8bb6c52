import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { axisScale } from "./procedure";

const STORED = { "axis scale x": 0.00625, "axis scale y": 0.00625 };
const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  ladder: { seed: 1, stored: STORED },
  "ladder from both sides": { seed: 2, stored: STORED, plan: { approach: "both sides", rowsEach: 2 } },
  "pair by rule": { seed: 3, stored: STORED, gauge: "rule", plan: { way: "pair", knownMm: 0 } },
  "by hand": { seed: 4, stored: STORED, plan: { way: "by hand" } },
  part: { seed: 5, stored: STORED, plan: { way: "part" } },
  "part and hole": { seed: 6, stored: STORED, plan: { way: "part and hole" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: axisScale, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
