import type { DevelopResult } from "../../artwork/develop";
import { shownLength } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import { dxfOf } from "../../formats/dxf-writer";
import { svgOf } from "../../formats/svg-writer";
import type { DrawingWork } from "../artwork/use-drawing-worker";
import { Button } from "../primitives/button";
import { giveFile } from "../primitives/give-file";
import { Fault, Notice } from "../primitives/notice";

type Props = {
  work: DrawingWork<DevelopResult>;
  name: string;
  isWanted: boolean;
  isTaper: boolean;
  unit: LengthUnit;
};

/** What came of the drawing: what does not go onto the part, and the files. */
export function DevelopOutcome({ work: { busy, result }, name, isWanted, isTaper, unit }: Props) {
  const base = name.replace(/\.[^.]*$/, "");
  return (
    <div className="grid gap-3" aria-live="polite" aria-busy={busy}>
      {busy && <p>Working…</p>}
      {!busy && result === null && (
        <p className="text-ink2">
          {isWanted ? "It comes once the sizes above can be read." : "Drop a drawing, or choose it here."}
        </p>
      )}
      {result && !result.ok && <Fault>{result.message}</Fault>}
      {result?.ok && (
        <>
          {result.faults.map((fault) => (
            <Notice key={fault} tone="needs you" headline="It does not go onto this part.">
              {fault}
            </Notice>
          ))}
          {result.notes.map((note) => (
            <Notice key={note} tone="note" headline="Look at this.">
              {note}
            </Notice>
          ))}
          <p className="flex flex-wrap gap-2">
            <Button
              weight="primary"
              // What is shown is of the order before.
              disabled={busy}
              onClick={() => giveFile(`${base}-round.svg`, svgOf(result.piece, false), "image/svg+xml")}
            >
              Download SVG
            </Button>
            <Button disabled={busy} onClick={() => giveFile(`${base}-round.dxf`, dxfOf(result.piece), "image/vnd.dxf")}>
              Download DXF
            </Button>
          </p>
          <p className="text-[14px] text-ink2">
            {isTaper
              ? `Lay its edge ${shownLength(result.beginsMm, unit, 2)} from the first end, its middle on the upper side. `
              : ""}
            Send it at its own size: nothing more is to be scaled on the way.
          </p>
        </>
      )}
    </div>
  );
}
