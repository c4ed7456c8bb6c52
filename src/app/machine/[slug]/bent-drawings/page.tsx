import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { bentDrawingsView } from "../../../../server/screens/bent-drawings-view";
import { machineName } from "../../../../server/screens/machine-view";
import { BentDrawingsScreen } from "../../../../ui/bent-drawings/bent-drawings-screen";
import { preferencesOfBrowser } from "../../../preferences";

type Props = { params: Promise<{ slug: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  await connection();
  const name = machineName(database(), (await params).slug);
  return { title: name ? `Bent drawings for ${name}` : "Not found" };
}

export default async function BentDrawingsPage({ params }: Props) {
  await connection();
  const { slug } = await params;
  const view = bentDrawingsView(database(), slug, momentNow(), (await preferencesOfBrowser()).unit);
  if (!view) notFound();
  return <BentDrawingsScreen view={view} />;
}
