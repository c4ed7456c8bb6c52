import { headers } from "next/headers";
import { connection } from "next/server";
import { database, databaseFile } from "../data/server-database";
import { joinView } from "../server/guard/join-view";
import { lastBackup } from "../server/keeping/backup-view";
import { momentNow } from "../server/keeping/clock";
import { benchView } from "../server/screens/bench-view";
import { BenchScreen } from "../ui/bench/bench-screen";
import { preferencesOfBrowser } from "./preferences";

export default async function BenchPage() {
  await connection();
  const now = momentNow();
  const view = benchView(database(), now, (await preferencesOfBrowser()).unit);
  const join = joinView((await headers()).get("host"));
  return <BenchScreen view={view} join={join} lastBackup={lastBackup(databaseFile())} now={now} />;
}
