import clsx from "clsx";
import { CELL_SETTING_KEYS, CELL_SETTINGS, typedValue } from "../../core/marking/cell-settings";
import { expandedUncertainty } from "../../core/metrology/measured";
import { fixed, plain } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import { type Dimension, fromInternal, UNITS } from "../../core/metrology/units";
import { shownUnit } from "../../core/trial/decisions";
import type { StockResult } from "../../core/trial/outcome";
import { Button } from "../primitives/button";
import { copyText } from "../primitives/copy-text";
import { HeadRow } from "../primitives/head-row";

/** What is typed into programs: held out larger than the rest. */
const ENTERED: readonly string[] = ["offset", "snug offset", "snug slot", ...CELL_SETTING_KEYS];
/** More decimals of a setting are never typed. */
const EXACT_DECIMALS = 4;
/** Decimals of values that are no lengths. */
const DECIMALS: Partial<Record<Dimension, number>> = { ratio: 1 };

/** The numbers of a result with their uncertainty, each to be copied. */
export function ResultValues({ values, unit }: { values: StockResult["values"]; unit: LengthUnit }) {
  return (
    <table className="mt-2 w-full">
      <HeadRow
        className="border-y border-hair"
        cells={[{ label: "" }, { label: "value", align: "right" }, { label: "±", align: "right" }, { label: "" }]}
      />
      <tbody>
        {values.map(({ id, label, quantity, unit: own }) => {
          const shown = shownUnit(own, unit);
          const setting = CELL_SETTING_KEYS.find((key) => key === id);
          const decimals = setting ? CELL_SETTINGS[setting].decimals : (DECIMALS[UNITS[shown].dimension] ?? 3);
          const value = fromInternal(quantity.value, shown);
          // A setting is exact as it is typed: no zeros are added.
          const text = setting ? plain(typedValue(setting, quantity), EXACT_DECIMALS) : fixed(value, decimals);
          const isEntered = ENTERED.includes(id);
          return (
            <tr key={id} className="border-b border-hair">
              <th scope="row" className={clsx("py-1.5 text-left", isEntered ? "font-semibold" : "font-normal")}>
                {label}
                {UNITS[shown].symbol && `, ${UNITS[shown].symbol}`}
              </th>
              <td className={clsx("num py-1.5 text-right", isEntered && "text-[19px] font-semibold")}>{text}</td>
              <td className="num py-1.5 pl-3 text-right text-ink2">
                {quantity.standardUncertainty > 0 &&
                  fixed(fromInternal(expandedUncertainty(quantity), shown), decimals)}
              </td>
              <td className="py-1.5 pl-3 text-right">
                {isEntered && (
                  <Button weight="small" onClick={() => copyText(text, label)}>
                    Copy<span className="sr-only"> {label}</span>
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
