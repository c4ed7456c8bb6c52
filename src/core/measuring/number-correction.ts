/** The correction of a setting that is one number: old, change and new, rounded as its controller takes it, and whether it may be entered. */

import type { MachineSpec } from "../machine/machine-spec";
import type { Measured } from "../metrology/measured";
import { expandedUncertainty } from "../metrology/measured";
import { plain, signed } from "../metrology/quantity-text";
import { fromInternal, UNITS } from "../metrology/units";
import { entryShape, entryText, rangeFault, roundedToStep } from "../settings/entry-text";
import type { HeldSetting } from "../settings/setting";
import { type SettingSpec, usualStepIn } from "../settings/setting";
import type { RoundRecord } from "../trial/history";
import type { Correction, CorrectionRow } from "../trial/outcome";

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
  heldBack: CorrectionRow["heldBack"];
};

/** How its controller takes a setting, usual where nothing is said of it. */
export function holdOf({ held }: Pick<MachineSpec, "held">, spec: SettingSpec): HeldSetting {
  return (
    held[spec.key] ?? {
      unit: spec.unit,
      step: usualStepIn(spec, spec.unit),
      range: null,
      tableKind: "not known",
      sense: spec.usualSense?.otherwise ?? 1,
    }
  );
}

/** What was in force at a number while a round was burned; `null` = not known. */
export function numberIn({ inForce }: Pick<RoundRecord, "inForce">, key: string): number | null {
  const value = inForce[key];
  return value?.shape === "scalar" ? value.value : null;
}

type Numbers = Pick<CorrectionRow, "key" | "label" | "estimate" | "old" | "change"> & {
  /** Unrounded, internal unit. */
  exact: number;
  /** Decimals of the change beyond those of the controller. */
  moreDecimals: number;
};

/** What every such row has: rounding as the last line of its sum, whether it is worth it, and whether the controller can take it. */
export function numberRow(held: HeldSetting, { exact, moreDecimals, ...numbers }: Numbers): CorrectionRow {
  const enter = roundedToStep(exact, held.step);
  const shape = entryShape(held, held.unit);
  const outside = rangeFault({ shape: "scalar", value: enter }, held);
  const step = plain(fromInternal(held.step, held.unit), shape.decimals);
  const { symbol, dimension } = UNITS[held.unit];
  const steps = dimension === "count" && step === "1" ? `whole ${symbol}` : `${step} ${symbol}`;
  return {
    ...numbers,
    at: null,
    enter,
    rounding: enter - exact,
    changeText: signed(fromInternal(numbers.change.value, held.unit), shape.decimals + moreDecimals),
    arithmetic: [`rounded to ${steps}: ${entryText(enter, shape)}`],
    worth: worthOf(numbers.change, held.step),
    heldBack: outside ? { why: outside, site: null, accept: null } : null,
  };
}

/** The whole correction: its row holds back what the controller cannot take, or what is asked about first. Internal units. */
export function numberCorrection(machine: MachineSpec, c: NumberChange): Correction {
  const { spec, old, change } = c;
  const held = holdOf(machine, spec);
  const numbers = { key: spec.key, label: spec.label, estimate: c.estimate, old, change };
  const row = numberRow(held, { ...numbers, exact: old + change.value, moreDecimals: 1 });
  const heldBack = row.heldBack ?? c.heldBack;
  return {
    setting: spec.key,
    label: spec.label,
    ...entryShape(held, spec.unit),
    choice: null,
    newValue: { shape: "scalar", value: heldBack ? old : row.enter },
    rows: [{ ...row, heldBack, arithmetic: [...c.arithmetic, ...row.arithmetic, c.leaves(row.rounding)] }],
  };
}

/** Whether a change is worth entering. */

/** `yes`: a change larger than its uncertainty and half a step of the controller. `no`: change and uncertainty together within one step. */
export function worthOf(change: Measured, step: number): CorrectionRow["worth"] {
  const size = Math.abs(change.value);
  const expanded = expandedUncertainty(change);
  if (size > expanded && size > step / 2) return "yes";
  return size + expanded <= step ? "no" : "cannot tell";
}
