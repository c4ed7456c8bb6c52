/**
 * The demo: the label workshop of a botanic garden. Everything in it is invented.
 *
 * Its history is made by running trials on practice machines through the very steps that the screens use.
 */

import type { FieldTerm } from "../../core/geometry/field-term";
import { USUAL_DIALECT } from "../../core/machine/gcode-dialect";
import { type MachineSpec, machineSpecSchema, UNKNOWN_AXES } from "../../core/machine/machine-spec";
import { type OpticSpec, opticOf, rotaryOf } from "../../core/machine/part-spec";
import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import { AXIS_SCALE } from "../../core/procedures/axis-scale/setting";
import { FIELD_SCALE, fieldKey } from "../../core/procedures/field/setting";
import { FOCUS_HEIGHT } from "../../core/procedures/focus/plan";
import { ORIENTATION_SETTINGS } from "../../core/procedures/orientation/setting";
import { HOME_OFFSET } from "../../core/procedures/origin/setting";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "../../core/procedures/rotary/setting";
import { SCAN_OFFSET } from "../../core/procedures/scan-offset/plan";
import { ROW_SHIFT } from "../../core/procedures/scan-offset/setting";
import { editableText, entryText } from "../../core/settings/entry-text";
import type { Draft } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { addGauge, gaugeKeys } from "../../data/gauges";
import { toColumn } from "../../data/json-column";
import { addEntry, ownerOfMachine } from "../../data/ledger";
import { addMachine, type HolderRole, holdersOf, type Machine, machineSlugs } from "../../data/machines";
import { addPart, allParts, fitPart } from "../../data/parts";
import { addPractice } from "../../data/practice";
import { batchByKey, everyStock } from "../../data/stocks";
import type { PracticeController } from "../../practice/gantry-truth";
import { isGalvo, type PracticeTruth, practiceFromSeed } from "../../practice/practice-truth";
import type { RotaryTruth } from "../../practice/rotary-truth";
import { USUAL_GAUGES } from "../gauges/usual-gauges";
import { writeDown } from "../ledger/ledger-steps";
import type { TypedRow } from "../ledger/typed-value";
import { wear } from "../practice/practice-machine";
import { settingUnit } from "../procedures/settings";
import { keepStock, takeThickness } from "../stock/stock-steps";
import { burnOnPractice } from "../trial/burn-on-practice";
import { beginCheck } from "../trial/check-steps";
import { acceptVerdict, confirmHeld, layOutNext, recordEntries } from "../trial/correction-steps";
import { readAllOnPractice } from "../trial/read-all-on-practice";
import { fullTrial, historyOf, readingStamp, roundOf } from "../trial/trial-record";
import { beginTrial, keepDraft, openSession } from "../trial/trial-steps";
import { keepForStock } from "../trial/trial-stock";

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
const DEMO_CHECKS = 11;
const DAYS_BETWEEN_CHECKS = 35;

export const DEMO_GAUGES: Gauge[] = [
  ...USUAL_GAUGES,
  gaugeAsUsual("calipers", { id: "inch-calipers", name: "Inch calipers", unit: "in" }),
  gaugeAsUsual("microscope"),
];

/** Both drives take so many µm a pulse. */
const SCALES = Object.fromEntries(
  Object.values(AXIS_SCALE).map((key) => [
    key,
    { unit: "um", step: 1e-6, range: null, tableKind: "not known", sense: -1 } as const,
  ]),
);

/** It counts its home offsets in thousandths of an inch. */
const HOMES = Object.fromEntries(
  Object.values(HOME_OFFSET).map((key) => [
    key,
    { unit: "counts", step: 1, range: { low: -400, high: 400 }, tableKind: "not known", sense: 1 } as const,
  ]),
);
/** Coefficients that the controller of Cinder holds. */
const FORM_OF_CINDER: readonly FieldTerm[] = ["bow x", "bow y", "keystone x", "keystone y", "shear"];

