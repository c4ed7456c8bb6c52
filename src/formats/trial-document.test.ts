import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mangled } from "../testing/mangled-text";
import { randomPiece } from "../testing/random-piece";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { trialOfDocument } from "./document-history";
import { documentText } from "./json-document";
import { parseTrialDocument, VERSION } from "./trial-document";

/** Documents as each version that has landed wrote them. */
const KEPT = "src/formats/old-documents";

/** As a person would write it: only what cannot be worked out. */
const BY_HAND = {
  format: "ustrina trial",
  version: VERSION,
  procedure: "scan-offset",
  machine: SAMPLE_MACHINE,
  tolerance: "2 thou",
  gauges: [
    { id: "c", name: "Calipers", kind: "calipers", unit: "mm", resolutionMm: 0.01, limitMm: 0.02, placing: null },
  ],
  rounds: [
    {
      plan: { speedsMmPerS: "100 300", repeats: "1" },
      inForce: { "scan offset": { shape: "table", rows: [] } },
      sittings: [{ id: "1", gauge: "c", zero: "0.02 mm" }],
      readings: [
        { site: "v100-left", reading: "0.0035 in", which: "left-going stand out" },
        { site: "v100-right", reading: "1.46/2", which: "right-going stand out" },
        { site: "v300-left", cannotRead: "torn" },
      ],
    },
  ],
};

const parsed = (change: (d: typeof BY_HAND) => unknown = (d) => d) =>
  parseTrialDocument(JSON.stringify(change(structuredClone(BY_HAND))));
const fault = (change: (d: typeof BY_HAND) => unknown) => {
  const read = parsed(change);
  if (!read.ok) return read.fault;
  const trial = trialOfDocument(read.document);
  if (trial.ok) throw new Error("nothing is wrong with it");
  return trial.fault;
};

