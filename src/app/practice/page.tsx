import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../data/server-database";
import { practiceView } from "../../server/practice/practice-view";
import { PracticeScreen } from "../../ui/practice/practice-screen";

export const metadata: Metadata = { title: "Practice machines" };

export default async function PracticePage() {
  await connection();
  return <PracticeScreen machines={practiceView(database())} />;
}
