import type { Metadata } from "next";
import { connection } from "next/server";
import { databaseFile } from "../../data/server-database";
import { backupView } from "../../server/keeping/backup-view";
import { BackupScreen } from "../../ui/backup/backup-screen";

export const metadata: Metadata = { title: "Backup" };

/** Comes also when the data of the bench cannot be opened: then it is wanted most. */
export default async function BackupPage() {
  await connection();
  return <BackupScreen rows={backupView(databaseFile())} now={Date.now()} />;
}
