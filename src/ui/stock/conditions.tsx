import type { StockResult } from "../../core/procedures/outcome";

/** Under which it holds. */
export function Conditions({ conditions }: { conditions: StockResult["conditions"] }) {
  return (
    <dl className="mt-3 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
      {conditions.map(({ label, text }) => (
        <div key={label} className="flex gap-1.5">
          <dt className="text-ink2">{label}</dt>
          <dd>{text}</dd>
        </div>
      ))}
    </dl>
  );
}
