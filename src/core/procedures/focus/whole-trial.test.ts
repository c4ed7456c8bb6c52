import { expect, it } from "vitest";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { focus } from "./procedure";

const WIDTHS = { judged: "by widths", stepMm: 0.5, count: 29, stockHeightMm: 120, marks: "lines", settableMm: 0.1 };
const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "by eye": { seed: 1 },
  "by widths": { seed: 2, gauge: "microscope", plan: WIDTHS },
  "widths both ways": { seed: 3, gauge: "microscope", plan: { ...WIDTHS, marks: "lines both ways" } },
  ramp: { seed: 4, gauge: "microscope", plan: { way: "ramp" } },
  "ramp by widths": { seed: 5, gauge: "microscope", plan: { way: "ramp", judged: "by widths" } },
  sweep: { seed: 6, plan: { way: "sweep" } },
  "a galvo": { seed: 7, machine: SAMPLE_GALVO, stored: { "focus height": 181 } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: focus, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
