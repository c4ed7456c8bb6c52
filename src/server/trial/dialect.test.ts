/** How a machine takes G-code: kept with the machine, used in its files, understood by its practice stand-in. */
import { beforeEach, describe, expect, it } from "vitest";
import { type GcodeDialect, USUAL_DIALECT } from "../../core/machine/gcode-dialect";
import type { Database } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import { ownLinesFault } from "../../formats/gcode-own-lines";
import { parseGcode } from "../../formats/gcode-parser";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { burnOnPractice } from "./burn-on-practice";
import { setDialect } from "./check-steps";
import { roundGcode } from "./round-gcode";
import { fullTrial } from "./trial-record";
import { beginTrial } from "./trial-steps";

const OTHER: GcodeDialect = {
  unit: "in",
  powerLetter: "P",
  powerAtFull: 255,
  beamOn: "M106",
  beamOff: "M107",
  powerWith: "beam code",
  start: ["G54 (first offset)"],
  end: ["G0 X0 Y0"],
};

let db: Database;
beforeEach(() => {
  db = demoCopy();
});

describe("the G-code of a machine", () => {
  it("changes for trials that are under way, and its practice machine burns it", () => {
    const id = beginTrial(db, "alder", "scan-offset", NOW);
    const text = () => [...roundGcode(db, fullTrial(db, id), 1)].join("");
    expect(text()).toMatch(/^G21 G17 G90 G94$/m);
    setDialect(db, "alder", OTHER, NOW + 1);
    expect(machineBySlug(db, "alder")?.spec.gcode).toEqual(OTHER);
    expect(text()).toMatch(/^G20 G17 G90 G94\nM107\nG54 \(first offset\)\nG20 G17 G90 G94\nM107$/m);
    expect(text()).toMatch(/M106 P\d/);
    expect(text()).not.toMatch(/ S\d/);
    expect(text()).toMatch(/M107\nG0 X0 Y0\nM2\n$/);
    burnOnPractice(db, id, 1, null, NOW + 2);
    expect(fullTrial(db, id).rounds[0]?.burnedAt).toBe(NOW + 2);
  });

  it("is in its own modes again after lines of the machine's own, whatever they set", () => {
    const id = beginTrial(db, "alder", "scan-offset", NOW);
    const moves = () => {
      const read = parseGcode([...roundGcode(db, fullTrial(db, id), 1)].join(""));
      if (!read.ok) throw new Error(read.message);
      return read.value.steps.flatMap((s) => (s.kind === "move" && s.power > 0 ? [s.to] : []));
    };
    const before = moves();
    setDialect(db, "alder", { ...USUAL_DIALECT, start: ["G20 G91", "G0 X1 Y1", "G1 X0.5 F10 S900"] }, NOW + 1);
    expect(moves()).toEqual(before);
  });

  it("is refused where its own lines cannot be read, or switch the beam on", () => {
    const refused = (change: Partial<GcodeDialect>) =>
      refusal(() => setDialect(db, "alder", { ...USUAL_DIALECT, ...change }, NOW));
    expect(refused({ start: ["G0 Z5", "T1 M6"] })).toMatchObject({
      field: "start",
      message: expect.stringMatching(/^Line 2: T is not understood/),
    });
    expect(refused({ end: ["M3 S10"] })).toMatchObject({
      field: "end",
      message: expect.stringMatching(/Line 1: .*beam on/),
    });
    expect(refused({ end: ["G0 X1", "m 3"] }).message).toMatch(/Line 2: .*beam on/);
    expect(refused({ end: ["M2", "G0 X0"] }).message).toMatch(/after the end/);
    expect(refusal(() => setDialect(db, "nowhere", USUAL_DIALECT, NOW)).message).toMatch(/no such machine/);
    expect(refused({ start: ["M03 S5"] }).message).toMatch(/beam on/);
    expect(refused({ start: ["G0 X1 M 3"] }).message).toMatch(/beam on/);
    expect(ownLinesFault({ ...USUAL_DIALECT, start: ["(M3 in a comment)", "M30 ; no"] })?.field).toBe("start");
    expect(ownLinesFault({ ...USUAL_DIALECT, start: ["(M3 in a comment)"] })).toBeNull();
    expect(machineBySlug(db, "alder")?.spec.gcode).toEqual(USUAL_DIALECT);
  });
});
