"use client";
import { ClipboardList, FileCode, FileImage, FileSpreadsheet, FileType } from "lucide-react";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { byHand, type RoundSpec } from "../../core/coupon/round-spec";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { PlanContext } from "../../core/procedures/contract";
import { readDraft } from "../../core/procedures/draft";
import { burnOnPractice, markBurned } from "../../server/actions/trial-actions";
import { CouponDrawing } from "../drawing/coupon-drawing";
import { PutBackNote } from "../machine/put-back-note";
import { Button, buttonClass } from "../primitives/button";
import { FilePick } from "../primitives/file-pick";
import { Link } from "../primitives/link";
import { Fault, Notice } from "../primitives/notice";
import { DialectForm, dialectText } from "./dialect-form";
import { procedureOf } from "./known-procedure";
import type { StageProps } from "./stages";
import { stageHref } from "./stages";
import { titleBlock } from "./title-block";
import { VerdictLine } from "./verdict-line";

/** Files, a short checklist, and the burn: on the machine, or on the practice machine. */
export function BurnStage({ view, n }: StageProps) {
  const procedure = procedureOf(view);
  const round = view.rounds.find((r) => r.n === n);
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const laid = useMemo(() => {
    if (!round) return null;
    if (round.spec) return { spec: round.spec, fault: "" };
    const context: PlanContext = { machine: view.machine, couponCode: round.couponCode, inForce: view.heldNow };
    const read = readDraft(procedure.plan(context), round.draft);
    return read.ok
      ? { spec: procedure.round(read.plan, context, round.purpose), fault: "" }
      : { spec: null, fault: read.issues[0]?.message ?? "" };
  }, [round, procedure, view]);
  if (!round || !laid) return null;
  const { spec } = laid;
  const burned = round.burnedAt !== null;
  const go = (act: () => Promise<{ ok: boolean; message?: string }>) =>
    start(async () => {
      setFault("");
      const result = await act().catch(() => null);
      if (!result) setFault("The server does not answer. Nothing was burned.");
      else if (result.ok) router.push(stageHref(view, "read", n));
      else setFault(result.message ?? "");
    });
  const burn = (file: string | null) => go(() => burnOnPractice({ trialId: view.id, n, file }));
  const unrecorded = round.purpose === "proof" && !burned && !view.records.some((r) => r.origin === "trial");

  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_430px]">
        <section className="card min-h-[420px] max-lg:order-2 lg:max-h-[calc(100dvh-190px)]" aria-label="Drawing">
          {spec?.pieces[0] ? (
            <CouponDrawing
              piece={spec.pieces[0]}
              overlay={[]}
              site={null}
              detail={null}
              titleBlock={titleBlock(view, procedure.title, round.couponCode, spec.delivery)}
            />
          ) : (
            <p className="p-8 text-ink2">{laid.fault || "There is no piece to burn."}</p>
          )}
        </section>
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          {unrecorded && (
            <div className="card p-5">
              <Notice tone="needs you" headline="Nothing is recorded yet.">
                A proof shows the entries in force. Record what you entered first, or this burn will look like the first
                one.{" "}
                <Link className="underline" href={stageHref(view, "correct", n - 1)}>
                  To Correct
                </Link>
              </Notice>
            </div>
          )}
          {spec && !burned && <Checklist spec={spec} machine={view.machineSlug} />}
          {spec && <Files view={view} n={n} spec={spec} couponCode={round.couponCode} />}
          {burned ? (
            <section className="card p-5">
              <h2 className="font-semibold">Burned{round.onPractice ? " on the practice machine" : ""}.</h2>
              <p className="mt-1 text-ink2">Layout, files and settings in force are kept as they were.</p>
            </section>
          ) : (
            spec && (
              <section className="card grid gap-3 px-5 py-4">
                <h2 className="font-semibold">Burn it</h2>
                <p className="text-ink2">
                  On {view.machine.name}, with one of these files. Then say below that it is burned.
                </p>
                {view.practice && (
                  <PracticeBurn
                    name={view.machine.name}
                    busy={busy}
                    switchedOn={view.practice.switchedOn}
                    onBurn={burn}
                  />
                )}
                {fault && <Fault>{fault}</Fault>}
              </section>
            )
          )}
        </div>
      </main>
      <VerdictLine outcome={null} text={burned ? "Burned. Next: read it." : laid.fault || "Next: burn the coupon."}>
        {burned ? (
          <Link href={stageHref(view, "read", n)} className={buttonClass("primary")}>
            Read the coupon
          </Link>
        ) : (
          spec && (
            <Button weight="primary" disabled={busy} onClick={() => go(() => markBurned({ trialId: view.id, n }))}>
              It is burned: go on to reading
            </Button>
          )
        )}
      </VerdictLine>
    </>
  );
}