/** As its controller showed them on the first visit. */
const CINDER_FOUND: Record<string, string> = {
  ...Object.fromEntries(ORIENTATION_SETTINGS.map(({ key }) => [key, "off"])),
  ...Object.fromEntries(Object.values(FIELD_SCALE).map((key) => [key, "100"])),
  ...Object.fromEntries(FORM_OF_CINDER.map((term) => [fieldKey(term), "0"])),
};
/** Its column settles meanwhile, so that its focus is found elsewhere. */
const WORN_MONTHS = 20;
const HOMES_FOUND = { [HOME_OFFSET.x]: 120, [HOME_OFFSET.y]: 80 };

/** It turns bamboo tubes and bottles in the place of Y. */
const ROTARY = {
  [ROTARY_STEPS]: { unit: "steps", step: 1, range: { low: 100, high: 200_000 }, tableKind: "not known", sense: 1 },
  [ROLLER_DIAMETER]: { unit: "mm", step: 0.01, range: { low: 1, high: 200 }, tableKind: "not known", sense: -1 },
} as const;
const ROTARY_FOUND = { [ROTARY_STEPS]: 6400, [ROLLER_DIAMETER]: 20 };
const BOTTLE_ROLLERS = rotaryOf({
  label: "Bottle rollers",
  drive: "roller",
  rollerDiameterMm: 20,
  motorSteps: 200,
  microsteps: 16,
  ratio: 2,
  thinnestMm: 8,
  thickestMm: 90,
  mostStepsPerS: 12_000,
  setAside: ["limits", "homing", "scale"],
});
/** Put away beside them: nobody knows its steps, and it slips. */
const WORN_ROLLERS = rotaryOf({ label: "Worn rollers", drive: "roller", setAside: ["limits", "homing"] });
const WORN: RotaryTruth = {
  stepsByFound: 2.5,
  rollerByFound: 1.004,
  slipThere: 0.002,
  slipBack: 0.009,
  gripSd: 0.0002,
  runoutMm: 0,
  runoutRad: 0,
  playMm: 0.1,
  turns: 1,
};
const RING_CHUCK = rotaryOf({ label: "Ring chuck", drive: "chuck", stepsPerRevolution: 12_800, thickestMm: 80 });

const ALDER: MachineSpec = machineSpecSchema.parse({
  name: "Alder",
  kind: "CO2 gantry",
  widthMm: 900,
  depthMm: 600,
  topSpeedMmPerS: 600,
  accelerationMmPerS2: 6000,
  wavelengthNm: 10600,
  axes: { home: "back left", x: "to the right", y: "away" },
  workingSpeedsMmPerS: [150, 300, 400],
  gcode: USUAL_DIALECT,
  scansBlocks: true,
  held: {
    [FOCUS_HEIGHT]: { unit: "mm", step: 0.1, range: null, tableKind: "not known", sense: 1 },
    [SCAN_OFFSET]: { unit: "mm", step: 0.001, range: null, tableKind: "interpolated", sense: 1 },
    [ROW_SHIFT]: { unit: "mm", step: 0.01, range: { low: -2, high: 2 }, tableKind: "not known", sense: 1 },
    ...SCALES,
    ...HOMES,
  },
  tolerances: {},
  recheckDays: {},
});

const BRACKEN: MachineSpec = machineSpecSchema.parse({
  name: "Bracken",
  kind: "diode gantry",
  widthMm: 400,
  depthMm: 400,
  topSpeedMmPerS: 250,
  accelerationMmPerS2: 3000,
  wavelengthNm: 455,
  axes: { home: "front left", x: "to the right", y: "away" },
  workingSpeedsMmPerS: [60, 100],
  gcode: USUAL_DIALECT,
  scansBlocks: false,
  held: {
    [FOCUS_HEIGHT]: { unit: "mm", step: 0.1, range: null, tableKind: "not known", sense: 1 },
    [SCAN_OFFSET]: { unit: "mm", step: 0.001, range: null, tableKind: "interpolated", sense: 1 },
    ...SCALES,
    ...ROTARY,
  },
  tolerances: {},
  recheckDays: { "axis-scale": 730 },
});

