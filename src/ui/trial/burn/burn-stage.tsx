"use client";
import { ClipboardList, FileCode, FileImage, FileSpreadsheet, FileType } from "lucide-react";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { beforeBurn, duringBurn } from "../../../core/coupon/checklist";
import type { RoundSpec } from "../../../core/coupon/round-spec";
import { burnFileOf } from "../../../core/machine/machine-kind";
import { inUnit, plain } from "../../../core/metrology/quantity-text";
import { adjusted, fromEditedFile } from "../../../core/trial/decisions";
import { readDraft } from "../../../core/trial/draft";
import { burnOnPractice, markBurned } from "../../../server/actions/trial-actions";
import { CouponDrawing } from "../../drawing/coupon-drawing";
import { LoneDetail } from "../../drawing/detail-view";
import { Button, buttonClass } from "../../primitives/button";
import { CheckBox } from "../../primitives/check-box";
import { FilePick } from "../../primitives/file-pick";
import { Folded } from "../../primitives/folded";
import { Link } from "../../primitives/link";
import { NextStep } from "../../primitives/next-step";
import { Fault, Notice } from "../../primitives/notice";
import { PutBackNote } from "../../put-back/put-back-note";
import { correctedIn, EnteredWhere, entriesBefore, isEnteredWhereItActs } from "../shared/entered-where";
import { planContext, procedureOf, unreadHistory } from "../shared/known-procedure";
import type { StageProps } from "../shared/stages";
import { stageHref } from "../shared/stages";
import { titleBlock } from "../shared/title-block";
import { VerdictLine } from "../shared/verdict-line";
import { DialectForm, dialectText } from "./dialect-form";

const WORDS = {
  burned: {
    done: "Burned",
    title: "Burn it",
    next: "Next: burn the coupon.",
    read: "Read the coupon",
    how: ", with one of these files. Then say below that it is burned.",
    goOn: "It is burned: go on to reading",
    before: "Before this burn",
  },
  read: {
    done: "Prepared",
    title: "Go to it",
    next: "Next: read it at the machine.",
    read: "Read it",
    how: ", as said above: nothing is kept, so there is no file.",
    goOn: "Go on to reading",
    before: "Before it is read",
  },
} as const;

/** The question is far from the buttons, so it is scrolled into view. */
const intoView = (asked: HTMLElement | null) => asked?.scrollIntoView({ block: "center" });