function Checklist({ spec, machine }: { spec: RoundSpec; machine: string }) {
  return (
    <section className="card px-5 py-4">
      <h2 className="mb-1 font-semibold">Before this burn</h2>
      <ul className="grid">
        {byHand(spec).map((line) => (
          <li key={line}>
            <label className="flex cursor-pointer items-start gap-3 py-1 max-lg:min-h-11">
              <input type="checkbox" className="mt-0.5 size-5 shrink-0" />
              <span>{line}</span>
            </label>
          </li>
        ))}
      </ul>
      <details className="mt-1">
        <summary className="cursor-pointer py-1 text-[14px] text-ink2">Set something for this burn only?</summary>
        <PutBackNote machine={machine} />
      </details>
    </section>
  );
}

/** A drawing holds one piece; everything else the whole round. */
function filesOf({ pieces }: RoundSpec) {
  const drawings = pieces.flatMap((_, i) => {
    const [query, which] = pieces.length > 1 ? [`?piece=${i + 1}`, ` ${i + 1}`] : ["", ""];
    return [
      { file: `coupon.svg${query}`, label: `SVG${which}`, Icon: FileImage },
      { file: `coupon.dxf${query}`, label: `DXF${which}`, Icon: FileType },
    ];
  });
  return [
    ...drawings,
    { file: "coupon.nc", label: "G-code", Icon: FileCode },
    { file: "sites.csv", label: "Sites", Icon: FileSpreadsheet },
  ];
}

type FilesProps = { view: StageProps["view"]; n: number; spec: RoundSpec; couponCode: string };

function Files({ view, n, spec, couponCode }: FilesProps) {
  const base = `/api/trials/${view.id}/rounds/${n}`;
  const settings = spec.pieces.flatMap((piece) => piece.settings.map((s) => ({ ...s, key: `${piece.id} ${s.id}` })));
  return (
    <section className="card px-5 py-4">
      <div className="flex items-center justify-between gap-2">
        <h2 className="font-semibold">Take along</h2>
        <Link
          className={buttonClass("plain", "!px-2.5")}
          href={`/trial/${view.id}/run-sheet${n > 1 ? `?round=${n}` : ""}`}
        >
          <ClipboardList size={17} aria-hidden="true" /> Run sheet
        </Link>
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        {filesOf(spec).map(({ file, label, Icon }) => (
          <a key={file} className={buttonClass("plain", "!px-2.5")} href={`${base}/${file}`} download>
            <Icon size={17} aria-hidden="true" /> {label}
          </a>
        ))}
      </div>
      <details className="mt-1">
        <summary className="cursor-pointer py-1 text-[14px] text-ink2">Marking settings by group</summary>
        <table className="mt-2 w-full text-[14px]">
          <thead>
            <tr className="text-left text-ink2">
              <th className="font-normal">Group</th>
              <th className="text-right font-normal">Speed</th>
              <th className="text-right font-normal">Power</th>
            </tr>
          </thead>
          <tbody>
            {settings.map((s) => (
              <tr key={s.key} className="border-t border-hair">
                <td>{s.label}</td>
                <td className="num text-right">{inUnit(s.speedMmPerS, "mmPerS")}</td>
                <td className="num text-right">{plain(s.powerPct)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
      <details className="mt-1">
        <summary className="cursor-pointer py-1 text-[14px] text-ink2">
          G-code as {view.machine.name} takes it: <span className="num">{dialectText(view.dialect)}</span>
        </summary>
        <DialectForm
          key={JSON.stringify(view.dialect)}
          machine={view.machine.name}
          couponCode={couponCode}
          {...{ machineSlug: view.machineSlug, dialect: view.dialect, bed: view.machine, spec }}
        />
      </details>
    </section>
  );
}

function PracticeBurn({
  name,
  busy,
  switchedOn,
  onBurn,
}: {
  name: string;
  busy: boolean;
  switchedOn: boolean;
  onBurn: (file: string | null) => void;
}) {
  return (
    <div className="grid gap-2 border-t border-hair pt-3">
      <p className="text-[14px] text-ink2">
        Or burn it on the practice machine of {name}: it runs the G-code file itself
        {switchedOn ? "" : ", and its correction is switched off"}.
      </p>
      <Button disabled={busy} onClick={() => onBurn(null)}>
        {busy ? "Burning…" : "Burn on the practice machine"}
      </Button>
      <div className="text-[14px]">
        <FilePick
          label="with an edited G-code file:"
          accept=".nc,.gcode,.txt,text/plain"
          disabled={busy}
          onText={onBurn}
        />
      </div>
    </div>
  );
}
