import { connection } from "next/server";
import { database } from "../data/database";
import { benchView } from "../server/bench-view";
import { BenchScreen } from "../ui/bench/bench-screen";
import { preferencesOfBrowser } from "./preferences";

export default async function BenchPage() {
  await connection();
  const now = Date.now();
  return <BenchScreen view={benchView(database(), now, (await preferencesOfBrowser()).unit)} now={now} />;
}