/** Its controller says what its keystone and shear do, and nothing of its bow. */
const FIELD_OF_CINDER = {
  ...Object.fromEntries(
    ORIENTATION_SETTINGS.map(({ key, unit }) => [
      key,
      { unit, step: 1, range: null, tableKind: "not known", sense: 1 } as const,
    ]),
  ),
  ...Object.fromEntries(
    Object.values(FIELD_SCALE).map((key) => [
      key,
      { unit: "percent", step: 1e-5, range: { low: 0.8, high: 1.2 }, tableKind: "not known", sense: 1 } as const,
    ]),
  ),
  ...Object.fromEntries(
    FORM_OF_CINDER.map((term) => [
      fieldKey(term),
      {
        unit: "one",
        step: 0.1,
        range: { low: -100, high: 100 },
        tableKind: "not known",
        sense: 1,
        ...(term.startsWith("bow") ? {} : { effectMm: 0.02 }),
      } as const,
    ]),
  ),
};

const CINDER: MachineSpec = machineSpecSchema.parse({
  name: "Cinder",
  kind: "galvo",
  widthMm: 110,
  depthMm: 110,
  topSpeedMmPerS: 4000,
  accelerationMmPerS2: null,
  wavelengthNm: 1064,
  axes: UNKNOWN_AXES,
  workingSpeedsMmPerS: [800, 1500],
  gcode: USUAL_DIALECT,
  scansBlocks: false,
  held: {
    [FOCUS_HEIGHT]: { unit: "mm", step: 0.1, range: null, tableKind: "not known", sense: 1 },
    ...FIELD_OF_CINDER,
  },
  tolerances: {},
  recheckDays: {},
});

const DEMO_NAMES = ["Alder", "Bracken", "Cinder"] as const;

/** Whether the demo bench, or a machine with one of its names, is on the bench. */
export function hasDemoBench(db: Db): boolean {
  const taken = new Set(machineSlugs(db));
  return DEMO_NAMES.some((name) => taken.has(name.toLowerCase()));
}

/** Adds the demo bench in one transaction, also beside other machines. Does nothing if a machine has one of its names. */
export function addDemoBench(db: Db, now: number): void {
  if (hasDemoBench(db)) return;
  db.transaction((tx) => setOut(tx, now));
}

/** A label that no part has. The workshop may have its own lens of 50.8 mm. */
function freeLabel(db: Db, label: string): string {
  const taken = new Set(allParts(db).map((p) => p.spec.label));
  return taken.has(label) ? `${label}, demo` : label;
}

function freeCardName(db: Db, name: string): string {
  return everyStock(db).some((s) => s.spec.name === name) ? `${name}, demo` : name;
}

