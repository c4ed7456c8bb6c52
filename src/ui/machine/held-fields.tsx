"use client";
import { inUnit } from "../../core/metrology/quantity-text";
import { UNITS, type UnitId } from "../../core/metrology/units";
import { editableText } from "../../core/procedures/entry-text";
import type { HeldSetting, MachineSpec } from "../../core/procedures/machine-spec";
import type { KeptSetting } from "../../server/screens/machine-view";
import { CheckField, type Choice, PickField, TextField } from "../primitives/fields";

/** How a controller takes each setting, as typed, by key. */
export type HeldTexts = Record<
  string,
  {
    /** Whether the machine has it at all. */
    has: boolean;
    unit: UnitId;
    step: string;
    low: string;
    high: string;
    tableKind: HeldSetting["tableKind"];
    sense: 1 | -1;
  }
>;

const TABLE_KINDS: Choice[] = [
  { value: "not known", label: "not known" },
  { value: "interpolated", label: "interpolated" },
  { value: "exact speed only", label: "exact speeds only" },
];
/** A step of a thousandth of the unit that a setting is kept in is common practice, no source. */
const USUAL_STEP = 0.001;
const STEP_DECIMALS = 6;
export const NOT_KNOWN: HeldTexts[string] = {
  has: true,
  unit: "mm",
  step: "",
  low: "",
  high: "",
  tableKind: "not known",
  sense: 1,
};

type HeldProps = {
  setting: KeptSetting;
  value: HeldTexts[string];
  faultAt: (field: string) => string;
  onChange: (value: HeldTexts[string]) => void;
};

/** How the controller takes one setting. */
export function HeldFields({ setting, value, faultAt, onChange }: HeldProps) {
  const { label, shape, larger } = setting;
  const set = (change: Partial<HeldTexts[string]>) => onChange({ ...value, ...change });
  if (setting.onlyWhere !== null && !value.has)
    return (
      <CheckField
        label={setting.onlyWhere}
        checked={false}
        onChange={() => set({ has: true })}
        className="border-t border-hair pt-3"
      />
    );
  return (
    <fieldset className="grid gap-x-4 gap-y-3 border-t border-hair pt-3 sm:grid-cols-3">
      <legend className="float-left mb-2 w-full font-semibold sm:col-span-3">{label}</legend>
      {setting.onlyWhere !== null && (
        <CheckField label={setting.onlyWhere} checked onChange={() => set({ has: false })} className="sm:col-span-3" />
      )}
      <PickField
        label="It takes"
        value={value.unit}
        choices={unitsFor(setting.unit)}
        onChange={(unit) => set({ unit: unit as UnitId })}
      />
      <TextField label="Smallest step" value={value.step} onChange={(step) => set({ step })} fault={faultAt("step")} />
      {shape === "table" && (
        <PickField
          label="Its table is"
          value={value.tableKind}
          choices={TABLE_KINDS}
          onChange={(k) => set({ tableKind: k as HeldSetting["tableKind"] })}
        />
      )}
      {larger && (
        <PickField
          label="A larger entry"
          value={String(value.sense)}
          choices={[
            { value: "1", label: larger.positive },
            { value: "-1", label: larger.negative },
          ]}
          onChange={(sense) => set({ sense: sense === "1" ? 1 : -1 })}
        />
      )}
      <TextField label="Smallest value" value={value.low} onChange={(low) => set({ low })} fault={faultAt("low")} />
      <TextField label="Largest value" value={value.high} onChange={(high) => set({ high })} fault={faultAt("high")} />
      <p className="text-[14px] text-ink2 sm:col-span-3">Smallest and largest value empty: not known.</p>
    </fieldset>
  );
}

/** What is known of them, or usual. */
export function heldOf(spec: MachineSpec | null, all: readonly KeptSetting[]): HeldTexts {
  return Object.fromEntries(
    all.map(({ key, unit, onlyWhere, usualStep = USUAL_STEP }) => {
      const known = spec?.held[key];
      const own = known?.unit ?? unit;
      const end = (value: number | undefined) => (value === undefined ? "" : editableText(value, own));
      return [
        key,
        {
          has: onlyWhere === null || known !== undefined,
          ...{ unit: own, step: inUnit(known?.step ?? usualStep, own, STEP_DECIMALS) },
          ...{ low: end(known?.range?.low), high: end(known?.range?.high) },
          ...{ tableKind: known?.tableKind ?? NOT_KNOWN.tableKind, sense: known?.sense ?? NOT_KNOWN.sense },
        },
      ];
    }),
  );
}

/** Units of the same kind as that of the setting. */
function unitsFor(unit: UnitId): Choice[] {
  const { dimension } = UNITS[unit];
  const same = (Object.keys(UNITS) as UnitId[]).filter((id) => UNITS[id].dimension === dimension);
  return same.map((id) => ({ value: id, label: UNITS[id].symbol }));
}
