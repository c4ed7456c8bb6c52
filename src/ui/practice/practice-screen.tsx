"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { kindText } from "../../core/machine/machine-kind";
import { fixed } from "../../core/metrology/quantity-text";
import { valueText } from "../../core/settings/entry-text";
import { renewPractice, revealTruth, switchCorrection, wearPractice } from "../../server/actions/practice-actions";
import type { PracticeMachineView } from "../../server/practice/practice-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";

import { Fault } from "../primitives/notice";
import { TopBar } from "../shell/top-bar";

export function PracticeScreen({ machines }: { machines: PracticeMachineView[] }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Practice machines" }]} />
      <main className="mx-auto max-w-[1100px] px-6 py-5 max-sm:px-4">
        <h1 className="text-2xl font-bold">Practice machines</h1>
        <p className="mt-1 mb-5 max-w-prose text-ink2">
          Stand-ins that run the very files you download and leave marks like a real machine: late beam, play, scale and
          scatter included. They know nothing of how corrections are worked out. What they really are stays hidden until
          you ask.
        </p>
        {machines.length === 0 && <p className="text-ink2">There is no practice machine. The demo bench has three.</p>}
        <ul className="grid gap-4">
          {machines.map((m) => (
            <MachineCard key={m.slug} machine={m} />
          ))}
        </ul>
      </main>
    </>
  );
}

const WEAR_MONTHS = 6;

function MachineCard({ machine }: { machine: PracticeMachineView }) {
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [renewing, setRenewing] = useState(false);
  const [busy, start] = useTransition();
  const act = (action: () => Promise<{ ok: boolean; message?: string }>) =>
    start(async () => {
      const result = await action().catch(() => null);
      setFault(result?.ok ? "" : (result?.message ?? "The server does not answer."));
      setRenewing(false);
      router.refresh();
    });
  const { controller, truth } = machine;
  return (
    <li className="card p-5">
      <h2 className="text-[19px] font-bold">
        {machine.name} <span className="ml-2 text-[14px] font-normal text-ink2">{kindText(machine.kind)}</span>
      </h2>
      <div className="mt-3 grid gap-6 md:grid-cols-2">
        {machine.kind === "galvo" ? (
          <section>
            <h3 className="mb-1 font-semibold">It marks from drawings</h3>
            <p className="max-w-prose text-ink2">Group by group of the SVG, with the height set before each.</p>
            {machine.numbers.length > 0 && <h3 className="mt-3 mb-1 font-semibold">Its controller holds</h3>}
            <Numbers lines={machine.numbers} />
          </section>
        ) : (
          <section>
            <h3 className="mb-1 font-semibold">Its controller holds</h3>
            <p className="num text-[14px]">{valueText({ shape: "table", rows: controller.table }, "mm")}</p>
            <Numbers lines={machine.numbers} />
            <CheckBox
              label="Its scan-offset correction is switched on"
              checked={controller.switchedOn}
              disabled={busy}
              onChange={(on) => act(() => switchCorrection({ machine: machine.slug, on }))}
              className="mt-2"
            />
          </section>
        )}
        <section>
          <h3 className="mb-1 font-semibold">Hidden truth</h3>
          {truth ? (
            <dl className="num grid grid-cols-[auto_1fr] gap-x-4 text-[14px]">
              {[...truthRows(truth), ...beamRows(machine.beam), ...rotaryRows(machine.rotary)].map(([label, value]) => (
                <div key={label} className="contents">
                  <dt className="font-sans text-ink2">{label}</dt>
                  <dd>{value}</dd>
                </div>
              ))}
            </dl>
          ) : (
            <>
              <p className="text-ink2">Kept from you and from the solver.</p>
              <Button
                weight="small"
                className="mt-2"
                disabled={busy}
                onClick={() => act(() => revealTruth({ machine: machine.slug }))}
              >
                Show the truth
              </Button>
            </>
          )}
        </section>
      </div>
      <div className="mt-4 flex flex-wrap items-center gap-3 border-t border-hair pt-3">
        {renewing ? (
          <>
            <span>Its pieces and readings stay; its truth changes and its table is emptied.</span>
            <Button weight="small" disabled={busy} onClick={() => act(() => renewPractice({ machine: machine.slug }))}>
              Exchange it
            </Button>
            <Button weight="quiet" onClick={() => setRenewing(false)}>
              Keep it
            </Button>
          </>
        ) : (
          <Button weight="quiet" onClick={() => setRenewing(true)}>
            Put another machine behind this name
          </Button>
        )}
        {!renewing && (
          <Button
            weight="quiet"
            disabled={busy}
            onClick={() => act(() => wearPractice({ machine: machine.slug, months: WEAR_MONTHS }))}
          >
            Let it wear for {WEAR_MONTHS} months
          </Button>
        )}
        {fault && <Fault>{fault}</Fault>}
      </div>
    </li>
  );
}

function Numbers({ lines }: { lines: readonly string[] }) {
  return lines.map((line) => (
    <p key={line} className="num text-[14px]">
      {line}
    </p>
  ));
}

