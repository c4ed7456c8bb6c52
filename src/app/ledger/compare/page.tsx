import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../../data/server-database";
import { momentNow } from "../../../server/keeping/clock";
import { comparedDays } from "../../../server/ledger/compared-days-view";
import { compareView } from "../../../server/ledger/ledger-view";
import { CompareScreen } from "../../../ui/ledger/compare-screen";

export const metadata: Metadata = { title: "Compare two days" };

type Props = { searchParams: Promise<{ machine?: string; from?: string; to?: string }> };

export default async function ComparePage({ searchParams }: Props) {
  await connection();
  const { machine, from, to } = await searchParams;
  const now = momentNow();
  const days = comparedDays(from, to, now);
  const view = compareView(database(), machine ?? null, days.before, days.after);
  return <CompareScreen view={view} days={days} now={now} />;
}
