import clsx from "clsx";
import { expandedUncertainty } from "../../core/metrology/measured";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import { UNITS } from "../../core/metrology/units";
import type { StockResult } from "../../core/trial/outcome";
import { Button } from "../primitives/button";
import { copyText } from "../primitives/copy-text";
import { HeadRow } from "../primitives/head-row";

/** What is typed into programs: held out larger than the rest. */
const ENTERED = ["offset", "snug offset", "snug slot"];

/** The numbers of a result with their uncertainty, each to be copied. */
export function ResultValues({ values, unit }: { values: StockResult["values"]; unit: LengthUnit }) {
  return (
    <table className="mt-2 w-full">
      <HeadRow
        className="border-y border-hair"
        cells={[
          { label: UNITS[unit].symbol },
          { label: "value", align: "right" },
          { label: "±", align: "right" },
          { label: "" },
        ]}
      />
      <tbody>
        {values.map(({ id, label, quantity }) => {
          const text = shownNumber(quantity.value, unit, 3);
          const isEntered = ENTERED.includes(id);
          return (
            <tr key={id} className="border-b border-hair">
              <th scope="row" className={clsx("py-1.5 text-left", isEntered ? "font-semibold" : "font-normal")}>
                {label}
              </th>
              <td className={clsx("num py-1.5 text-right", isEntered && "text-[19px] font-semibold")}>{text}</td>
              <td className="num py-1.5 pl-3 text-right text-ink2">
                {shownNumber(expandedUncertainty(quantity), unit, 3)}
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
