/** A procedure is begun as docs/architecture.md says: what is made works before anything of it is changed. */

import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { admitHidden } from "../src/core/course/registry";
import type { Gauge } from "../src/core/metrology/gauge";
import type { AnyProcedure } from "../src/core/procedures/contract";
import type { History, RoundRecord } from "../src/core/trial/history";
import { outcomeSchema } from "../src/core/trial/outcome";
import type { PlanContext } from "../src/core/trial/plan-form";
import { gantryFromSeed } from "../src/practice/gantry-truth";
import { seeded } from "../src/practice/random";
import { rehearseRound } from "../src/testing/rehearsal/rehearse-round";
import { SAMPLE_MACHINE } from "../src/testing/sample-machine";
import { newProcedure } from "./new-procedure";

const ID = "bar-of-test";
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

const SETTING = "bar of test scale";

/** Burned and read on a practice machine whose controller holds this value, after it was found at 1. */
function burned(procedure: AnyProcedure, n: number, value: number): RoundRecord {
  const context: PlanContext = {
    machine: SAMPLE_MACHINE,
    couponCode: "T-1",
    inForce: { [SETTING]: { shape: "scalar", value } },
  };
  return rehearseRound({
    procedure,
    plan: procedure.plan(context).defaults,
    context,
    purpose: n === 1 ? "measure" : "proof",
    n,
    gauge: GAUGE,
    truth: { ...gantryFromSeed(1), scaleX: 1.006 },
    controller: { table: [], switchedOn: true, numbers: { [SETTING]: { found: 1, now: value } } },
    random: seeded(n),
    hand: { placingMm: 0.02, commonMm: 0.01, resolutionMm: 0.01 },
  }).round;
}

const historyOf = (procedure: AnyProcedure, ...rounds: RoundRecord[]): History => ({
  rounds,
  gauges: [GAUGE],
  available: [GAUGE],
  machine: SAMPLE_MACHINE,
  decisions: {},
  tolerance: procedure.tolerance.default,
});

const EXAMPLE = `examples/${ID}`;
const clear = () => {
  for (const folder of [FOLDER, EXAMPLE]) rmSync(folder, { recursive: true, force: true });
};
beforeAll(clear);
afterAll(clear);

describe("a new procedure", () => {
  it("is a folder of its own with nothing left of the sample's name, which is burned, read, solved and proved as it stands", async () => {
    expect(newProcedure(ID, "Bar of test")).toBe(FOLDER);
    const files = readdirSync(FOLDER).sort();
    expect(files).toEqual(
      readdirSync("src/testing/sample-bar")
        .map((f) => f.replace("sample-bar", ID))
        .sort(),
    );
    for (const file of files) expect(readFileSync(path.join(FOLDER, file), "utf8"), file).not.toMatch(/sample.?bar/i);

    const made = (await import(/* @vite-ignore */ path.resolve(FOLDER, "procedure.ts"))) as Record<
      string,
      AnyProcedure
    >;
    const procedure = made.barOfTest;
    if (!procedure) throw new Error("the procedure is not there under its name");
    expect(procedure).toMatchObject({ id: ID, title: "Bar of test" });
    admitHidden(procedure);
    const measured = historyOf(procedure, burned(procedure, 1, 1));
    const outcome = outcomeSchema.parse(procedure.solve(measured));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const [correction] = outcome.corrections;
    expect(correction?.setting).toBe(SETTING);
    const proof = burned(procedure, 2, correction?.rows[0]?.enter ?? 0);
    expect(procedure.judge(historyOf(procedure, ...measured.rounds, proof))?.result).toBe("proved");
  });

  it("is small, clean, and needs one line elsewhere to be listed", () => {
    const code = readdirSync(FOLDER).filter((f) => !f.endsWith(".test.ts"));
    const lines = code.flatMap((f) => readFileSync(path.join(FOLDER, f), "utf8").trimEnd().split("\n"));
    expect(lines.length).toBeLessThan(250);
    const checked = spawnSync("npx", ["biome", "check", FOLDER], { encoding: "utf8" });
    expect(checked.status, checked.stdout + checked.stderr).toBe(0);
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
      readdirSync("src/testing/sample-bar")
        .map((f) => f.replace("sample-bar", "bar-width"))
        .sort(),
    );
  });
});