function setOut(db: Db, now: number): void {
  const opened = now - 420 * DAY_MS;
  const known = new Set(gaugeKeys(db));
  for (const gauge of DEMO_GAUGES) if (!known.has(gauge.id)) addGauge(db, gauge, opened);
  const alder = addDemoMachine(
    db,
    "alder",
    ALDER,
    417,
    opticOf({ label: freeLabel(db, "50.8"), focalLengthMm: 50.8, wavelengthNm: 10600, ringDiameterMm: 20 }),
    [
      { name: "Controller of Alder", role: "controller" },
      { name: "Office computer, second program", role: "copy" },
      { name: "Ustrina's own G-code", role: "ustrina" },
    ],
    opened,
  );
  const bracken = addDemoMachine(
    db,
    "bracken",
    BRACKEN,
    902,
    opticOf({ label: freeLabel(db, "fixed, 45 mm"), focalLengthMm: 45, wavelengthNm: 455 }),
    [
      { name: "Ustrina's own G-code", role: "ustrina" },
      { name: "Controller of Bracken", role: "controller" },
    ],
    opened,
  );
  const cinder = addDemoMachine(
    db,
    "cinder",
    CINDER,
    233,
    opticOf({
      label: freeLabel(db, "F163"),
      focalLengthMm: 163,
      workingDistanceMm: 182,
      fieldMm: 110,
      wavelengthNm: 1064,
      ringDiameterMm: 85,
      printed: "1064 F163 110×110",
    }),
    [{ name: "Controller of Cinder", role: "controller" }],
    opened,
  );
  for (const machine of [alder, bracken]) asFound(db, machine, opened + 10 * MINUTE_MS);
  for (const [part, machine] of [
    [BOTTLE_ROLLERS, bracken],
    [RING_CHUCK, cinder],
  ] as const)
    fitPart(
      db,
      machine.id,
      "rotary",
      addPart(db, { kind: "rotary", ...part, label: freeLabel(db, part.label) }, opened),
      opened,
    );
  addPart(db, { kind: "rotary", ...WORN_ROLLERS, label: freeLabel(db, WORN_ROLLERS.label) }, opened);
  numbersFound(db, alder, HOMES_FOUND, opened + 12 * MINUTE_MS);
  numbersFound(db, bracken, ROTARY_FOUND, opened + 13 * MINUTE_MS);
  provedTrial(db, bracken, LENGTHS_RIGHT, now - 405 * DAY_MS);
  provedTrial(db, bracken, ROWS_IN_LINE, now - 400 * DAY_MS);
  for (let i = 0; i < DEMO_CHECKS; i++)
    heldCheck(db, bracken, now - (12 + (DEMO_CHECKS - 1 - i) * DAYS_BETWEEN_CHECKS) * DAY_MS);
  numbersFound(db, cinder, CINDER_FOUND, opened + 14 * MINUTE_MS);
  provedTrial(db, cinder, LIES_AS_DRAWN, now - 96 * DAY_MS);
  provedTrial(db, cinder, FOCUSED, now - 94 * DAY_MS);
  provedTrial(db, cinder, FIELD_RIGHT, now - 92 * DAY_MS);
  wear(db, cinder.id, WORN_MONTHS);
  provedTrial(db, cinder, { ...FOCUSED, held: "in force" }, now - 12 * DAY_MS);
  provedTrial(db, alder, FOCUSED, now - 33 * DAY_MS);
  provedTrial(db, alder, LENGTHS_RIGHT, now - 32 * DAY_MS);
  provedTrial(db, bracken, FOCUSED, now - 61 * DAY_MS);
  const birch = cardsOfStock(db, now - 58 * DAY_MS);
  provedTrial(db, bracken, { ...KERF_TOLD, draft: { ...KERF_TOLD.draft, stock: birch } }, now - 57 * DAY_MS);
}

/** Two stocks of the workshop: the thickness of the birch is measured, that of the acrylic is not. @returns key of the birch batch */
function cardsOfStock(db: Db, at: number): string {
  const birch = keepStock(
    db,
    {
      slug: null,
      name: freeCardName(db, "Birch plywood 3 mm"),
      nominal: "3 mm",
      batch: "spring",
      note: "Stakes and label holders.",
    },
    at,
  );
  const key = `${birch}/spring`;
  const batchId = batchByKey(db, key)?.batch.id ?? 0;
  takeThickness(
    db,
    {
      stock: birch,
      batchId,
      text: "2.94 3.02 2.97 2.99 3.01",
      gauge: "calipers",
      sure: false,
      clientKey: "demo birch",
    },
    at + 5 * MINUTE_MS,
  );
  keepStock(
    db,
    {
      slug: null,
      name: freeCardName(db, "Clear acrylic 5 mm"),
      nominal: "5 mm",
      batch: "1",
      note: "Markers of the beds.",
    },
    at + 10 * MINUTE_MS,
  );
  return key;
}

