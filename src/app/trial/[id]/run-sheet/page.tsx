import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/database";
import { PAPERS, type Paper } from "../../../../formats/run-sheet/sheet-page";
import { sheetPages } from "../../../../formats/run-sheet/sheet-pages";
import { Refusal } from "../../../../server/refusal";
import { roundSheet } from "../../../../server/round-sheet";
import { fullTrial } from "../../../../server/trial-record";
import { TopBar } from "../../../../ui/primitives/top-bar";
import { RunSheetScreen } from "../../../../ui/run-sheet/run-sheet-screen";

type Props = {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ round?: string; paper?: string }>;
};

export const metadata: Metadata = { title: "Run sheet" };

/** The print view of a round. A layout that is not complete leads back to where it is laid out. */
export default async function RunSheetPage({ params, searchParams }: Props) {
  await connection();
  const id = Number((await params).id);
  const { round = "1", paper: asked = "a4" } = await searchParams;
  const paper = asked in PAPERS ? (asked as Paper) : "a4";
  const n = Number(round);
  const at = n > 1 ? `round=${n}&` : "";
  const found = sheetOf(id, n);
  if (found === "not laid out") redirect(`/trial/${id}/lay-out?${at}`);
  const { sheet, full } = found;
  return (
    <>
      <div className="no-print">
        <TopBar
          crumbs={[
            { label: "Bench", href: "/" },
            {
              label: `${full.machine.name}, ${full.procedure.title.toLowerCase()}`,
              href: `/machine/${full.machineSlug}/${full.procedure.id}`,
            },
            { label: `coupon ${full.trial.code}` },
          ]}
        />
      </div>
      <RunSheetScreen
        title={sheet.title}
        pages={sheetPages(sheet, paper)}
        paper={paper}
        href={(p) => `/trial/${id}/run-sheet?${at}paper=${p}`}
        pdfHref={`/api/trials/${id}/rounds/${n}/run-sheet.pdf?paper=${paper}`}
        backHref={`/trial/${id}/burn${n > 1 ? `?round=${n}` : ""}`}
      />
    </>
  );
}

function sheetOf(id: number, n: number) {
  const db = database();
  try {
    const full = fullTrial(db, id);
    if (!full.rounds.some((r) => r.n === n)) notFound();
    return { full, sheet: roundSheet(db, full, n) };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    if (error.field === "trial") notFound();
    return "not laid out" as const;
  }
}
