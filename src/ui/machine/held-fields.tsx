"use client";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { inUnit } from "../../core/metrology/quantity-text";
import { UNITS, type UnitId } from "../../core/metrology/units";
import { editableText } from "../../core/settings/entry-text";
import type { HeldSetting } from "../../core/settings/setting";
import { senseFixedBy, unitsOf, usualStepIn } from "../../core/settings/setting";
import type { KeptSetting } from "../../server/screens/machine-view";
import { CheckBox } from "../primitives/check-box";
import type { Choice } from "../primitives/closed-pick";
import { PickField, TextField } from "../primitives/fields";

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
    effect: string;
    sense: 1 | -1 | "not known";
  }
>;

const TABLE_KINDS: Choice[] = [
  { value: "not known", label: "not known" },
  { value: "interpolated", label: "interpolated" },
  { value: "exact speed only", label: "exact speeds only" },
];
const STEP_DECIMALS = 9;
/** An effect that burns have shown is good to no more figures. */
const EFFECT_FIGURES = 3;
export const NOT_KNOWN: HeldTexts[string] = {
  has: true,
  unit: "mm",
  step: "",
  low: "",
  high: "",
  tableKind: "not known",
  effect: "",
  sense: "not known",
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
  const isSwitch = UNITS[value.unit].dimension === "switch";
  if (setting.onlyWhere !== null && !value.has)
    return (
      <CheckBox
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
        <CheckBox label={setting.onlyWhere} checked onChange={() => set({ has: false })} className="sm:col-span-3" />
      )}
      {!isSwitch && setting.effect === undefined && (
        <PickField
          label="It takes"
          value={value.unit}
          choices={unitsOf(setting).map((id) => ({ value: id, label: UNITS[id].symbol || "no unit" }))}
          onChange={(unit) => set(inOtherUnit(setting, value, unit as UnitId))}
        />
      )}
      {!isSwitch && (
        <TextField
          label="Smallest step"
          value={value.step}
          onChange={(step) => set({ step })}
          fault={faultAt("step")}
        />
      )}
      {shape === "table" && (
        <PickField
          label="Its table is"
          value={value.tableKind}
          choices={TABLE_KINDS}
          onChange={(k) => set({ tableKind: k as HeldSetting["tableKind"] })}
        />
      )}
      {larger && senseFixedBy(setting, value.unit) === null && (
        <PickField
          label={setting.senseLabel ?? "A larger entry"}
          value={String(value.sense)}
          choices={[
            { value: "1", label: larger.positive },
            { value: "-1", label: larger.negative },
            { value: "not known", label: "not known" },
          ]}
          onChange={(sense) => set({ sense: senseOf(sense) })}
          why={value.sense === "not known" ? "The second burn shows it." : undefined}
        />
      )}
      {setting.effect && (
        <TextField
          label={setting.effect}
          value={value.effect}
          onChange={(effect) => set({ effect })}
          fault={faultAt("effect")}
          why={value.effect === "" ? "Leave empty if unknown. Two burns measure it." : "For an increase of 1."}
        />
      )}
      {!isSwitch && (
        <>
          <TextField label="Smallest value" value={value.low} onChange={(low) => set({ low })} fault={faultAt("low")} />
          <TextField
            label="Largest value"
            value={value.high}
            onChange={(high) => set({ high })}
            fault={faultAt("high")}
          />
        </>
      )}
      <p className="text-[14px] text-ink2 sm:col-span-3">
        {isSwitch
          ? "Switch, on or off."
          : `${setting.about ? `${setting.about} ` : ""}Smallest and largest value empty: not known.`}
      </p>
    </fieldset>
  );
}

/** What is known of them, or usual. */
export function heldOf(spec: MachineSpec | null, all: readonly KeptSetting[]): HeldTexts {
  return Object.fromEntries(
    all.map((setting) => {
      const { key, unit, onlyWhere } = setting;
      const known = spec?.held[key];
      const own = known && unitsOf(setting).includes(known.unit) ? known.unit : unit;
      const end = (value: number | undefined) => (value === undefined ? "" : editableText(value, own));
      return [
        key,
        {
          has: onlyWhere === null || known !== undefined,
          unit: own,
          step: known ? inUnit(known.step, own, STEP_DECIMALS) : usualStepText(setting, own),
          low: end(known?.range?.low),
          high: end(known?.range?.high),
          tableKind: known?.tableKind ?? NOT_KNOWN.tableKind,
          effect:
            known?.effectMm === undefined
              ? ""
              : inUnit(Number(known.effectMm.toPrecision(EFFECT_FIGURES)), "mm", STEP_DECIMALS),
          sense: senseIn(setting, known, own),
        },
      ];
    }),
  );
}

function usualStepText(setting: KeptSetting, unit: UnitId): string {
  return inUnit(usualStepIn(setting, unit), unit, STEP_DECIMALS);
}

function senseOf(choice: string): 1 | -1 | "not known" {
  if (choice === "not known") return choice;
  return choice === "1" ? 1 : -1;
}

/** The sense fixed by the unit, or the known one, or "not known". */
function senseIn(setting: KeptSetting, known: HeldSetting | undefined, unit: UnitId): 1 | -1 | "not known" {
  const fixedByUnit = senseFixedBy(setting, unit);
  if (fixedByUnit !== null) return fixedByUnit;
  return known && !known.senseAssumed ? known.sense : "not known";
}

/** What nobody changed is as usual in the other unit too. */
function inOtherUnit(setting: KeptSetting, before: HeldTexts[string], unit: UnitId): Partial<HeldTexts[string]> {
  const wasUsual = before.step === usualStepText(setting, before.unit);
  const sense = senseIn(setting, undefined, unit);
  const isSameKind = UNITS[unit].dimension === UNITS[before.unit].dimension;
  return {
    unit,
    ...(wasUsual ? { step: usualStepText(setting, unit) } : {}),
    ...(isSameKind ? {} : { sense }),
  };
}
