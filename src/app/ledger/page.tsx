import type { Metadata } from "next";
import { connection } from "next/server";
import { database } from "../../data/database";
import { ledgerView } from "../../server/ledger-view";
import { LedgerScreen } from "../../ui/ledger/ledger-screen";

export const metadata: Metadata = { title: "Ledger" };

export default async function LedgerPage({ searchParams }: { searchParams: Promise<{ machine?: string }> }) {
  await connection();
  const { machine } = await searchParams;
  return <LedgerScreen view={ledgerView(database(), machine ?? null)} now={Date.now()} />;
}
