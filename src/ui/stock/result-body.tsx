import type { LengthUnit } from "../../core/metrology/units";
import type { StockResult } from "../../core/trial/outcome";
import { Folded } from "../primitives/folded";
import { Palette } from "./palette";
import { ResultValues } from "./result-values";

/** What was told of a stock: the numbers, how each came about, and under what it holds. */
export function ResultBody({ result, unit }: { result: StockResult; unit: LengthUnit }) {
  return (
    <>
      <ResultValues values={result.values} unit={unit} />
      {result.arithmetic.length > 0 && (
        <Folded title="How each number came about" className="mt-2">
          <ul className="num mt-1 grid gap-1 text-[14px]">
            {result.arithmetic.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Folded>
      )}
      {result.palette && <Palette colours={result.palette} />}
      <dl className="mt-3 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
        {result.conditions.map(({ label, text }) => (
          <div key={label} className="flex gap-1.5">
            <dt className="text-ink2">{label}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
