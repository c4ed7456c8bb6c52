import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { Refusal } from "../../../../server/refusal";
import { paperOf, roundSheetPages } from "../../../../server/trial/round-sheet";
import { fullTrial } from "../../../../server/trial/trial-record";
import { SheetScreen } from "../../../../ui/run-sheet/sheet-screen";
import { TrialBar } from "../../../../ui/trial/trial-bar";

type Props = {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ round?: string; paper?: string }>;
};

export const metadata: Metadata = { title: "Run sheet" };

/** The print view of a round. A layout that is not complete leads back to where it is laid out. */
export default async function RunSheetPage({ params, searchParams }: Props) {
  await connection();
  const id = Number((await params).id);
  const { round = "1", paper: asked } = await searchParams;
  const n = Number(round);
  const at = n > 1 ? `round=${n}&` : "";
  const found = sheetOf(id, n, asked);
  if (found === "not laid out") redirect(`/trial/${id}/lay-out?${at}`);
  const { full, paper, title, pages } = found;
  return (
    <>
      <div className="no-print">
        <TrialBar
          machine={{ name: full.machine.name, slug: full.machineSlug }}
          procedure={full.procedure}
          code={full.trial.code}
        />
      </div>
      <SheetScreen
        heading="Run sheet"
        title={title}
        pages={pages}
        paper={paper}
        href={(p) => `/trial/${id}/run-sheet?${at}paper=${p}`}
        pdfHref={`/api/trials/${id}/rounds/${n}/run-sheet.pdf?paper=${paper}`}
        back={{ href: `/trial/${id}/burn${n > 1 ? `?round=${n}` : ""}`, label: "Back to Burn" }}
        note="Print at 100 %, without fitting to the page. Then measure the line of 100 mm below the drawing."
      />
    </>
  );
}

function sheetOf(id: number, n: number, asked: string | undefined) {
  const db = database();
  try {
    const full = fullTrial(db, id);
    if (!full.rounds.some((r) => r.n === n)) notFound();
    const paper = paperOf(asked);
    return { full, paper, ...roundSheetPages(db, full, n, paper) };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    if (error.field === "trial" || error.field === "paper") notFound();
    return "not laid out" as const;
  }
}
