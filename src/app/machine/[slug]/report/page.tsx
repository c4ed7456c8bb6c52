import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { Refusal } from "../../../../server/refusal";
import { machineReportPages } from "../../../../server/screens/machine-report";
import { machineName } from "../../../../server/screens/machine-view";
import { paperOf } from "../../../../server/trial/round-sheet";
import { SheetScreen } from "../../../../ui/run-sheet/sheet-screen";
import { TopBar } from "../../../../ui/shell/top-bar";
import { preferencesOfBrowser } from "../../../preferences";

type Props = { params: Promise<{ slug: string }>; searchParams: Promise<{ paper?: string }> };

export const metadata: Metadata = { title: "Report" };

/** Every setting of a machine in force, to print or to keep. */
export default async function ReportPage({ params, searchParams }: Props) {
  await connection();
  const { slug } = await params;
  const { unit: length } = await preferencesOfBrowser();
  const found = reportOf(slug, (await searchParams).paper, length);
  return (
    <>
      <div className="no-print">
        <TopBar
          crumbs={[
            { label: "Bench", href: "/" },
            { label: machineName(database(), slug) ?? slug, href: `/machine/${slug}` },
            { label: "Report" },
          ]}
        />
      </div>
      <SheetScreen
        heading="Report"
        title={found.title}
        pages={found.pages}
        paper={found.paper}
        href={(p) => `/machine/${slug}/report?paper=${p}`}
        pdfHref={`/api/machine/${slug}/report.pdf?paper=${found.paper}`}
        back={{ href: `/machine/${slug}`, label: "Back to the machine" }}
        note="Values are those of the ledger. U is the expanded uncertainty with k = 2, about 95 %."
      />
    </>
  );
}

function reportOf(slug: string, asked: string | undefined, length: Parameters<typeof machineReportPages>[3]["length"]) {
  try {
    const paper = paperOf(asked);
    return { paper, ...machineReportPages(database(), slug, momentNow(), { paper, length }) };
  } catch (error) {
    if (error instanceof Refusal) notFound();
    throw error;
  }
}
