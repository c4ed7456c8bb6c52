"use client";
import { plain } from "../../core/metrology/quantity-text";
import { UNITS, type UnitId } from "../../core/metrology/units";
import { editableText } from "../../core/settings/entry-text";
import type { SettingSpec, SettingValue } from "../../core/settings/setting";

export type ValueRow = { at: string; text: string };

type Props = {
  setting: SettingSpec;
  unit: UnitId;
  rows: readonly ValueRow[];
  onChange: (rows: ValueRow[]) => void;
  /** Whether a field is at fault, as the server names it. */
  isAtFault: (field: string) => boolean;
};

/** A value of a setting to type in: one number, or a table whose last row is always empty. */
export function ValueRows({ setting, unit, rows, onChange, isAtFault }: Props) {
  const symbol = UNITS[unit].symbol;
  if (setting.shape === "scalar")
    return (
      <label className="block text-[14px] text-ink2">
        {setting.label}
        {symbol && `, ${symbol}`}
        <input
          className="field num block w-36 text-[15px] text-ink"
          autoComplete="off"
          value={rows[0]?.text ?? ""}
          aria-invalid={isAtFault("value")}
          onChange={(e) => onChange([{ at: "", text: e.target.value }])}
        />
      </label>
    );
  const shown = [...rows, { at: "", text: "" }];
  const set = (i: number, change: Partial<ValueRow>) =>
    onChange(shown.map((r, j) => (i === j ? { ...r, ...change } : r)).filter((r) => r.at !== "" || r.text !== ""));
  const atSymbol = setting.atUnit ? UNITS[setting.atUnit].symbol : "";
  return (
    <table className="justify-self-start text-[14px]">
      <thead>
        <tr className="text-left text-ink2">
          <th scope="col" className="pr-3 font-normal">
            at{atSymbol && `, ${atSymbol}`}
          </th>
          <th scope="col" className="font-normal">
            value, {symbol}
          </th>
        </tr>
      </thead>
      <tbody>
        {shown.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place while it is typed
          <tr key={i}>
            <td className="py-0.5 pr-3">
              <input
                className="field num w-24"
                autoComplete="off"
                aria-label={`Row ${i + 1}, at`}
                aria-invalid={isAtFault(`row ${i} at`)}
                value={row.at}
                onChange={(e) => set(i, { at: e.target.value })}
                onPaste={(e) => {
                  const pasted = rowsOfText(e.clipboardData.getData("text"));
                  if (pasted.length < 2) return;
                  e.preventDefault();
                  onChange([...rows.slice(0, i), ...pasted]);
                }}
              />
            </td>
            <td className="py-0.5">
              <input
                className="field num w-28"
                autoComplete="off"
                aria-label={`Row ${i + 1}, value`}
                aria-invalid={isAtFault(`row ${i}`)}
                value={row.text}
                onChange={(e) => set(i, { text: e.target.value })}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A table as it is copied elsewhere: a line a row, the first two columns. */
function rowsOfText(text: string): ValueRow[] {
  return text
    .split(/\r?\n/)
    .map((line) => line.trim().split(/\t|\s*;\s*|\s+/))
    .flatMap(([at = "", value = ""]) => (at === "" ? [] : [{ at, text: value }]));
}

/** A value as rows to type over. */
export function editableRows(value: SettingValue | null, unit: UnitId): ValueRow[] {
  if (value?.shape === "scalar") return [{ at: "", text: editableText(value.value, unit) }];
  if (value?.shape === "table") return value.rows.map((r) => ({ at: plain(r.at), text: editableText(r.value, unit) }));
  return [];
}
