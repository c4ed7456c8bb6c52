import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../../data/database";
import { comparedDays } from "../../../server/compared-days-view";
import { compareView } from "../../../server/ledger-view";
import { CompareScreen } from "../../../ui/ledger/compare-screen";

export const metadata: Metadata = { title: "Compare two days" };

type Props = { searchParams: Promise<{ machine?: string; from?: string; to?: string }> };

export default async function ComparePage({ searchParams }: Props) {
  await connection();
  const { machine, from, to } = await searchParams;
  const now = Date.now();
  const days = comparedDays(from, to, now);
  const view = compareView(database(), machine ?? null, days.before, days.after);
  return <CompareScreen view={view} days={days} now={now} />;
}
