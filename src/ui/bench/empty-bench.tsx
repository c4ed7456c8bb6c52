"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { openDemoBench } from "../../server/actions/practice-actions";
import type { JoinView } from "../../server/guard/join-view";
import { Button, buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import { TopBar } from "../primitives/top-bar";
import { WaitingEverywhere } from "../trial/waiting-everywhere";
import { JoinButton } from "./join-button";
import { LoadTrial } from "./load-trial";

export function EmptyBench({ join }: { join: JoinView | null }) {
  const router = useRouter();
  const [busy, start] = useTransition();
  const [fault, setFault] = useState("");
  const open = () =>
    start(async () => {
      const result = await openDemoBench().catch(() => null);
      if (result?.ok) router.refresh();
      else setFault(result?.message ?? "The server does not answer. Is it still running?");
    });
  return (
    <>
      <TopBar crumbs={[{ label: "Bench" }]} />
      <main className="mx-auto max-w-xl px-6 py-16">
        <WaitingEverywhere />
        <h1 className="text-2xl font-bold">No machine stands on this bench yet.</h1>
        <p className="mt-2 text-ink2">
          The demo bench is an invented label workshop with two gantries and practice machines to burn on. Its trials
          are yours to play with.
        </p>
        <Button weight="primary" className="mt-6" onClick={open} disabled={busy}>
          {busy ? "Running its trials…" : "Open the demo bench"}
        </Button>
        <Link href="/machine/new" className={buttonClass("plain", "mt-6 ml-3")}>
          Add a machine of your own
        </Link>
        {fault && <Fault>{fault}</Fault>}
        <div className="mt-10">
          <LoadTrial />
        </div>
        <p className="mt-6 flex flex-wrap items-center gap-4">
          <Link href="/backup" className="underline decoration-line underline-offset-4 hover:decoration-ink">
            Restore a backup
          </Link>
          {join && <JoinButton join={join} />}
        </p>
      </main>
    </>
  );
}
