import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { fixtureStops } from "./procedure";

const STORED = { "fixture stop x": 30, "fixture stop y": 30 };

const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  burned: { seed: 1, stored: STORED },
  "traced, right back": { seed: 2, stored: STORED, plan: { way: "traced", sideX: "right", sideY: "back" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: fixtureStops, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
