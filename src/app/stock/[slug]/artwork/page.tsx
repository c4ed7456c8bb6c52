import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { stockView } from "../../../../server/stock/stock-view";
import { ArtworkScreen } from "../../../../ui/stock/artwork-screen";

export const metadata: Metadata = { title: "Artwork" };

export default async function ArtworkPage({ params }: { params: Promise<{ slug: string }> }) {
  await connection();
  const view = stockView(database(), (await params).slug, momentNow());
  if (!view) notFound();
  return <ArtworkScreen view={view} />;
}