function addDemoMachine(
  db: Db,
  slug: string,
  spec: MachineSpec,
  seed: number,
  optic: OpticSpec,
  holders: { name: string; role: HolderRole }[],
  at: number,
): Machine {
  const machine = addMachine(db, slug, spec, holders, at);
  fitPart(db, machine.id, "optic", addPart(db, { kind: "optic", ...optic }, at), at);
  const drawn = practiceFromSeed(seed, spec);
  const rotaries = { [freeLabel(db, WORN_ROLLERS.label)]: WORN };
  const truth: PracticeTruth = isGalvo(drawn)
    ? { ...drawn, rotaries }
    : { ...drawn, rotaries, accelerationMmPerS2: (spec.accelerationMmPerS2 ?? 3000) * 1.1 };
  const controller: PracticeController = { table: [], switchedOn: true };
  addPractice(db, { machineId: machine.id, truth: toColumn(truth), controller: toColumn(controller) });
  return machine;
}

/** Enters what a round says at the holder that acts on burns. */
function recordAll(db: Db, trialId: number, n: number, { role }: Told, at: number): void {
  const full = fullTrial(db, trialId);
  const outcome = full.procedure.solve(historyOf(full, n));
  if (outcome.status !== "solved") throw new Error("the demo trial cannot be solved");
  const holderId = holdersOf(db, full.trial.machineId).find((h) => h.role === role)?.id ?? 0;
  if (outcome.forStock) keepForStock(db, trialId, n, readingStamp(full, n), at);
  const rows = Object.fromEntries(
    outcome.corrections.map((c) => [c.setting, c.rows.map((row) => ({ at: row.at, text: entryText(row.enter, c) }))]),
  );
  recordEntries(db, { trialId, n, holderId, rows, readBack: true, seen: readingStamp(full, n) }, at);
}

/** The first visit: every holder's table is read back and written down as found. */
function asFound(db: Db, machine: Machine, at: number): void {
  for (const holder of holdersOf(db, machine.id))
    addEntry(
      db,
      {
        owner: ownerOfMachine(machine.id),
        setting: SCAN_OFFSET,
        holderId: holder.id,
        value: { shape: "table", rows: [] },
        unit: "mm",
        u: null,
        origin: "found",
        solutionId: null,
        trialId: null,
        readBack: true,
        note: "first visit: the table was empty",
      },
      at,
    );
}

/** On the same visit: what its controller showed of where it homes, or of its rotary. */
function numbersFound(db: Db, { slug, id }: Machine, found: Record<string, number | string>, at: number): void {
  const holderId = holdersOf(db, id).find((h) => h.role === "controller")?.id ?? 0;
  for (const [setting, value] of Object.entries(found))
    writeDown(
      db,
      {
        machine: slug,
        setting,
        holderId,
        rows: [{ at: null, text: String(value) }],
        origin: "found",
        note: "first visit",
        readBack: true,
      },
      at,
    );
}

type Told = {
  procedure: string;
  settings: string[];
  role: HolderRole;
  draft: Draft;
  /** `null` = by eye. */
  gauge: string | null;
  /** What was held till then; `null` = nobody knows, `in force` = what the ledger says. */
  held: TypedRow[] | "in force" | null;
};

/** With the calipers, into Ustrina's own G-code. */
const ROWS_IN_LINE: Told = {
  procedure: "scan-offset",
  settings: [SCAN_OFFSET],
  role: "ustrina",
  gauge: "calipers",
  held: [],
  draft: { speedsMmPerS: "40 80 120 160 200 240", repeats: "3" },
};

/** By hand and by eye, heights set to a fifth of a millimetre. */
const FOCUSED: Told = {
  procedure: "focus",
  settings: [FOCUS_HEIGHT],
  role: "controller",
  gauge: null,
  held: null,
  draft: { settableMm: "0.2" },
};

