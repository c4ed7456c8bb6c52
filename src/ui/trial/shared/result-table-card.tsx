import clsx from "clsx";
import type { ResultTable } from "../../../core/trial/outcome";

/** What was read so far, and what it gives. A row leads to its site. */
export function ResultTableCard({
  table,
  current,
  onSite,
}: {
  table: ResultTable;
  current: string;
  onSite: (site: string) => void;
}) {
  return (
    <section className="card px-3 py-2">
      <table className="w-full">
        <caption className="sr-only">{table.title}</caption>
        <thead>
          <tr className="text-[16px] text-ink2">
            {table.columns.map((c, i) => (
              <th key={c} scope="col" className={clsx("px-2 py-1 font-semibold", i === 0 ? "text-left" : "text-right")}>
                {c}
              </th>
            ))}
            <th scope="col" className="px-2 py-1 text-right font-semibold">
              {table.resultLabel}
            </th>
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => {
            const here = row.sites.includes(current);
            return (
              <tr key={row.label} className={clsx("num border-t border-hair text-[16px]", here && "bg-ember-tint")}>
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  <button
                    type="button"
                    className="text-left underline decoration-line underline-offset-4 hover:decoration-ink"
                    onClick={() => onSite(row.sites[0] ?? "")}
                  >
                    {row.label}
                  </button>
                </th>
                {row.cells.map((cell, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: cells are told apart by their column
                  <td key={i} className="px-2 py-1 text-right">
                    {cell}
                  </td>
                ))}
                <td
                  className={clsx(
                    "px-2 py-1 text-right whitespace-nowrap",
                    row.state === "from the fit" && "text-ink2",
                  )}
                >
                  {row.result}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
