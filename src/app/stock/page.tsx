import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../data/server-database";
import { momentNow } from "../../server/keeping/clock";
import { stockList } from "../../server/stock/stock-view";
import { StockScreen } from "../../ui/stock/stock-screen";

export const metadata: Metadata = { title: "Stock" };

export default async function StockPage() {
  await connection();
  return <StockScreen rows={stockList(database(), momentNow())} now={momentNow()} />;
}
