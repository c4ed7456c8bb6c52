import clsx from "clsx";

export type HeadCell = { label: string; align?: "left" | "right"; className?: string; span?: number };

/** The head of a table: what each column holds, small and quiet. */
export function HeadRow({ cells, className }: { cells: readonly HeadCell[]; className?: string }) {
  return (
    <thead>
      <tr className={clsx("text-[14px] text-ink2", className)}>
        {cells.map((cell) => (
          <th
            key={cell.label}
            scope="col"
            colSpan={cell.span}
            className={clsx(
              "py-1.5 font-semibold",
              cell.align === "right" ? "text-right sm:whitespace-nowrap" : "text-left",
              cell.className,
            )}
          >
            {cell.label || <span className="sr-only">What can be done</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}
