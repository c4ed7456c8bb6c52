"use client";
import { withUncertainty } from "../../../core/metrology/quantity-text";
import { MAP_KEYS } from "../../../core/procedures/field/setting";
import { valueText } from "../../../core/settings/entry-text";
import type { SettingValue } from "../../../core/settings/setting";
import type { Correction } from "../../../core/trial/outcome";
import { Link } from "../../primitives/link";
import { Workings } from "./workings";

/** A correction of the whole field: the one in force, the new one, and its largest shift. */
export function MapCorrection({
  slug,
  correction,
  before,
}: {
  /** Address of the machine. */
  slug: string;
  correction: Correction;
  before: SettingValue | null;
}) {
  const [row] = correction.rows;
  if (!row) return null;
  const lines = [
    ["In force during the burn", valueText(before, correction.unit)],
    ["New", valueText(correction.newValue, correction.unit)],
    ["Largest shift", `${withUncertainty({ ...row.change, value: row.enter }, correction.unit)}`],
  ];
  return (
    <section className="card px-5 py-4" aria-label="What to enter">
      <h2 className="text-[17px] font-bold">{correction.label}</h2>
      <dl className="mt-2">
        {lines.map(([label, text]) => (
          <div key={label} className="flex justify-between gap-4 border-t border-hair py-1.5">
            <dt>{label}</dt>
            <dd className="num text-right font-semibold">{text}</dd>
          </div>
        ))}
      </dl>
      {correction.setting === MAP_KEYS.artwork && (
        <p className="mt-2 text-[14px] text-ink2">
          Record the correction. Then bend each drawing before you send it.{" "}
          <Link className="underline underline-offset-4" href={`/machine/${slug}/bent-drawings`}>
            Bent drawings
          </Link>
        </p>
      )}
      <Workings of={correction.rows} />
    </section>
  );
}