describe("a trial document", () => {
  it("written by hand is worked out from its texts", () => {
    const read = parsed();
    if (!read.ok) throw new Error(`${read.fault.path}: ${read.fault.message}`);
    const trial = trialOfDocument(read.document);
    if (!trial.ok) throw new Error(`${trial.fault.path}: ${trial.fault.message}`);
    const { history, procedure } = trial.trial;
    expect(history.tolerance).toBeCloseTo(0.0508, 12);
    expect(history.rounds[0]?.spec.sites).toHaveLength(6);
    const values = history.rounds[0]?.answers.map((a) => a.content);
    expect(values?.[0]).toMatchObject({ value: { value: expect.closeTo(0.0889 - 0.02, 9) } });
    expect(values?.[1]).toMatchObject({ value: { value: expect.closeTo(0.73 - 0.01, 9) } });
    expect(history.rounds[0]?.answers[1]?.shares).toEqual({ common: 0.5, scatter: 0.5 });
    expect(values?.[2]).toEqual({ status: "cannot read", why: "torn" });
    expect(procedure.solve(history).status).toBe("solved");
  });

  it("comes back as it went", () => {
    const read = parsed();
    if (!read.ok) throw new Error("unread");
    expect(parseTrialDocument(documentText(read.document))).toEqual(read);
  });

  it.each([
    ["version", (d: typeof BY_HAND) => ({ ...d, version: 9 }), /Update Ustrina/],
    ["version", (d: typeof BY_HAND) => ({ ...d, version: "1" }), /version is missing/],
    ["version", (d: typeof BY_HAND) => ({ ...d, version: 2 }), /reads version \d+\. Export the trial again/],
    ["format", (d: typeof BY_HAND) => ({ ...d, format: "drawing" }), /not a trial document/],
    ["", () => [], /not a trial document/],
    ["procedure", (d: typeof BY_HAND) => ({ ...d, procedure: "magic" }), /no procedure “magic”/],
    ["tolerance", (d: typeof BY_HAND) => ({ ...d, tolerance: "fine" }), /cannot be read/],
    ["", (d: typeof BY_HAND) => ({ ...d, colour: "red" }), /colour/],
    [
      "rounds[0].plan.speedsMmPerS",
      (d: typeof BY_HAND) => Object.assign(d, { rounds: [{ ...d.rounds[0], plan: { speedsMmPerS: "6000" } }] }),
      /If you mean 6000 mm\/min/,
    ],
    [
      "rounds[0].readings[0].site",
      (d: typeof BY_HAND) =>
        Object.assign(d, { rounds: [{ ...d.rounds[0], readings: [{ site: "v7-left", reading: "1" }] }] }),
      /no place “v7-left”/,
    ],
    [
      "rounds[0].readings[0].reading",
      (d: typeof BY_HAND) =>
        Object.assign(d, { rounds: [{ ...d.rounds[0], readings: [{ site: "v100-left", reading: "0.2x" }] }] }),
      /not a unit/,
    ],
    [
      "rounds[0].readings[0].which",
      (d: typeof BY_HAND) =>
        Object.assign(d, { rounds: [{ ...d.rounds[0], readings: [{ site: "v100-left", reading: "0.2" }] }] }),
      /Say in words/,
    ],
    ["rounds[0].sittings[0].gauge", (d: typeof BY_HAND) => Object.assign(d, { gauges: [] }), /No gauge “c”/],
  ])("names the field at fault: %s", (path, change, message) => {
    expect(fault(change)).toMatchObject({ path, message: expect.stringMatching(message) });
  });

  it("that is no JSON is refused with the parser's words", () => {
    expect(parseTrialDocument("{")).toMatchObject({
      ok: false,
      fault: { message: expect.stringMatching(/not valid JSON/) },
    });
  });

  it.each(readdirSync(KEPT))(
    "as it was written by an Ustrina before, %s, is read, solved, and written again as it was",
    (name) => {
      const text = readFileSync(path.join(KEPT, name), "utf8");
      const read = parseTrialDocument(text);
      if (!read.ok) throw new Error(`${read.fault.path}: ${read.fault.message}`);
      const trial = trialOfDocument(read.document);
      if (!trial.ok) throw new Error(`${trial.fault.path}: ${trial.fault.message}`);
      const { history, procedure } = trial.trial;
      expect(history.rounds.flatMap((r) => r.answers).length).toBeGreaterThan(10);
      expect(procedure.solve(history).status).toBe("solved");
      expect(JSON.parse(documentText(read.document))).toEqual(JSON.parse(text));
    },
  );

  it("keeps random coupons to the last bit", () => {
    fc.assert(
      fc.property(randomPiece, ({ piece, placement }) => {
        const spec = { pieces: [piece], placement, program: [], sites: [], delivery: "d", checklist: [] };
        const read = parsed((d) => ({ ...d, rounds: [{ spec }] }));
        if (!read.ok) throw new Error(`${read.fault.path}: ${read.fault.message}`);
        const back = parseTrialDocument(documentText(read.document));
        expect(back.ok && back.document.rounds[0]?.spec).toEqual(spec);
      }),
      { seed: 13, numRuns: 50 },
    );
  });

  it("mangled is refused with its field, or is what it says: never a crash, never slow", () => {
    const text = readFileSync("examples/scan-offset/trial.json", "utf8").replace(/"spec": \{[\s\S]*?\n {6}\},\n/g, "");
    let refused = 0;
    for (const broken of mangled(text, 5000, 6)) {
      const began = performance.now();
      const read = parseTrialDocument(broken);
      if (!read.ok) refused++;
      // What is taken says the same when it is written down and read again.
      else expect(parseTrialDocument(documentText(read.document))).toEqual(read);
      expect(performance.now() - began).toBeLessThan(1000);
    }
    expect(refused).toBeGreaterThan(2500);
  });

  it("is refused unread where it is too large", () => {
    const began = performance.now();
    expect(parseTrialDocument("[".repeat(50_000_000))).toMatchObject({ ok: false });
    expect(performance.now() - began).toBeLessThan(1000);
  });

  it("that was burned is read whatever its tolerance has become since, one that was not is refused by it", () => {
    const text = readFileSync("examples/axis-scale/trial.json", "utf8");
    const stricter = { ...JSON.parse(text), tolerance: "0.01 %" };
    const read = parseTrialDocument(JSON.stringify(stricter));
    if (!read.ok) throw new Error(read.fault.message);
    expect(trialOfDocument(read.document)).toMatchObject({ ok: true, trial: { history: { tolerance: 0.0001 } } });
    const [{ spec: _, ...round }] = stricter.rounds;
    const unburned = parseTrialDocument(JSON.stringify({ ...stricter, rounds: [{ ...round, readings: [] }] }));
    if (!unburned.ok) throw new Error(unburned.fault.message);
    expect(trialOfDocument(unburned.document)).toMatchObject({
      ok: false,
      fault: { path: "rounds[0].plan.spanXMm", message: expect.stringMatching(/tolerance is 0\.01 %/) },
    });
  });
});
