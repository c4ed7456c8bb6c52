import { fixed, plain } from "../../core/metrology/quantity-text";
import type { SettingValue } from "../../core/procedures/setting";

/** A setting in words. */
export function heldText(value: SettingValue | null): string {
  if (value === null) return "not known";
  if (value.shape === "scalar") return plain(value.value, 4);
  if (value.shape === "map") return `a table of ${value.nodes.length} nodes`;
  if (value.rows.length === 0) return "no entries";
  return value.rows.map((r) => `${plain(r.at)}: ${fixed(r.value, 3)}`).join(" · ");
}
