import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../../data/server-database";
import { momentNow } from "../../../server/keeping/clock";
import { stockList } from "../../../server/stock/stock-view";
import { MarkingScreen } from "../../../ui/stock/marking-screen";

export const metadata: Metadata = { title: "Marking settings" };

type Props = { searchParams: Promise<{ like?: string }> };

export default async function MarkingPage({ searchParams }: Props) {
  await connection();
  const { like } = await searchParams;
  const now = momentNow();
  return <MarkingScreen rows={stockList(database(), now)} like={Number(like) || null} now={now} />;
}
