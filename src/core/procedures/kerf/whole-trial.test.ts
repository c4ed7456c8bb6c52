import { expect, it } from "vitest";
import { type WholeTrial, wholeTrial } from "../../../testing/whole-trial/whole-trial";
import { kerf } from "./procedure";

const STOCK = { stock: "test-sheet/1" };
const TRIALS: Record<string, Omit<WholeTrial, "procedure">> = {
  "part and hole": { seed: 1, plan: STOCK },
  "part alone, both faces": { seed: 2, plan: { ...STOCK, way: "part", faces: "both" } },
  "hole alone": { seed: 3, plan: { ...STOCK, way: "hole" } },
  comb: { seed: 4, plan: { ...STOCK, way: "comb" } },
  "tongue and slot": { seed: 5, plan: { ...STOCK, way: "tongue and slot" } },
  "slots for the sheet": { seed: 6, plan: { ...STOCK, way: "sheet slot" } },
};

it.each(Object.entries(TRIALS))("says the same of a whole trial as before: %s", async (name, trial) => {
  await expect(wholeTrial({ procedure: kerf, ...trial })).toMatchFileSnapshot(`whole-trial/${name}.txt`);
});
