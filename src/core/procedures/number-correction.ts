/** The correction of a setting that is one number: old, change and new, rounded as its controller takes it, and whether it may be entered. */
import type { Measured } from "../metrology/measured";
import { plain, signed } from "../metrology/quantity-text";
import { fromInternal, UNITS } from "../metrology/units";
import type { RoundRecord } from "./contract";
import { entryShape, entryText, rangeFault, roundedToStep } from "./entry-text";
import type { HeldSetting, MachineSpec } from "./machine-spec";
import type { Correction, CorrectionRow } from "./outcome";
import { type SettingSpec, usualStepIn } from "./setting";
import { worthOf } from "./worth";

export type NumberChange = {
  spec: SettingSpec;
  /** Id of the estimate that it stands on. */
  estimate: string;
  old: number;
  /** In the internal unit of the setting. */
  change: Measured;
  /** The sum so far, one line each. */
  arithmetic: string[];
  /** What the rounded number leaves, in words. @param roundedBy enter minus exact */
  leaves: (roundedBy: number) => string;
  /** Why it is asked about before it is entered, and the decision that accepts it. */
  doubt: CorrectionRow["doubt"];
};

/** How its controller takes a setting, usual where nothing is said of it. */
export function holdOf({ held }: Pick<MachineSpec, "held">, spec: SettingSpec): HeldSetting {
  return (
    held[spec.key] ?? {
      ...{ unit: spec.unit, step: usualStepIn(spec, spec.unit), range: null, tableKind: "not known" },
      sense: spec.usualSense?.otherwise ?? 1,
    }
  );
}

/** What was in force at a number while a round was burned; `null` = not known. */
export function numberIn({ inForce }: Pick<RoundRecord, "inForce">, { key }: Pick<SettingSpec, "key">): number | null {
  const value = inForce[key];
  return value?.shape === "scalar" ? value.value : null;
}

export function numberCorrection(machine: MachineSpec, c: NumberChange): Correction {
  const held = holdOf(machine, c.spec);
  const shape = entryShape(held, c.spec.unit);
  const exact = c.old + c.change.value;
  const enter = roundedToStep(exact, held.step);
  const outside = rangeFault({ shape: "scalar", value: enter }, held);
  const symbol = UNITS[held.unit].symbol;
  const size = plain(fromInternal(held.step, held.unit), shape.decimals);
  const steps = held.unit === "counts" && size === "1" ? "in whole counts" : `in steps of ${size} ${symbol}`;
  const doubt = outside ? { why: outside, site: null, accept: null } : c.doubt;
  return {
    ...{ setting: c.spec.key, label: c.spec.label, ...shape, choice: null },
    newValue: { shape: "scalar", value: doubt ? c.old : enter },
    rows: [
      {
        ...{
          key: c.spec.key,
          label: c.spec.label,
          estimate: c.estimate,
          at: null,
          old: c.old,
          change: c.change,
          enter,
        },
        changeText: signed(fromInternal(c.change.value, held.unit), shape.decimals + 1),
        rounding: enter - exact,
        arithmetic: [...c.arithmetic, `${steps}: ${entryText(enter, shape)}; ${c.leaves(enter - exact)}`],
        ...{ worth: worthOf(c.change, held.step), doubt },
      },
    ],
  };
}
