import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { rotary } from "./procedure";

const STORED = { "rotary steps": 10_000, "roller diameter": 63 };
const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "line around, rollers": { seed: 1, stored: STORED },
  "line around, chuck": { seed: 2, stored: STORED, plan: { drive: "chuck" } },
  "span by rule": { seed: 3, stored: STORED, gauge: "rule", plan: { way: "span", spanMm: 100 } },
  traced: { seed: 4, stored: STORED, gauge: "rule", plan: { way: "traced", spanMm: 90 } },
  "neck, around": { seed: 5, stored: STORED, plan: { rests: "other", restsOnMm: 72, sizedBy: "around" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: rotary, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
