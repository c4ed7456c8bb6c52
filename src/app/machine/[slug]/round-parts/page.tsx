import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { machineName } from "../../../../server/screens/machine-view";
import { roundPartsView } from "../../../../server/screens/round-parts-view";
import { RoundPartsScreen } from "../../../../ui/round-part/round-parts-screen";
import { preferencesOfBrowser } from "../../../preferences";

type Props = { params: Promise<{ slug: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  await connection();
  const name = machineName(database(), (await params).slug);
  return { title: name ? `Round parts on ${name}` : "Not found" };
}

export default async function RoundPartsPage({ params }: Props) {
  await connection();
  const { slug } = await params;
  const view = roundPartsView(database(), slug, momentNow(), (await preferencesOfBrowser()).unit);
  if (!view) notFound();
  return <RoundPartsScreen view={view} />;
}
