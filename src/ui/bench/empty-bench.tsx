"use client";
import type { JoinView } from "../../server/guard/join-view";
import { buttonClass } from "../primitives/button";
import { Folded } from "../primitives/folded";
import { Link } from "../primitives/link";
import { TopBar } from "../shell/top-bar";
import { WaitingEverywhere } from "../waiting/waiting-everywhere";
import { JoinButton } from "./join-button";
import { LoadTrial } from "./load-trial";
import { OpenDemo } from "./open-demo";

export function EmptyBench({ join }: { join: JoinView | null }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench" }]} />
      <main className="mx-auto max-w-xl px-6 py-16">
        <WaitingEverywhere />
        <h1 className="text-2xl font-bold">No machine stands on this bench yet.</h1>
        <p className="mt-2 text-ink2">
          The demo bench is an invented label workshop with two gantries, a galvo, and practice machines to burn on. Its
          trials are yours to play with.
        </p>
        <div className="mt-6 flex flex-wrap gap-3">
          <OpenDemo weight="primary" label="Open the demo bench" />
          <Link href="/machine/new" className={buttonClass("plain")}>
            Add a machine of your own
          </Link>
        </div>
        <div className="mt-10">
          <Folded title="Load a trial from another computer">
            <LoadTrial />
          </Folded>
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
