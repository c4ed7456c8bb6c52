import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { origin } from "./procedure";

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "left front": { seed: 1, plan: { senseX: "away", senseY: "away" } },
  "right back, near edge": {
    seed: 2,
    plan: { senseX: "away", senseY: "toward", sideX: "right", sideY: "back", measuredTo: "near", lineWidthMm: 0.3 },
  },
  "sense not known": { seed: 3, burns: 3, plan: { senseX: "not known", senseY: "not known" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: origin, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
