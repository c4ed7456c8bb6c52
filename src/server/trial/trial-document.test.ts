import { readFileSync } from "node:fs";
import { beforeEach, describe, expect, it } from "vitest";
import { type Database, openDatabase } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import { newestMoment } from "../../data/newest-moment";
import { trialsOfMachine } from "../../data/trials";
import { trialOfDocument } from "../../formats/document-history";
import { documentText } from "../../formats/json-document";
import { parseTrialDocument } from "../../formats/trial-document";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { benchView } from "../screens/bench-view";
import { loadDocument } from "./load-document";
import { roundFile } from "./round-files";
import { trialDocument } from "./trial-document";
import { fullTrial, historyOf } from "./trial-record";

let db: Database;
let proved: number;

beforeEach(() => {
  db = demoCopy();
  const bracken = machineBySlug(db, "bracken")?.id ?? 0;
  proved = trialsOfMachine(db, bracken).find((t) => t.end === "proved" && t.procedure === "scan-offset")?.id ?? 0;
});

describe("a trial taken away as a document", () => {
  it("holds everything it stands on: solved from the document alone it says the same", () => {
    const read = parseTrialDocument(documentText(trialDocument(db, proved)));
    if (!read.ok) throw new Error(`${read.fault.path}: ${read.fault.message}`);
    const trial = trialOfDocument(read.document);
    if (!trial.ok) throw new Error(`${trial.fault.path}: ${trial.fault.message}`);
    const full = fullTrial(db, proved);
    const here = historyOf(full, 2);
    const there = trial.trial.history;
    expect(there.tolerance).toBe(here.tolerance);
    expect(there.rounds.map((r) => r.spec)).toEqual(here.rounds.map((r) => r.spec));
    expect(there.rounds.map((r) => r.inForce)).toEqual(here.rounds.map((r) => r.inForce));
    there.rounds.forEach((round, i) => {
      round.answers.forEach((answer, k) => {
        const { session: _, ...mine } = here.rounds[i]?.answers[k] ?? { session: "" };
        const { session: __, ...theirs } = answer;
        expect(theirs).toEqual(mine);
      });
    });
    const judged = full.procedure.judge(here);
    expect(trial.trial.procedure.judge(there)?.lines).toEqual(judged?.lines);
    expect(read.document.verdicts[0]).toMatchObject({ round: 2, verdict: { result: "proved" } });
    expect(read.document.ended?.how).toBe("proved");
  });

  it("is downloaded as JSON", () => {
    const file = roundFile(db, proved, 2, "trial.json");
    expect(file).toMatchObject({ name: "bracken-b-2.2.json", mime: "application/json" });
    expect(JSON.parse(String(file.body)).format).toBe("ustrina trial");
  });
});

