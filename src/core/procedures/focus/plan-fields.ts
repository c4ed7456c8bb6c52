/** What is asked before the focus is looked for, by kind of machine and by way. */

import type { MachineSpec } from "../../machine/machine-spec";
import type { FieldSpec } from "../../trial/plan-form";
import {
  CELL_MARKS,
  DOSES,
  FOCUS_WAYS,
  type FocusWay,
  JUDGED,
  MOVES,
  RAMP_READ,
  READ_AT,
  RUN_ALONG,
  SENSES,
  SET_IN,
  STORED_HEIGHT,
} from "./plan-type";

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;
const height = { ...length, signed: true } as const;
const choice = (of: Record<string, string>, why: Record<string, string> = {}) => ({
  kind: "choice" as const,
  options: Object.entries(of).map(([value, label]) => ({ value, label, why: why[value] ?? "" })),
});

const WHY_WAYS: Record<FocusWay, string> = {
  ladder: "Sure and simple; it takes as many settings of the height as it has cells.",
  ramp: "One setting of the height, one line; it takes a plate that can be propped.",
  sweep: "Quick, on metal: the brightest and loudest point is the focus. No piece to keep.",
};

export function fieldsFor(machine: MachineSpec): FieldSpec[] {
  const way: FieldSpec = {
    key: "way",
    label: "How it is looked for",
    group: "Way",
    ...choice(FOCUS_WAYS, WHY_WAYS),
    why: "",
  };
  return [
    way,
    ...heightFields(machine),
    ...(machine.held[STORED_HEIGHT] ? STORED_FIELDS : []),
    ...LIMIT_FIELDS,
    ...LADDER_FIELDS.map((f) => onlyFor(f, ["ladder"])),
    ...RAMP_FIELDS.map((f) => onlyFor(f, ["ramp"])),
    ...markFields(machine),
    ...STOCK_FIELDS,
  ];
}

function onlyFor(field: FieldSpec, ways: readonly FocusWay[]): FieldSpec {
  return { ...field, when: { field: "way", is: ways } };
}

function heightFields({ kind }: MachineSpec): FieldSpec[] {
  const group = "Heights";
  const moves: FieldSpec = {
    key: "moves",
    label: "Who moves the height",
    group,
    ...choice(MOVES),
    why: "Lens or table, whichever moves here.",
  };
  return [
    // A galvo takes no program that could move its column.
    ...(kind === "galvo" ? [] : [onlyFor(moves, ["ladder"])]),
    { key: "readAt", label: "Heights are read", group, ...choice(READ_AT), why: "" },
    {
      key: "allowanceMm",
      label: "Rule allowance",
      group,
      ...length,
      why: "What comes on top, because the rule does not begin at its zero; 0 for blocks.",
      when: { field: "readAt", is: ["rule"] },
    },
    {
      key: "settableMm",
      label: "Heights are good to",
      group,
      ...length,
      why: "The smallest difference that you can set and read.",
    },
  ];
}

/** Only where the machine finds its height by a stored number. */
const STORED_FIELDS: FieldSpec[] = [
  { key: "setIn", label: "What is set in the end", group: "Heights", ...choice(SET_IN), why: "" },
  {
    key: "homedMm",
    label: "It comes by itself to",
    group: "Heights",
    ...height,
    why: "With the number that it holds now, read as the heights are.",
    when: { field: "setIn", is: ["stored"] },
  },
  {
    key: "sense",
    label: "A larger stored number",
    group: "Heights",
    ...choice(SENSES),
    why: "",
    when: { field: "setIn", is: ["stored"] },
  },
  {
    key: "triedNumberMm",
    label: "Number tried",
    group: "Heights",
    ...height,
    why: "A little away from the one it holds. Put that back afterwards.",
    when: { field: "sense", is: ["not known"] },
  },
  {
    key: "triedHomedMm",
    label: "With it, it comes to",
    group: "Heights",
    ...height,
    why: "Read as the heights are.",
    when: { field: "sense", is: ["not known"] },
  },
];

const LIMIT_FIELDS: FieldSpec[] = [
  {
    key: "lowestMm",
    label: "Never below",
    group: "Heights",
    ...height,
    why: "Nothing touches lens or work from here",
  },
  { key: "highestMm", label: "Never above", group: "Heights", ...height, why: "up to here." },
];

