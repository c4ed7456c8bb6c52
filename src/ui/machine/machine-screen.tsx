import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { MachineFormView, MachineView } from "../../server/screens/machine-view";
import { MachineCard } from "../bench/machine-card";
import { Concern } from "../primitives/concern";
import { PutBackCard } from "../put-back/put-back-card";
import { TopBar } from "../shell/top-bar";
import { ArchiveCard } from "./archive-card";
import { ChangesCard } from "./changes-card";
import { MachineForm } from "./machine-form";
import { PartsCard } from "./parts-card";
import { PlanCard } from "./plan-card";
import { SettingsCard } from "./settings-card";

/** One machine: how its procedures stand, what it holds, what happened to it, and what is known of it. */
export function MachineScreen({ machine, form, now }: { machine: MachineView; form: MachineFormView; now: number }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: machine.spec.name }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_500px]">
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          {machine.archived && <ArchiveCard view={machine} />}
          <MachineCard machine={machine} now={now} isPage />
          {machine.plan && <PlanCard plan={machine.plan} slug={machine.slug} now={now} />}
          <PutBackCard view={machine} now={now} />
          <ChangesCard view={machine} now={now} />
          <PartsCard view={machine} kind="optic" now={now} />
          <PartsCard view={machine} kind="rotary" now={now} />
          <Concern name="Machine data" keptAs={`data ${machine.slug}`} fact={factsOf(machine.spec)}>
            <MachineForm key={JSON.stringify(machine.spec)} machine={machine} {...form} />
          </Concern>
        </div>
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          <SettingsCard view={machine} now={now} />
          {!machine.archived && <ArchiveCard view={machine} />}
        </div>
      </main>
    </>
  );
}

function factsOf({ widthMm, depthMm, topSpeedMmPerS }: MachineView["spec"]): string {
  return `${plain(widthMm)} × ${plain(depthMm)} mm, up to ${inUnit(topSpeedMmPerS, "mmPerS")}`;
}

/** The first visit: what is known of a machine that nobody has calibrated here. */
export function NewMachineScreen({ form }: { form: MachineFormView }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "New machine" }]} />
      <main className="mx-auto grid max-w-xl gap-4 px-6 py-8 max-sm:px-4">
        <div>
          <h1 className="text-2xl font-bold">Add a machine</h1>
          <p className="text-ink2">Enter its name and its size. You can add the other data later.</p>
        </div>
        <MachineForm machine={null} {...form} />
      </main>
    </>
  );
}
