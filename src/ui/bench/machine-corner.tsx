import clsx from "clsx";
import { kindText } from "../../core/machine/machine-kind";
import { plain } from "../../core/metrology/quantity-text";
import type { BenchMachine } from "../../server/screens/bench-machine";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { BeginButton } from "../shell/begin-button";
import { MachineDrawing } from "./machine-drawing";

/** Name, drawing and facts of a machine. @param isShort its kind is its only fact */
export function MachineIdentity({
  machine: { spec, optic, slug },
  isPage,
  isShort,
}: {
  machine: BenchMachine;
  isPage: boolean;
  isShort: boolean;
}) {
  const facts = [
    kindText(spec.kind),
    ...(isShort ? [] : [`${plain(spec.widthMm)} × ${plain(spec.depthMm)} mm`]),
    ...(optic && !isShort ? [`lens ${optic.replace(/ mm$/, "\u00a0mm")}`] : []),
  ];
  return (
    <div className="flex items-start justify-between gap-2">
      <div className="min-w-0">
        {isPage ? (
          <h1 className="text-2xl font-bold break-words">{spec.name}</h1>
        ) : (
          <h2 className="text-[19px] leading-tight font-bold break-words">
            <Link href={`/machine/${slug}`} className="touch-link hover:underline">
              {spec.name}
            </Link>
          </h2>
        )}
        <p className="text-[13px] leading-snug text-ink2">
          {facts.map((fact) => (
            <span key={fact} className="mr-2 sm:block">
              {fact}
            </span>
          ))}
        </p>
      </div>
      <MachineDrawing kind={spec.kind} className={clsx("shrink-0 text-ink2", isShort ? "w-[50px]" : "w-[64px]")} />
    </div>
  );
}

/** The one next step of a machine. */
export function NextStepLine({ machine: { next, slug }, isShort }: { machine: BenchMachine; isShort: boolean }) {
  const weight = isShort ? "small" : "primary";
  return (
    <div className="flex gap-x-3 gap-y-1.5 max-sm:items-center max-sm:justify-between sm:flex-col">
      <div>
        <p className="leading-tight font-semibold">{next.title}</p>
        <p className="text-[13px] leading-snug text-ink2">{next.reason}</p>
      </div>
      {next.action === "continue" && next.href && (
        <Link href={next.href} className={buttonClass(weight, "self-start")}>
          Continue
        </Link>
      )}
      {(next.action === "begin" || next.action === "check") && next.procedure && (
        <BeginButton
          machine={slug}
          procedure={next.procedure}
          stock={next.stock}
          weight={weight}
          check={next.action === "check"}
        />
      )}
    </div>
  );
}
