import { SVG_UNITS, type SvgUnit } from "../../artwork/read-drawing";
import { PickField } from "../primitives/fields";

const UNIT_WORDS: Record<SvgUnit, string> = {
  mm: "1 mm",
  inch: "1 inch",
  "96 an inch": "1/96 inch, as browsers take it",
  "72 an inch": "1/72 inch, a point",
};

/** What an SVG does not say of itself. */
export function UnitQuestion({ unit, onChange }: { unit: SvgUnit | null; onChange: (unit: SvgUnit | null) => void }) {
  return (
    <PickField
      label="One unit of this drawing is"
      value={unit ?? ""}
      onChange={(next) => onChange(next === "" ? null : (next as SvgUnit))}
      choices={[
        { value: "", label: "it does not say: choose" },
        ...Object.keys(SVG_UNITS).map((u) => ({ value: u, label: UNIT_WORDS[u as SvgUnit] })),
      ]}
    />
  );
}