/** Files, a short checklist, and the burn: on the machine, or on the practice machine. */
export function BurnStage({ view, n }: StageProps) {
  const procedure = procedureOf(view);
  const round = view.rounds.find((r) => r.n === n);
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [sure, setSure] = useState(false);
  const [busy, start] = useTransition();
  const laid = useMemo(() => {
    if (!round) return null;
    if (round.spec) return { spec: round.spec, plan: round.plan, fault: "" };
    const context = planContext(view, round.couponCode);
    const read = readDraft(procedure.plan(context), round.draft);
    return read.ok
      ? { spec: procedure.round(read.plan, context, round.purpose), plan: read.plan, fault: "" }
      : { spec: null, plan: null, fault: read.issues[0]?.message ?? "" };
  }, [round, procedure, view]);
  const corrected = useMemo(() => correctedIn(view, n - 1), [view, n]);
  if (!round || !laid) return null;
  const { spec, plan } = laid;
  // Where nothing is burned, the places to go to are drawn instead.
  const first = spec && spec.pieces.length === 0 ? spec.sites[0] : undefined;
  const where =
    spec && first ? procedure.detail(unreadHistory(view, spec, plan), { site: first.id, typed: null }) : null;
  const burned = round.burnedAt !== null;
  const go = (act: () => Promise<{ ok: boolean; message?: string }>) => {
    // One question before a proof without all new values.
    if (listed && !done && !sure) return setSure(true);
    start(async () => {
      setFault("");
      const result = await act().catch(() => null);
      if (!result) setFault("The server does not answer. Nothing was burned.");
      else if (result.ok) router.push(stageHref(view, "read", n));
      else setFault(result.message ?? "");
    });
  };
  const burn = (file: string | null) => go(() => burnOnPractice({ trialId: view.id, n, file }));
  const entries = entriesBefore(view, n, corrected);
  const isProof = round.purpose === "proof" && !burned;
  const done = isEnteredWhereItActs(entries) || adjusted(n - 1).of(view.decisions);
  const listed = isProof && entries.length > 0 && !adjusted(n - 1).of(view.decisions);
  const unadjusted = isProof && entries.length === 0 && !adjusted(n - 1).of(view.decisions) && procedure.adjusts;
  // Some rounds are read without anything being burned to be kept.
  const words = WORDS[spec && spec.pieces.length === 0 ? "read" : "burned"];

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
          ) : where ? (
            <LoneDetail detail={where} />
          ) : (
            <p className="p-8 text-ink2">{laid.fault || "Nothing is burned here: it is read at the machine."}</p>
          )}
        </section>
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          {listed && (
            <section className="card p-5" aria-label="Where the new values are">
              <EnteredWhere view={view} n={n} entries={entries} />
            </section>
          )}
          {unadjusted && (
            <div className="card p-5">
              <Notice tone="needs you" headline="Nothing is recorded yet.">
                Record the adjustments first. Without them this burn looks like the first.{" "}
                <Link className="underline" href={stageHref(view, "correct", n - 1)}>
                  Go to Correct
                </Link>
              </Notice>
            </div>
          )}
          {sure && (
            <div className="card scroll-my-28 p-5" role="alert" ref={intoView}>
              <Notice tone="needs you" headline="Burn the proof without all new values?">
                Record each new value first. To burn without them, press the button again.
              </Notice>
            </div>
          )}
          {spec && !burned && <Checklist title={words.before} lines={beforeBurn(spec)} machine={view.machineSlug} />}
          {spec && <Files view={view} n={n} spec={spec} couponCode={round.couponCode} />}
          {burned ? (
            <section className="card p-5">
              <h2 className="font-semibold">
                {words.done}
                {round.onPractice ? " on the practice machine" : ""}
                {fromEditedFile(n).of(view.decisions) ? ", from an edited file" : ""}.
              </h2>
              <p className="mt-1 text-ink2">Layout, files and settings in force are kept as they were.</p>
            </section>
          ) : (
            spec && (
              <NextStep isNext={view.practice !== null} className="card grid gap-3 px-5 py-4">
                <h2 className="font-semibold">{words.title}</h2>
                <p className="text-ink2">
                  On {view.machine.name}
                  {words.how}
                </p>
                {view.practice && spec.pieces.length === 0 && (
                  <Button disabled={busy} onClick={() => burn(null)}>
                    Go to the practice machine
                  </Button>
                )}
                {view.practice && spec.pieces.length > 0 && (
                  <PracticeBurn
                    name={view.machine.name}
                    takes={burnFileOf(view.machine.kind)}
                    busy={busy}
                    switchedOn={view.practice.switchedOn}
                    onBurn={burn}
                  />
                )}
                {fault && <Fault>{fault}</Fault>}
              </NextStep>
            )
          )}
          {spec && !burned && <Checklist title="At the machine, one after the other" lines={duringBurn(spec)} />}
        </div>
      </main>
      <VerdictLine outcome={null} text={burned ? `${words.done}. Next: read it.` : laid.fault || words.next}>
        {burned ? (
          <NextStep>
            <Link href={stageHref(view, "read", n)} className={buttonClass("primary")}>
              {words.read}
            </Link>
          </NextStep>
        ) : (
          spec && (
            <NextStep isNext={view.practice === null}>
              <Button weight="primary" disabled={busy} onClick={() => go(() => markBurned({ trialId: view.id, n }))}>
                {words.goOn}
              </Button>
            </NextStep>
          )
        )}
      </VerdictLine>
    </>
  );
}

/** @param machine to set something on it for this burn only; left out where that is said elsewhere */
function Checklist({ title, lines, machine }: { title: string; lines: readonly string[]; machine?: string }) {
  if (lines.length === 0) return null;
  return (
    <section className="card px-5 py-4">
      <h2 className="mb-1 font-semibold">{title}</h2>
      <ul className="grid">
        {lines.map((line) => (
          <li key={line}>
            <CheckBox label={line} />
          </li>
        ))}
      </ul>
      {machine && (
        <Folded title="Set something for this burn only?" className="mt-1">
          <PutBackNote machine={machine} />
        </Folded>
      )}
    </section>
  );
}

