import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../data/server-database";
import { gaugesView } from "../../server/gauges/gauges-view";
import { momentNow } from "../../server/keeping/clock";
import { GaugesScreen } from "../../ui/gauges/gauges-screen";

export const metadata: Metadata = { title: "Gauges" };

export default async function GaugesPage() {
  await connection();
  return <GaugesScreen rows={gaugesView(database())} now={momentNow()} />;
}