function truthRows(truth: NonNullable<PracticeMachineView["truth"]>): [string, string][] {
  if ("kind" in truth)
    return truth.head
      ? headRows(truth.head)
      : [["field, X, Y, of its size", `${fixed(truth.scaleX, 5)}, ${fixed(truth.scaleY, 5)}`]];
  return [
    ["beam comes on late by", `${fixed(truth.lagOnS * 1e6, 0)} µs`],
    ["beam goes off late by", `${fixed(truth.lagOffS * 1e6, 0)} µs`],
    ["play of the X drive", `${fixed(truth.playMm, 4)} mm`],
    ["acceleration", `${fixed(truth.accelerationMmPerS2, 0)} mm/s²`],
    ["scale X, Y", `${fixed(truth.scaleX, 5)}, ${fixed(truth.scaleY, 5)}`],
    ...rowShiftRows(truth.rowShift),
    ["spot", `${fixed(truth.spotMm, 3)} mm`],
    ["scatter of row ends", `${fixed(truth.endJitterMm, 4)} mm`],
    ["between table entries", truth.controller.tableKind],
    ...axesRows(truth.axes),
  ];
}

type Head = NonNullable<Extract<NonNullable<PracticeMachineView["truth"]>, { kind: "galvo" }>["head"]>;

/** Mirrors, lens and mount of a galvo. */
function headRows({ mounted, order, x, y, lens, ...head }: Head): [string, string][] {
  const degrees = (rad: number) => fixed((rad * 180) / Math.PI, 2);
  const plugs = [
    mounted.swap ? "X and Y swapped" : "",
    mounted.invertX ? "X inverted" : "",
    mounted.invertY ? "Y inverted" : "",
  ].filter(Boolean);
  return [
    ["plugs and mount", plugs.join(", ") || "as drawn"],
    ["its controller", order === "swap first" ? "swaps first, then inverts" : "inverts first, then swaps"],
    ["size of X, Y", `${fixed(x.size, 4)}, ${fixed(y.size, 4)}`],
    ["own cubic of X, Y, at the edge", `${fixed(100 * x.cubic, 2)}, ${fixed(100 * y.cubic, 2)} %`],
    ["mirrors apart", `${fixed(head.apartMm, 1)} mm`],
    ["mirrors off square", `${degrees(head.skewRad)}°`],
    ["lens: cubic, quintic", `${fixed(lens.cubic, 4)}, ${fixed(lens.quintic, 4)}`],
    ["head turned by", `${degrees(head.turnRad)}°`],
    ["stock rises along X, Y", `${degrees(head.tilt.x)}, ${degrees(head.tilt.y)}°`],
    ["stock nearer than said", `${fixed(head.nearMm, 2)} mm`],
  ];
}

type GantryTruth = Exclude<NonNullable<PracticeMachineView["truth"]>, { kind: "galvo" }>;

function rowShiftRows(shift: GantryTruth["rowShift"]): [string, string][] {
  if (!shift) return [];
  return [
    [
      "scanned rows lie right of lines by",
      `${fixed(shift.mm, 3)} mm, ${fixed(shift.perSpeedS * 1000, 3)} mm more per m/s`,
    ],
    ["larger stored shift moves them", shift.sense > 0 ? "to the right" : "to the left"],
  ];
}

/** Machines of before there were errors of axes run straight. */
function axesRows(axes: GantryTruth["axes"]): [string, string][] {
  if (!axes) return [];
  const { x, y } = axes;
  const both = (of: (axis: typeof x) => string) => `${of(x)}, ${of(y)}`;
  return [
    ["play of the Y drive", `${fixed(axes.playYMm, 4)} mm`],
    ["Y leans toward X by", `${fixed(1000 * axes.leanRad, 2)} mm/m`],
    ["X, Y run out by", `${both((a) => `${fixed(a.runout.amplitudeMm, 3)} mm in ${fixed(a.runout.periodMm, 0)}`)} mm`],
    ["marks lie off by, X, Y", `${both((a) => fixed(a.homeMm, 2))} mm`],
    ["larger home offset moves them, X, Y", both((a) => (a.homeSense > 0 ? "up" : "down"))],
    ["stops stand in from the sides by", `${fixed(axes.stops.xMm, 2)}, ${fixed(axes.stops.yMm, 2)} mm`],
  ];
}

function beamRows(beam: PracticeMachineView["beam"]): [string, string][] {
  if (!beam) return [];
  return [
    ["focus at a height of", `${fixed(beam.shownFocusMm, 2)} mm`],
    ["its radius there, focal depth", `${fixed(beam.radiusMm, 3)}, ${fixed(beam.depthMm, 2)} mm`],
    ["play of the height screw", `${fixed(beam.playMm, 3)} mm`],
    ["stock differs from place to place by", `${fixed(100 * beam.grain, 1)} %`],
  ];
}

function rotaryRows(rotary: PracticeMachineView["rotary"]): [string, string][] {
  if (!rotary) return [];
  const { truth, name } = rotary;
  const percent = (share: number) => `${fixed(100 * share, 2)} %`;
  return [
    [
      `${name}: steps, roller, by those first read back`,
      `${fixed(truth.stepsByFound, 4)}, ${fixed(truth.rollerByFound, 4)}`,
    ],
    ["it slips there, back", `${percent(truth.slipThere)}, ${percent(truth.slipBack)}`],
    ["runs out by, play", `${fixed(truth.runoutMm, 2)}, ${fixed(truth.playMm, 2)} mm`],
    ["it turns", truth.turns === 1 ? "as it should" : "the other way"],
  ];
}
