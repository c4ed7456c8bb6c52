import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../data/server-database";
import { momentNow } from "../../../server/keeping/clock";
import { stockName, stockView } from "../../../server/stock/stock-view";
import { StockCardScreen } from "../../../ui/stock/card-screen";

type Asked = { params: Promise<{ slug: string }> };

export async function generateMetadata({ params }: Asked): Promise<Metadata> {
  await connection();
  const { slug } = await params;
  return { title: stockName(database(), slug) ?? "Stock" };
}

export default async function StockCardPage({ params }: Asked) {
  await connection();
  const { slug } = await params;
  const view = stockView(database(), slug, momentNow());
  if (!view) notFound();
  return <StockCardScreen view={view} now={momentNow()} />;
}
