import type { Adapted, AdaptResult } from "../../artwork/adapt";
import { countText } from "../../core/metrology/count-text";
import { dxfOf } from "../../formats/dxf-writer";
import { svgOf } from "../../formats/svg-writer";
import type { DrawingWork } from "../artwork/use-drawing-worker";
import { Button } from "../primitives/button";
import { giveFile } from "../primitives/give-file";
import { Fault, Notice } from "../primitives/notice";

/** What came of the drawing: what stands in the way, each where it is, or the files. */
export function ArtworkOutcome({ state: { result, busy }, name }: { state: DrawingWork<AdaptResult>; name: string }) {
  return (
    <section className="card grid gap-3 p-5" aria-label="Outcome" aria-live="polite" aria-busy={busy}>
      <h2 className="text-[17px] font-bold">
        {busy ? "Working…" : result === null ? "Nothing yet" : result.ok && result.piece ? "Ready" : "Not yet"}
      </h2>
      {!busy && result === null && (
        <p className="text-ink2">Drop a drawing, or choose it above, and fill what is asked.</p>
      )}
      {result && !result.ok && <Fault>{result.message}</Fault>}
      {result?.ok && <Found adapted={result} name={name.replace(/\.[^.]*$/, "")} busy={busy} />}
    </section>
  );
}

type FoundProps = { adapted: Adapted; name: string; busy: boolean };

function Found({ adapted: { problems, notes, slots, piece, layers }, name, busy }: FoundProps) {
  return (
    <>
      {problems.map((p) => (
        <Notice key={`${p.kind} ${p.at.x} ${p.at.y}`} tone="needs you" headline={HEADLINES[p.kind]}>
          {p.text}
        </Notice>
      ))}
      {layers.length > 1 && problems.some((p) => p.kind === "open") && (
        <p className="text-ink2">Is it engraved and not cut? Take its layer out of what is cut, above.</p>
      )}
      {notes.map((note) => (
        <Notice key={note} tone="note" headline="Look at this.">
          {note}
        </Notice>
      ))}
      {slots.length > 0 && (
        <p className="text-ink2">
          {countText(slots.length, "end of a slot was", "ends of slots were")} found, and made to fit.
        </p>
      )}
      {piece && (
        <>
          <p className="flex flex-wrap gap-2">
            <Button
              weight="primary"
              // What is shown is of the order before.
              disabled={busy}
              onClick={() => giveFile(`${name}-adapted.svg`, svgOf(piece, false), "image/svg+xml")}
            >
              Download SVG
            </Button>
            <Button disabled={busy} onClick={() => giveFile(`${name}-adapted.dxf`, dxfOf(piece), "image/vnd.dxf")}>
              Download DXF
            </Button>
          </p>
          <p className="text-[14px] text-ink2">
            Switch off every other offset for the kerf on the way: this drawing is to be cut as it is.
          </p>
        </>
      )}
    </>
  );
}

const HEADLINES = {
  open: "An outline is open.",
  "self-crossing": "An outline crosses itself.",
  overlapping: "Two outlines overlap.",
  "drawn twice": "An outline is drawn twice.",
  vanishes: "Something would vanish.",
  "falls apart": "Something would fall apart.",
  closes: "A slit would close.",
  "grown together": "Two outlines would grow into each other.",
} as const;
