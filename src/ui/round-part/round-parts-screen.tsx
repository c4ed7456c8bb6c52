"use client";
import type { Developed, DevelopOrder, DevelopResult } from "../../artwork/develop";
import { STATE_WORDS } from "../../core/course/state";
import { inUnit, plain, shownLength } from "../../core/metrology/quantity-text";
import type { RoundPartsView } from "../../server/screens/round-parts-view";
import { DrawingDrop } from "../artwork/drawing-drop";
import { UnitQuestion } from "../artwork/unit-question";
import { useDrawingWorker } from "../artwork/use-drawing-worker";
import { FilePick } from "../primitives/file-pick";
import { Link } from "../primitives/link";
import { useSurviving } from "../primitives/use-surviving";
import { TopBar } from "../shell/top-bar";
import { useShell } from "../shell/use-shell";
import { DevelopOutcome } from "./develop-outcome";
import { FactsCard } from "./facts-card";
import { FlatDrawing } from "./flat-drawing";
import { factsOf, wrapText } from "./part-facts";
import { type Drawing, orderFor, type PartWish, readWish } from "./part-wish";
import { PartWishForm } from "./part-wish-form";

const startDeveloper = () =>
  new Worker(new URL("../../workers/develop.worker.ts", import.meta.url), { type: "module" });

/** Parts for the rotary of a machine: what goes around them, how fast, and artwork made for them. */
export function RoundPartsScreen({ view }: { view: RoundPartsView }) {
  const { unit } = useShell();
  const [wish, setWish] = useSurviving<PartWish>(`round part ${view.slug}`, usualWish(view));
  const [drawing, setDrawing] = useSurviving<Drawing | null>(`round artwork ${view.slug}`, null);
  const { faults, part, drive, artworkMm } = readWish(wish, unit);
  const work = useDrawingWorker<DevelopOrder, DevelopResult>(startDeveloper, orderFor(drawing, part, wish.around));
  const { result } = work;
  const axis = wish.around.toUpperCase();
  const facts = part ? factsOf(part, { drive: wish.drive, numbers: drive, axis, artworkMm, unit }) : [];
  const take = async (file: File) => setDrawing({ name: file.name, text: await file.text(), unit: null });
  return (
    <>
      <TopBar
        crumbs={[
          { label: "Bench", href: "/" },
          { label: view.name, href: `/machine/${view.slug}` },
          { label: "Round parts" },
        ]}
      />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_440px]">
        <div className="grid min-w-0 grid-cols-1 content-start gap-4 max-lg:order-2">
          <FactsCard facts={facts} />
          <section className="card grid content-start gap-3 p-4" aria-label="Drawing">
            <DrawingDrop onFile={take}>
              {result?.ok ? (
                <FlatDrawing made={result} around={wish.around} />
              ) : (
                <p className="place-self-center text-ink2">
                  {drawing === null ? "Drop artwork here, SVG or DXF." : "The drawing comes when it can be read."}
                </p>
              )}
            </DrawingDrop>
            {result?.ok && <p className="text-[14px] text-ink2">{shownText(result, unit)}</p>}
          </section>
        </div>
        <div className="grid content-start gap-4">
          <section className="card grid gap-3 p-5" aria-label="The part">
            <h1 className="text-xl font-bold">Round parts on {view.rotary?.label ?? view.name}</h1>
            <p className="text-ink2">{standingText(view)}</p>
            {view.standing.state !== "holding" && (
              <p>
                <Link href={`/machine/${view.slug}/rotary`} className="underline underline-offset-4">
                  Measure it first: the rotary of {view.name}
                </Link>
              </p>
            )}
            <PartWishForm wish={wish} faults={faults} onChange={(change) => setWish((w) => ({ ...w, ...change }))} />
          </section>
          <section className="card grid gap-3 p-5" aria-label="Artwork">
            <h2 className="text-[17px] font-bold">Artwork</h2>
            <FilePick
              label={drawing ? `${drawing.name}. Another drawing:` : "A drawing (SVG or DXF):"}
              accept=".svg,.dxf,image/svg+xml"
              disabled={false}
              onFile={take}
            />
            {drawing && (drawing.unit !== null || (result !== null && !result.ok && result.asksUnit)) && (
              <UnitQuestion unit={drawing.unit} onChange={(next) => setDrawing((d) => d && { ...d, unit: next })} />
            )}
            <DevelopOutcome
              work={work}
              unit={unit}
              name={drawing?.name ?? "drawing"}
              isWanted={drawing !== null}
              isTaper={wish.shape === "taper"}
            />
          </section>
        </div>
      </main>
    </>
  );
}

function usualWish({ rotary, stepsPerRevolution, rollerDiameterMm }: RoundPartsView): PartWish {
  const mm = (value: number | null | undefined) => (value ? inUnit(value, "mm", 4) : "");
  const number = (value: number | null | undefined) => (value ? plain(value, 4) : "");
  return {
    shape: "tube",
    drive: rotary?.drive ?? "roller",
    around: rotary?.replaces ?? "y",
    lay: "label",
    level: "side",
    marked: "60 mm",
    turnsBy: "72 mm",
    first: "60 mm",
    last: "75.7 mm",
    length: "90 mm",
    begins: "10 mm",
    artwork: "",
    steps: number(stepsPerRevolution ?? rotary?.stepsPerRevolution),
    roller: mm(rollerDiameterMm ?? rotary?.rollerDiameterMm),
    mostSteps: number(rotary?.mostStepsPerS),
  };
}

function standingText({ standing, stepsPerRevolution, name }: RoundPartsView): string {
  const held =
    stepsPerRevolution === null
      ? `What the controller of ${name} holds is not known`
      : "With what the controller holds now";
  return `${held}; ${standing.state === "not done" ? "the rotary was never measured here" : `the rotary is ${STATE_WORDS[standing.state]}${standing.detail ? `, ${standing.detail}` : ""}`}.`;
}

function shownText({ lengthMm, wraps }: Developed, unit: Parameters<typeof shownLength>[1]): string {
  const mm = (value: number) => shownLength(value, unit, 1);
  return `dashed as it is drawn, full as it is sent, dotted the seam of a whole turn · ${mm(lengthMm)} around, ${wrapText(wraps, mm)}`;
}
