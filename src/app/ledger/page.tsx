import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../data/server-database";
import { momentNow } from "../../server/keeping/clock";
import { ledgerView } from "../../server/ledger/ledger-view";
import { LedgerScreen } from "../../ui/ledger/ledger-screen";

export const metadata: Metadata = { title: "Ledger" };

type Props = { searchParams: Promise<{ machine?: string; setting?: string; all?: string }> };

export default async function LedgerPage({ searchParams }: Props) {
  await connection();
  const { machine, setting, all } = await searchParams;
  const chosen = { machine: machine ?? null, setting: setting ?? null };
  const now = momentNow();
  const view = ledgerView(database(), chosen, now, all === undefined ? undefined : Number.POSITIVE_INFINITY);
  return <LedgerScreen view={view} now={now} />;
}