const LADDER_FIELDS: FieldSpec[] = [
  {
    key: "firstMm",
    label: "Lowest number",
    group: "Ladder",
    ...height,
    why: "As you read it: at a rule, a scale or the readout.",
  },
  { key: "stepMm", label: "Step", group: "Ladder", ...length, why: "0.5 to 1 mm is usual." },
  {
    key: "count",
    label: "Cells",
    group: "Ladder",
    kind: "count",
    why: "So many that the first and the last do not mark.",
  },
];

const RAMP_FIELDS: FieldSpec[] = [
  {
    key: "lowMm",
    label: "Height over the low end",
    group: "Ramp",
    ...height,
    why: "Over the low end of the line, as you read it. It stays so for the whole burn.",
  },
  { key: "riseMm", label: "Rise", group: "Ramp", ...length, why: "How much higher the far end is propped" },
  { key: "runMm", label: "Run", group: "Ramp", ...length, why: "over this length." },
  { key: "runAlong", label: "The run is measured", group: "Ramp", ...choice(RUN_ALONG), why: "" },
  {
    key: "slopeGoodMm",
    label: "Rise and run are good to",
    group: "Ramp",
    ...length,
    why: "It limits how well the focus can be told.",
  },
  {
    key: "thicknessMm",
    label: "Sheet on the plate",
    group: "Ramp",
    ...length,
    why: "Its thickness, where the low height was read down to the bare plate; else 0.",
  },
  {
    key: "headReachMm",
    label: "Head beyond its beam",
    group: "Ramp",
    ...length,
    why: "How far the head reaches uphill: there it must not touch.",
  },
  { key: "rampRead", label: "Places are read", group: "Ramp", ...choice(RAMP_READ), why: "" },
];

function markFields({ kind }: MachineSpec): FieldSpec[] {
  const group = "Marks";
  const pulses: FieldSpec = {
    key: "pulseKHz",
    label: "Pulses, kHz",
    group,
    kind: "count",
    why: "As in daily work with this lens.",
  };
  const burned = ["ladder", "ramp"] as const;
  return [
    onlyFor({ key: "marks", label: "A cell holds", group, ...choice(CELL_MARKS), why: "" }, ["ladder"]),
    onlyFor({ key: "judged", label: "Judged", group, ...choice(JUDGED), why: "" }, burned),
    {
      key: "doses",
      label: "What marks",
      group,
      ...choice(DOSES),
      why: "It does not move the focus, only the size of the spot.",
      when: { field: "judged", is: ["by widths"] },
    },
    onlyFor(
      {
        key: "passes",
        label: "Passes each way",
        group,
        kind: "count",
        why: "Up and down through the brightest point: the difference is the play of the screw.",
      },
      ["sweep"],
    ),
    onlyFor(
      {
        key: "squareMm",
        label: "Side of the square",
        group,
        ...length,
        why: "Small, so that it is marked again and again.",
      },
      ["sweep"],
    ),
    { key: "speedMmPerS", label: "Speed", group, kind: "quantity", dimension: "speed", unit: "mmPerS", why: "" },
    { key: "powerPct", label: "Power, %", group, kind: "count", why: "So low that it marks near focus only." },
    ...(kind === "galvo" ? [pulses] : []),
    onlyFor(
      {
        key: "looks",
        label: "Looks for the sharpest",
        group,
        kind: "count",
        why: "Where the focus is deep the eye scatters: look again later, or let another look.",
      },
      burned,
    ),
  ];
}

const STOCK_FIELDS: FieldSpec[] = [
  { key: "stockWidthMm", label: "Stock width", group: "Stock", ...length, why: "" },
  { key: "stockHeightMm", label: "Stock height", group: "Stock", ...length, why: "" },
  {
    key: "stockAtXMm",
    label: "Lies at X",
    group: "Stock",
    ...length,
    why: "Lower left corner, from the left edge of the working area.",
  },
  { key: "stockAtYMm", label: "Lies at Y", group: "Stock", ...length, why: "From its front edge." },
];
