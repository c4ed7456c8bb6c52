import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { procedureView } from "../../../../server/screens/procedure-view";
import { ProcedureScreen } from "../../../../ui/machine/procedure-screen";
import { preferencesOfBrowser } from "../../../preferences";

type Props = { params: Promise<{ slug: string; procedure: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { slug, procedure } = await params;
  await connection();
  const view = procedureView(database(), slug, procedure, momentNow());
  return { title: view ? `${view.title}, ${view.machine}` : "Not found" };
}

export default async function ProcedurePage({ params }: Props) {
  const { slug, procedure } = await params;
  await connection();
  const now = momentNow();
  const { unit } = await preferencesOfBrowser();
  const view = procedureView(database(), slug, procedure, now, unit);
  if (!view) notFound();
  return <ProcedureScreen view={view} now={now} />;
}
