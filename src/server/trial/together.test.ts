/** Several settings of one form: each fault is named at its field, and either all values are saved or none. */
import { expect, it } from "vitest";
import { AXIS_SCALE } from "../../core/procedures/axis-scale/setting";
import { entryText } from "../../core/settings/entry-text";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf } from "../../data/machines";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import type { TypedRow } from "../ledger/typed-value";
import { burnOnPractice } from "./burn-on-practice";
import { confirmHeld, recordEntries } from "./correction-steps";
import { readAllOnPractice } from "./read-all-on-practice";
import { fullTrial, historyOf, readingStamp } from "./trial-record";
import { beginTrial, openSession } from "./trial-steps";

const one = (text: string): TypedRow[] => [{ at: null, text }];

it("confirms and records two scales at once, or neither", () => {
  const db = demoCopy();
  const id = beginTrial(db, "alder", "axis-scale", NOW);
  const { machineId } = fullTrial(db, id).trial;
  const written = () => entriesOf(db, ownerOfMachine(machineId)).length;
  const before = written();
  burnOnPractice(db, id, 1, null, NOW + 1);
  openSession(db, id, 1, "calipers", { outside: 0, inside: 0 }, NOW + 2);
  readAllOnPractice(db, id, 1, "test", (taken) => NOW + 3 + taken);

  const wrong = refusal(() => confirmHeld(db, id, 1, { [AXIS_SCALE.x]: one("6.2"), [AXIS_SCALE.y]: one("six") }, NOW));
  expect(wrong.field).toBe("axis scale y value");
  expect(fullTrial(db, id).rounds[0]).toMatchObject({ readBackAt: null });
  expect(written()).toBe(before);

  confirmHeld(db, id, 1, { [AXIS_SCALE.x]: one("6.2"), [AXIS_SCALE.y]: one("6.3") }, NOW + 500);
  expect(fullTrial(db, id).rounds[0]?.readBackAt).toBe(NOW + 500);
  const confirmed = written();
  expect(confirmed).toBe(before + 2);

  const full = fullTrial(db, id);
  const outcome = full.procedure.solve(historyOf(full, 1));
  if (outcome.status !== "solved") throw new Error(outcome.status);
  const computed = Object.fromEntries(
    outcome.corrections.map((c) => [c.setting, c.rows.map((row) => ({ at: row.at, text: entryText(row.enter, c) }))]),
  );
  const holderId = holdersOf(db, machineId).find((h) => h.role === "controller")?.id ?? 0;
  const record = (rows: Record<string, TypedRow[]>) =>
    recordEntries(db, { trialId: id, n: 1, holderId, rows, readBack: true, seen: readingStamp(full, 1) }, NOW + 600);

  const refused = refusal(() => record({ [AXIS_SCALE.x]: one(""), [AXIS_SCALE.y]: one("a bit") }));
  expect([refused.field, ...refused.more.map((f) => f.field)]).toEqual(["axis scale x value", "axis scale y value"]);
  refusal(() => record({ ...computed, [AXIS_SCALE.y]: one("a bit") }));
  expect(written()).toBe(confirmed);

  expect(record(computed)).toHaveLength(2);
  expect(written()).toBe(confirmed + 2);
});