describe("a document loaded on another computer", () => {
  const elsewhere = () => openDatabase(":memory:");
  const text = () => documentText(trialDocument(db, proved));

  it("is the same trial there, on a machine that is added with it", () => {
    const there = elsewhere();
    const id = loadDocument(there, text(), NOW);
    const [here, loaded] = [fullTrial(db, proved), fullTrial(there, id)];
    expect(loaded.trial).toMatchObject({ code: here.trial.code, end: "proved", endedAt: here.trial.endedAt });
    expect(loaded.rounds.map((r) => [r.purpose, r.burnedAt, r.readBackAt, r.spec])).toEqual(
      here.rounds.map((r) => [r.purpose, r.burnedAt, r.readBackAt, r.spec]),
    );
    expect(loaded.rounds.flatMap((r) => r.readings.map((x) => [x.raw, x.takenAt, x.answer.content]))).toEqual(
      here.rounds.flatMap((r) => r.readings.map((x) => [x.raw, x.takenAt, x.answer.content])),
    );
    const solved = (full: typeof here) => full.procedure.judge(historyOf(full, 2))?.lines;
    expect(solved(loaded)).toEqual(solved(here));
    expect(benchView(there, NOW).machines[0]).toMatchObject({ slug: "bracken", spec: { name: "Bracken" } });
    expect(text()).toBe(
      documentText({
        ...trialDocument(there, id),
        gauges: trialDocument(db, proved).gauges,
        rounds: trialDocument(db, proved).rounds,
      }),
    );
  });

  it("is refused twice, and takes another number beside a trial of its name", () => {
    const there = elsewhere();
    loadDocument(there, text(), NOW);
    expect(refusal(() => loadDocument(there, text(), NOW)).message).toMatch(/on this bench already/);
    const other = { ...trialDocument(db, proved), begun: "2020-01-01T00:00:00.000Z" };
    expect(fullTrial(there, loadDocument(there, documentText(other), NOW)).trial.code).toBe("B-2-2");
  });

  it("is refused where a moment in it is still to come: nothing here would be after it", () => {
    const document = trialDocument(db, proved);
    const ahead = new Date(NOW + 86_400_000).toISOString();
    const last = document.rounds.length - 1;
    document.rounds[last]?.readings.forEach((r) => {
      r.taken = ahead;
    });
    const there = elsewhere();
    const { field, message } = refusal(() => loadDocument(there, documentText(document), NOW));
    expect(field).toBe("document");
    expect(message).toBe(
      `rounds[${last}].readings[0].taken: ${ahead} is still to come by the clock of this computer. Set the clock right, here or where the trial was run.`,
    );
    expect(newestMoment(there)).toBe(0);
    expect(() => loadDocument(there, documentText(document), NOW + 86_400_000)).not.toThrow();
  });

  it("leaves machine and gauges of this bench as they are", () => {
    const before = JSON.stringify(benchView(db, NOW).machines.map((m) => m.spec));
    const changed = trialDocument(db, proved);
    const document = {
      ...changed,
      code: "X-1",
      machine: { ...changed.machine, topSpeedMmPerS: 999 },
      gauges: changed.gauges.map((g) => ({ ...g, limitMm: 0.5 })),
    };
    const id = loadDocument(db, documentText(document), NOW);
    expect(fullTrial(db, id).machine.topSpeedMmPerS).toBe(999);
    expect(fullTrial(db, id).rounds[0]?.sessions[0]?.gauge.limitMm).toBe(0.5);
    expect(JSON.stringify(benchView(db, NOW).machines.map((m) => m.spec))).toBe(before);
    expect(fullTrial(db, proved).available.find((g) => g.id === "calipers")?.limitMm).toBe(0.02);
  });

  it("names the field at fault, and takes nothing", () => {
    const there = elsewhere();
    const broken = text().replace('"site": "v80-left"', '"site": "v81-left"');
    expect(refusal(() => loadDocument(there, broken, NOW)).message).toMatch(/^rounds\[0\]\.readings\[\d+\]\.site: /);
    expect(refusal(() => loadDocument(there, "nonsense", NOW)).message).toMatch(/not valid JSON/);
    expect(benchView(there, NOW).machines).toEqual([]);
  });

  it("proved elsewhere is due for a check here: what this controller holds is not known", () => {
    const there = elsewhere();
    const id = loadDocument(there, text(), NOW);
    const at = fullTrial(there, id).trial.endedAt ?? NOW;
    const state = () => benchView(there, at + 1000).machines[0]?.procedures.find((p) => p.id === "scan-offset");
    expect(state()).toMatchObject({ state: "check due", reasons: [expect.stringMatching(/another bench/)] });
  });

  it("may be the one written by hand or in a terminal", () => {
    const there = elsewhere();
    const id = loadDocument(there, readFileSync("examples/scan-offset/trial.json", "utf8"), NOW);
    expect(fullTrial(there, id).rounds[0]?.readings).toHaveLength(42);
    expect(benchView(there, NOW).open[0]).toMatchObject({ code: "T-1", detail: "read, correction to enter" });
  });
});
