import { database } from "../../../../../data/server-database";
import { attachment } from "../../../../../server/attachment";
import { momentNow } from "../../../../../server/keeping/clock";
import { Refusal } from "../../../../../server/refusal";
import { machineReportPdf } from "../../../../../server/screens/machine-report";
import { paperOf } from "../../../../../server/trial/round-sheet";
import { preferencesOfBrowser } from "../../../../preferences";

type Asked = { params: Promise<{ slug: string; file: string }> };

/** `report.pdf`: the report of a machine; `?paper=letter` for the other paper. */
export async function GET(request: Request, { params }: Asked): Promise<Response> {
  const { slug, file } = await params;
  try {
    if (file !== "report.pdf") throw new Refusal("file", `There is no file “${file}” of a machine. Choose report.pdf.`);
    const paper = paperOf(new URL(request.url).searchParams.get("paper"));
    const { unit: length } = await preferencesOfBrowser();
    const bytes = await machineReportPdf(database(), slug, momentNow(), { paper, length });
    return new Response(new Uint8Array(bytes), {
      headers: {
        "Content-Type": "application/pdf",
        "Content-Disposition": attachment(`${slug}-report.pdf`),
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
