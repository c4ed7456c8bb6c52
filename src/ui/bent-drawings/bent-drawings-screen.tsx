"use client";
import { useState } from "react";
import type { BendOrder, BendResult } from "../../artwork/bend";
import { fixed, plain } from "../../core/metrology/quantity-text";
import { parseSignedReading } from "../../core/metrology/reading-text";
import { fieldTableText } from "../../core/settings/field-table";
import type { BentDrawingsView } from "../../server/screens/bent-drawings-view";
import { DrawingDrop } from "../artwork/drawing-drop";
import { useDrawingWorker } from "../artwork/use-drawing-worker";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { FilePick } from "../primitives/file-pick";
import { giveFile } from "../primitives/give-file";
import { Link } from "../primitives/link";
import { Fault, Notice } from "../primitives/notice";
import { useSurviving } from "../primitives/use-surviving";
import { TopBar } from "../shell/top-bar";
import { BentDrawing } from "./bent-drawing";

const startBender = () => new Worker(new URL("../../workers/bend.worker.ts", import.meta.url), { type: "module" });

type Drawing = { name: string; text: string };

/** Drawings bent the other way for the lens of a galvo. */
export function BentDrawingsScreen({ view }: { view: BentDrawingsView }) {
  const [drawing, setDrawing] = useSurviving<Drawing | null>(`bent drawing ${view.slug}`, null);
  const [place, setPlace] = useState({ x: "0", y: "0" });
  const { artwork } = view;
  const read = { x: parseSignedReading(place.x, "length", "mm"), y: parseSignedReading(place.y, "length", "mm") };
  const order: BendOrder | null =
    drawing && artwork && !view.hasTable && read.x.ok && read.y.ok
      ? { text: drawing.text, table: artwork, place: { x: read.x.value, y: read.y.value } }
      : null;
  const { busy, result } = useDrawingWorker<BendOrder, BendResult>(startBender, order);
  const take = async (file: File) => setDrawing({ name: file.name, text: await file.text() });
  const field = (axis: "x" | "y", label: string) => {
    const { [axis]: own } = read;
    return (
      <TextField
        label={label}
        value={place[axis]}
        fault={own.ok ? "" : own.message}
        onChange={(text) => setPlace((p) => ({ ...p, [axis]: text }))}
      />
    );
  };
  return (
    <>
      <TopBar
        crumbs={[
          { label: "Bench", href: "/" },
          { label: view.name, href: `/machine/${view.slug}` },
          { label: "Bent drawings" },
        ]}
      />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_440px]">
        <section
          className="card grid min-h-[420px] min-w-0 content-start gap-3 p-4 max-lg:order-2"
          aria-label="Drawing"
        >
          <DrawingDrop onFile={take}>
            {result?.ok && artwork ? (
              <BentDrawing made={result} table={artwork} fieldMm={view.fieldMm} />
            ) : (
              <p className="place-self-center text-ink2">
                {drawing === null
                  ? "Drop a drawing here, SVG or DXF."
                  : "The drawing appears here when it can be read."}
              </p>
            )}
          </DrawingDrop>
          {result?.ok && (
            <p className="text-[14px] text-ink2">
              Dashed grey: as drawn. Blue: as it is sent. Green border: the outermost dots. Red: outside the measured
              field.
            </p>
          )}
        </section>
        <div className="grid content-start gap-4">
          <section className="card grid gap-3 p-5" aria-label="The correction">
            <h1 className="text-xl font-bold">Bent drawings for {view.lens ?? view.name}</h1>
            <Standing view={view} />
          </section>
          <section className="card grid gap-3 p-5" aria-label="Artwork">
            <h2 className="text-[17px] font-bold">Drawing</h2>
            <FilePick
              label={drawing ? `${drawing.name}. Another drawing:` : "A drawing (SVG or DXF):"}
              accept=".svg,.dxf,image/svg+xml"
              disabled={false}
              onFile={take}
            />
            <p className="text-[14px] text-ink2">
              The middle of an SVG sheet, or the zero of a DXF, lies this far from the middle of the field.
            </p>
            <div className="grid grid-cols-2 gap-3">
              {field("x", "To the right, mm")}
              {field("y", "To the back, mm")}
            </div>
            <Outcome busy={busy} result={result} name={drawing?.name ?? "drawing"} />
          </section>
        </div>
      </main>
    </>
  );
}

function Standing({ view }: { view: BentDrawingsView }) {
  const toField = (
    <Link href={`/machine/${view.slug}/field`} className="underline underline-offset-4">
      Field of {view.name}
    </Link>
  );
  if (view.hasTable)
    return (
      <Notice tone="needs you" headline="A correction table is loaded in the controller.">
        With bent drawings the field would be corrected twice. Send drawings as they are. {toField}
      </Notice>
    );
  if (!view.artwork)
    return (
      <Notice tone="needs you" headline="No correction for drawings yet.">
        Burn a grid of dots and choose “Bent artwork” as the form of the correction. {toField}
      </Notice>
    );
  return (
    <p>
      The correction is {fieldTableText(view.artwork)}. Field: {view.standing.detail}. {toField}
    </p>
  );
}

function Outcome({
  busy,
  result,
  name,
}: {
  busy: boolean;
  result: BendResult | { ok: false; message: string } | null;
  name: string;
}) {
  const base = name.replace(/\.[^.]*$/, "");
  const total = result?.ok ? result.outside.reduce((sum, o) => sum + o.mm, 0) : 0;
  return (
    <div className="grid gap-3" aria-live="polite" aria-busy={busy}>
      {busy && <p>Working…</p>}
      {result && !result.ok && <Fault>{result.message}</Fault>}
      {result?.ok && (
        <>
          {total > 0 && (
            <Notice tone="needs you" headline={`${plain(total, 1)} mm of lines lie outside the measured field.`}>
              {result.outside.map((o) => `${o.name}: ${plain(o.mm, 1)} mm`).join("; ")}. The correction is extrapolated
              there. Make the drawing smaller, or move it.
            </Notice>
          )}
          {result.notes.map((note) => (
            <Notice key={note.headline} tone="note" headline={note.headline}>
              {note.text}
            </Notice>
          ))}
          <p className="num text-[14px]">Largest shift {fixed(result.largestMm, 3)} mm</p>
          <Button
            weight="primary"
            className="justify-self-start"
            disabled={busy}
            onClick={() =>
              giveFile(
                `${base}-bent.${result.kind}`,
                result.file,
                result.kind === "svg" ? "image/svg+xml" : "image/vnd.dxf",
              )
            }
          >
            Download {result.kind.toUpperCase()}
          </Button>
          <p className="text-[14px] text-ink2">
            Send the file at its own size and place. Do not centre or scale it in the program that sends it.
          </p>
        </>
      )}
    </div>
  );
}
