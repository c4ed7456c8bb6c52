/** A test for each kept trial of a procedure. */
import { describe, expect, it } from "vitest";
import { TRIALS } from "./trials";
import { wholeTrial } from "./whole-trial";

/** @param texts folder of the kept texts, from the test file */
export function heldToText(folder: keyof typeof TRIALS, texts: string): void {
  const { procedure, trials } = TRIALS[folder];
  describe(`whole trials of ${folder}`, () => {
    it.each(Object.entries(trials))("are as before: %s", async (name, trial) => {
      await expect(wholeTrial({ procedure, ...trial })).toMatchFileSnapshot(`${texts}/${name}.txt`);
    });
  });
}
