/** A procedure is begun as docs/architecture.md says: what is made works before anything of it is changed. */
import { readdirSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Gauge } from "../src/core/metrology/gauge";
import type { AnyProcedure } from "../src/core/procedures/contract";
import type { History } from "../src/core/trial/history";
import { outcomeSchema } from "../src/core/trial/outcome";
import { gantryFromSeed } from "../src/practice/gantry-truth";
import { seeded } from "../src/practice/random";
import { rehearseRound } from "../src/testing/rehearsal/rehearse-round";
import { SAMPLE_MACHINE } from "../src/testing/sample-machine";
import { newProcedure } from "./new-procedure";

const ID = "scaffold-of-a-test";
const FOLDER = `src/core/procedures/${ID}`;
const GAUGE: Gauge = {
  id: "calipers",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0.02,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};

const clear = () => rmSync(FOLDER, { recursive: true, force: true });
beforeAll(clear);
afterAll(clear);

describe("a new procedure", () => {
  it("is a folder of its own with nothing left of the sample's name, which is burned, read and solved as it stands", async () => {
    expect(newProcedure(ID, "Scaffold of a test")).toBe(FOLDER);
    const files = readdirSync(FOLDER).sort();
    expect(files).toEqual(
      readdirSync("src/core/procedures/sample-bar")
        .map((f) => f.replace("sample-bar", ID))
        .sort(),
    );
    for (const file of files) expect(readFileSync(path.join(FOLDER, file), "utf8"), file).not.toMatch(/sample.?bar/i);

    const made = (await import(/* @vite-ignore */ path.resolve(FOLDER, "procedure.ts"))) as Record<
      string,
      AnyProcedure
    >;
    const procedure = made.scaffoldOfATest;
    if (!procedure) throw new Error("the procedure is not there under its name");
    expect(procedure).toMatchObject({ id: ID, title: "Scaffold of a test" });
    const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
    const { round } = rehearseRound({
      procedure,
      plan: procedure.plan(context).defaults,
      context,
      purpose: "measure",
      n: 1,
      gauge: GAUGE,
      truth: gantryFromSeed(1),
      controller: { table: [], switchedOn: true },
      random: seeded(1),
      hand: { placingMm: 0.02, commonMm: 0.01, resolutionMm: 0.01 },
    });
    const history: History = {
      rounds: [round],
      gauges: [GAUGE],
      available: [GAUGE],
      machine: SAMPLE_MACHINE,
      decisions: {},
      tolerance: procedure.tolerance.default,
    };
    const outcome = outcomeSchema.parse(procedure.solve(history));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    expect(outcome.corrections[0]?.setting).toBe("scaffold of a test offset");
    expect(outcome.estimates[0]?.quantity.value).toBeGreaterThan(39);
  });

  it("is not made over another, nor under a name that is no address", () => {
    expect(() => newProcedure("scan-offset", "Scan offset")).toThrow(/is there already/);
    for (const id of ["", "Bar", "bar width", "../bar", "bar_width", "-bar"])
      expect(() => newProcedure(id, "Bar")).toThrow(/small letters/);
    expect(() => newProcedure("bar-of-a-test", "bar")).toThrow(/capital/);
  });

  it("has the files that docs/architecture.md tells of, each with what it is for", () => {
    const steps = readFileSync("docs/architecture.md", "utf8").split("## How to add a procedure")[1] ?? "";
    const told = [...steps.matchAll(/^\| `([a-z-]+(?:\.test)?\.ts)` \|/gm)].map(([, name]) => name);
    expect(told.sort()).toEqual(
      readdirSync("src/core/procedures/sample-bar")
        .map((f) => f.replace("sample-bar", "bar-width"))
        .sort(),
    );
  });
});
