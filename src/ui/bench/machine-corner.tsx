import { kindText } from "../../core/machine/machine-kind";
import { plain } from "../../core/metrology/quantity-text";
import type { BenchMachine } from "../../server/screens/bench-machine";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { BeginButton } from "../shell/begin-button";
import { MachineDrawing } from "./machine-drawing";

/** What a machine is, and its one next step. */
export function MachineCorner({ machine, isPage }: { machine: BenchMachine; isPage: boolean }) {
  const { spec, optic, slug } = machine;
  return (
    <div className="grid content-start gap-2 p-3 sm:border-r sm:border-hair">
      <div className="flex items-start justify-between gap-2">
        <div className="min-w-0">
          {isPage ? (
            <h1 className="text-2xl font-bold break-words">{spec.name}</h1>
          ) : (
            <h2 className="text-[19px] leading-tight font-bold break-words">
              <Link href={`/machine/${slug}`} className="hover:underline">
                {spec.name}
              </Link>
            </h2>
          )}
          <p className="text-[13px] leading-snug text-ink2">
            {[kindText(spec.kind), `${plain(spec.widthMm)} × ${plain(spec.depthMm)} mm`, optic ? `lens ${optic}` : ""]
              .filter(Boolean)
              .map((fact) => (
                <span key={fact} className="mr-2 sm:block">
                  {fact}
                </span>
              ))}
          </p>
        </div>
        <MachineDrawing kind={spec.kind} className="w-[64px] shrink-0 text-ink2" />
      </div>
      <NextStepLine machine={machine} />
    </div>
  );
}

function NextStepLine({ machine: { next, slug } }: { machine: BenchMachine }) {
  return (
    <div className="flex gap-x-3 gap-y-2 max-sm:items-center max-sm:justify-between sm:flex-col">
      <div>
        <p className="leading-tight font-semibold">{next.title}</p>
        <p className="text-[13px] leading-snug text-ink2">{next.reason}</p>
      </div>
      {next.action === "continue" && next.href && (
        <Link href={next.href} className={buttonClass("primary", "self-start")}>
          Continue
        </Link>
      )}
      {(next.action === "begin" || next.action === "check") && next.procedure && (
        <BeginButton
          machine={slug}
          procedure={next.procedure}
          stock={next.stock}
          weight="primary"
          check={next.action === "check"}
        />
      )}
    </div>
  );
}
