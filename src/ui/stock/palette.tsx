"use client";
import { useId, useState } from "react";
import { colourDifference } from "../../core/colour/difference";
import { labOfHex } from "../../core/colour/lab";
import { plain } from "../../core/metrology/quantity-text";
import type { StockResult } from "../../core/trial/outcome";
import { Button } from "../primitives/button";
import { ColourField } from "../primitives/colour-field";
import { copyText } from "../primitives/copy-text";

type Colours = NonNullable<StockResult["palette"]>;

/** The colours that were found on a stock. Each shows its settings; the nearest to a wanted colour can be found. */
export function Palette({ colours }: { colours: Colours }) {
  const id = useId();
  const [at, setAt] = useState(0);
  const [wanted, setWanted] = useState("");
  const aim = labOfHex(wanted);
  const far = (i: number) => {
    const colour = colours[i];
    return aim && colour ? colourDifference(colour, aim) : 0;
  };
  const shown = colours[at];
  const find = (hex: string) => {
    setWanted(hex);
    const lab = labOfHex(hex);
    if (!lab) return;
    const differences = colours.map((c) => colourDifference(c, lab));
    setAt(differences.indexOf(Math.min(...differences)));
  };
  return (
    <section className="mt-4" aria-label="Palette">
      <h3 className="text-[15px] font-semibold">Palette, {colours.length} colours</h3>
      <ul className="mt-2 flex flex-wrap gap-1">
        {colours.map((colour, i) => (
          <li key={colour.settings}>
            <button
              type="button"
              aria-pressed={i === at}
              aria-label={`${colour.hex}: ${colour.settings}`}
              className="block size-8 rounded-sm border border-line aria-pressed:outline-2 aria-pressed:outline-offset-1 aria-pressed:outline-ember max-sm:size-11"
              style={{ backgroundColor: colour.hex }}
              onClick={() => setAt(i)}
            />
          </li>
        ))}
      </ul>
      {shown && (
        <div className="mt-2 flex flex-wrap items-center gap-3" aria-live="polite">
          <p className="num text-[14px]">
            {shown.settings} · L* {plain(shown.l, 0)}, a* {plain(shown.a, 0)}, b* {plain(shown.b, 0)}
            {aim && ` · ΔE ${plain(far(at), 1)}`}
          </p>
          <Button weight="small" onClick={() => copyText(shown.settings, "settings")}>
            Copy<span className="sr-only"> settings of this colour</span>
          </Button>
        </div>
      )}
      <div className="no-print mt-3 max-w-64">
        <ColourField id={id} label="Find the nearest to" value={wanted} onChange={find} />
      </div>
    </section>
  );
}
