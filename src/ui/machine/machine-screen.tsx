import type { BenchMachine } from "../../server/bench-view";
import type { MachineFormView } from "../../server/machine-view";
import { MachineCard } from "../bench/machine-card";
import { TopBar } from "../primitives/top-bar";
import { MachineForm } from "./machine-form";

/** One machine: how its procedures stand, and what is known of it. */
export function MachineScreen({ machine, form, now }: { machine: BenchMachine; form: MachineFormView; now: number }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: machine.spec.name }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_500px]">
        <div className="min-w-0">
          <MachineCard machine={machine} now={now} isPage />
        </div>
        <div className="min-w-0">
          <MachineForm key={JSON.stringify(machine.spec)} machine={machine} {...form} />
        </div>
      </main>
    </>
  );
}

/** The first visit: what is known of a machine that nobody has calibrated here. */
export function NewMachineScreen({ form }: { form: MachineFormView }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "New machine" }]} />
      <main className="mx-auto grid max-w-xl gap-4 px-6 py-8 max-sm:px-4">
        <div>
          <h1 className="text-2xl font-bold">Add a machine</h1>
          <p className="text-ink2">
            From its plate, its manual or its controller. What is not known can stay so, and everything can be changed
            later.
          </p>
        </div>
        <MachineForm machine={null} {...form} />
      </main>
    </>
  );
}
