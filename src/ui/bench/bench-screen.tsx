import { countText } from "../../core/metrology/count-text";
import type { JoinView } from "../../server/guard/join-view";
import type { BenchView } from "../../server/screens/bench-view";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { Notice } from "../primitives/notice";
import { TopBar } from "../shell/top-bar";
import { WaitingEverywhere } from "../waiting/waiting-everywhere";
import { EmptyBench } from "./empty-bench";
import { needsYou } from "./find-machines";
import { JoinButton } from "./join-button";
import { MachineList } from "./machine-list";
import { OpenDemo } from "./open-demo";
import { SideLists } from "./side-lists";

type Props = { view: BenchView; join: JoinView | null; lastBackup: number | null; now: number };

export function BenchScreen({ view, join, lastBackup, now }: Props) {
  if (view.machines.length + view.damaged.length === 0) return <EmptyBench join={join} />;
  const summary = summaryOf(view.machines);
  return (
    <>
      <TopBar crumbs={[{ label: "Bench" }]} />
      <main className="mx-auto grid max-w-[1680px] gap-x-5 gap-y-4 px-5 py-4 max-sm:px-4 lg:grid-cols-[1fr_228px]">
        <section aria-labelledby="bench-title" className="min-w-0">
          <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
            <h1 id="bench-title" className="text-2xl font-bold">
              Bench
            </h1>
            <p className="text-ink2">{summary}</p>
            <div className="ml-auto flex flex-wrap gap-2">
              {join && <JoinButton join={join} />}
              <Link href="/machine/new" className={buttonClass("small")}>
                Add a machine
              </Link>
            </div>
          </div>
          <WaitingEverywhere />
          <MachineList machines={view.machines} now={now} />
          {view.damaged.map(({ slug, name, column }) => (
            <section key={slug} className="card mt-4 p-5" aria-label={`${name}, damaged`}>
              <Notice tone="needs you" headline={`The data of ${name} is damaged.`}>
                A row of the table {column.split(".")[0]} cannot be read. The other machines are not affected.{" "}
                <Link className="underline" href="/backup">
                  Restore an earlier backup
                </Link>{" "}
                to see this machine again.
              </Notice>
            </section>
          ))}
          {view.damagedToo.length > 0 && (
            <section className="card mt-4 p-5" aria-label="Damaged data">
              <Notice tone="needs you" headline="Some data is damaged.">
                These rows cannot be read: {view.damagedToo.map((row) => row.of).join(", ")}.{" "}
                <Link className="underline" href="/backup">
                  Restore an earlier backup
                </Link>{" "}
                to see them again.
              </Notice>
            </section>
          )}
          {view.archived.length > 0 && (
            <p className="mt-5 text-[14px] text-ink2">
              Archived:{" "}
              {view.archived.map((m, i) => (
                <span key={m.slug}>
                  {i > 0 && ", "}
                  <Link href={`/machine/${m.slug}`} className="underline decoration-line underline-offset-4">
                    {m.name}
                  </Link>
                </span>
              ))}
            </p>
          )}
        </section>
        {view.canOpenDemo && (
          <div className="lg:col-span-2">
            <OpenDemo weight="quiet" label="Open the demo bench beside these machines" />
          </div>
        )}
        <SideLists view={view} lastBackup={lastBackup} now={now} />
      </main>
    </>
  );
}

/** How many machines there are, how many need the person, how many results are valid. */
function summaryOf(machines: BenchView["machines"]): string {
  const needy = machines.filter(needsYou).length;
  const valid = machines.flatMap((m) => m.procedures).filter((p) => p.state === "holding").length;
  return [
    countText(machines.length, "machine"),
    `${needy} ${needy === 1 ? "needs" : "need"} you`,
    `${valid} valid`,
  ].join(" · ");
}