/** A drawing holds one piece; everything else the whole round. */
function filesOf({ pieces, program }: RoundSpec, takes: ReturnType<typeof burnFileOf>) {
  const drawings = pieces.flatMap((_, i) => {
    const [query, which] = pieces.length > 1 ? [`?piece=${i + 1}`, ` ${i + 1}`] : ["", ""];
    return [
      { file: `coupon.svg${query}`, label: `SVG${which}`, Icon: FileImage },
      { file: `coupon.dxf${query}`, label: `DXF${which}`, Icon: FileType },
    ];
  });
  return [
    ...drawings,
    ...(takes === "g-code" && program.some((op) => op.kind === "mark" || op.kind === "set height")
      ? [{ file: "coupon.nc", label: "G-code", Icon: FileCode }]
      : []),
    { file: "sites.csv", label: "Sites", Icon: FileSpreadsheet },
  ];
}

type FilesProps = { view: StageProps["view"]; n: number; spec: RoundSpec; couponCode: string };

function Files({ view, n, spec, couponCode }: FilesProps) {
  const takes = burnFileOf(view.machine.kind);
  const base = `/api/trials/${view.id}/rounds/${n}`;
  const settings = spec.pieces.flatMap((piece) => piece.settings.map((s) => ({ ...s, key: `${piece.id} ${s.id}` })));
  const hasPulses = settings.some((s) => s.pulseKHz !== undefined);
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
        {filesOf(spec, takes).map(({ file, label, Icon }) => (
          <a key={file} className={buttonClass("plain", "!px-2.5")} href={`${base}/${file}`} download>
            <Icon size={17} aria-hidden="true" /> {label}
          </a>
        ))}
      </div>
      <Folded title="Marking settings by group" className="mt-1">
        <table className="mt-2 w-full text-[14px]">
          <thead>
            <tr className="text-left text-ink2">
              <th className="font-normal">Group</th>
              <th className="text-right font-normal">Speed</th>
              <th className="text-right font-normal">Power</th>
              {hasPulses && <th className="text-right font-normal">Pulses</th>}
            </tr>
          </thead>
          <tbody>
            {settings.map((s) => (
              <tr key={s.key} className="border-t border-hair">
                <td>{s.label}</td>
                <td className="num text-right">{inUnit(s.speedMmPerS, "mmPerS")}</td>
                <td className="num text-right">{plain(s.powerPct)} %</td>
                {hasPulses && (
                  <td className="num text-right">{s.pulseKHz === undefined ? "" : `${plain(s.pulseKHz)} kHz`}</td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </Folded>
      {takes === "g-code" && (
        <Folded
          className="mt-1"
          title={
            <>
              G-code as {view.machine.name} takes it: <span className="num">{dialectText(view.dialect)}</span>
            </>
          }
        >
          <DialectForm
            key={JSON.stringify(view.dialect)}
            machine={view.machine.name}
            couponCode={couponCode}
            machineSlug={view.machineSlug}
            dialect={view.dialect}
            bed={view.machine}
            spec={spec}
          />
        </Folded>
      )}
    </section>
  );
}

function PracticeBurn({
  name,
  takes,
  busy,
  switchedOn,
  onBurn,
}: {
  name: string;
  takes: ReturnType<typeof burnFileOf>;
  busy: boolean;
  switchedOn: boolean;
  onBurn: (file: string | null) => void;
}) {
  return (
    <div className="grid gap-2 border-t border-hair pt-3">
      <p className="text-[14px] text-ink2">
        Or burn it on the practice machine of {name}:{" "}
        {takes === "g-code" ? "it runs the G-code file itself" : "it marks the groups of the SVG as this round says"}
        {switchedOn ? "" : ", and its correction is switched off"}.
      </p>
      <Button disabled={busy} onClick={() => onBurn(null)}>
        {busy ? "Burning…" : "Burn on the practice machine"}
      </Button>
      <div className="text-[14px]">
        <FilePick
          label={takes === "g-code" ? "with an edited G-code file:" : "with an edited SVG:"}
          accept={takes === "g-code" ? ".nc,.gcode,.txt,text/plain" : ".svg,image/svg+xml"}
          disabled={busy}
          onText={onBurn}
        />
      </div>
    </div>
  );
}