/** Part and hole with the calipers. */
const KERF_TOLD: Told = {
  procedure: "kerf",
  settings: [],
  role: "controller",
  gauge: "calipers",
  held: null,
  draft: { speedMmPerS: "8", repeats: "4" },
};

/** With the calipers over what they reach, the number of each drive as it was found. */
const LENGTHS_RIGHT: Told = {
  procedure: "axis-scale",
  settings: Object.values(AXIS_SCALE),
  role: "controller",
  gauge: "calipers",
  draft: { intervals: "5", repeats: "2" },
  held: [{ at: null, text: "6.25" }],
};

/** By eye, into the controller. */
const LIES_AS_DRAWN: Told = {
  procedure: "orientation",
  settings: ORIENTATION_SETTINGS.map((s) => s.key),
  role: "controller",
  gauge: null,
  held: "in force",
  draft: {},
};

/** With the calipers; what the bow does is not known, so that a burn shows it. */
const FIELD_RIGHT: Told = {
  procedure: "field",
  settings: [...Object.values(FIELD_SCALE), ...FORM_OF_CINDER.map(fieldKey)],
  role: "controller",
  gauge: "calipers",
  held: "in force",
  draft: { way: "seven", repeats: "3" },
};

/** Most burns of a demo trial. */
const MOST_BURNS = 6;

/** A whole trial on the practice machine, from layout to the accepted proof. */
function provedTrial(db: Db, machine: Machine, told: Told, at: number): void {
  const trialId = beginTrial(db, machine.slug, told.procedure, at);
  const first = roundOf(fullTrial(db, trialId), 1);
  keepDraft(db, trialId, 1, { ...first.draft, ...told.draft });
  let [n, moment] = [1, at];
  burnAndRead(db, trialId, n, told.gauge, moment + 15 * MINUTE_MS);
  while (n < MOST_BURNS) {
    confirmAll(db, trialId, n, told, moment + 40 * MINUTE_MS);
    recordAll(db, trialId, n, told, moment + 45 * MINUTE_MS);
    n = layOutNext(db, trialId, moment + 55 * MINUTE_MS);
    burnAndRead(db, trialId, n, told.gauge, moment + 60 * MINUTE_MS);
    const full = fullTrial(db, trialId);
    const verdict = full.procedure.judge(historyOf(full, n));
    if (verdict && verdict.result !== "not proved") break;
    moment += 60 * MINUTE_MS;
  }
  acceptVerdict(db, trialId, moment + 80 * MINUTE_MS);
}

function confirmAll(db: Db, trialId: number, n: number, { settings, held }: Told, at: number): void {
  const { machine, rounds } = fullTrial(db, trialId);
  const inForce = rounds.find((r) => r.n === n)?.inForce;
  const typed = settings.map((setting) => {
    const value = inForce?.[setting];
    const text = value?.shape === "scalar" ? editableText(value.value, settingUnit(machine, setting)) : null;
    return [setting, held === "in force" ? (text === null ? null : [{ at: null, text }]) : held] as const;
  });
  confirmHeld(db, trialId, n, Object.fromEntries(typed), at);
}

/** A check months later, on a machine that has worn a little. */
function heldCheck(db: Db, machine: Machine, at: number): void {
  wear(db, machine.id, 1);
  const trialId = beginCheck(db, machine.slug, "scan-offset", at);
  burnAndRead(db, trialId, 1, "calipers", at + 10 * MINUTE_MS);
  acceptVerdict(db, trialId, at + 30 * MINUTE_MS);
}

function burnAndRead(db: Db, trialId: number, n: number, gauge: string | null, at: number): void {
  burnOnPractice(db, trialId, n, null, at);
  openSession(db, trialId, n, gauge, { outside: 0, inside: gauge === "calipers" ? 0 : null }, at + 4 * MINUTE_MS);
  readAllOnPractice(db, trialId, n, "demo", (taken) => at + 5 * MINUTE_MS + taken * 20_000);
}
