/** What is asked before a rotary is measured, field by field. */

import { gaugeFields } from "../../measuring/length-gauges";
import type { FieldSpec, PlanContext } from "../../trial/plan-form";
import { choice, LENGTH, SPEED } from "../../trial/plan-form";
import { BACK, DRIVES, HELD, NO_NAME, REPLACED, RESTS, SIZED, WAYS } from "./plan-type";

export function fieldsFor(context: PlanContext): FieldSpec[] {
  const { rotary } = context;
  const rollers = { field: "drive", is: ["roller"] };
  const chuck = { field: "drive", is: ["chuck"] };
  const spans = { field: "way", is: ["span", "traced"] };
  const traced = { field: "way", is: ["traced"] };
  const burned = { field: "way", is: ["wrap", "span"] };
  const known = rotary?.label ?? NO_NAME;
  return [
    {
      key: "way",
      label: "What is measured",
      group: "Test",
      ...choice(WAYS),
      why: "Once around tells most: it is the longest line there is.",
    },
    {
      key: "spanMm",
      label: "From line to line",
      group: "Test",
      ...LENGTH,
      why: "As long as the part allows, below half a turn with tape.",
      when: spans,
    },
    {
      key: "tapeMm",
      label: "The tape is thick",
      group: "Test",
      ...LENGTH,
      why: "It stands out from the part and is read laid flat. 0: no tape.",
      when: spans,
    },
    {
      key: "thereAndBack",
      label: "There and back",
      group: "Test",
      ...choice(BACK),
      why: "A scale that is wrong comes back to its place, a part that slips does not.",
    },
    {
      key: "rotary",
      label: "Rotary",
      group: "Rotary",
      kind: "choice",
      why: rotary ? "As it is fitted." : "None is written down as fitted: its drive need not be known.",
      options: [{ value: known, label: known, why: "" }],
    },
    { key: "drive", label: "How it turns", group: "Rotary", ...choice(DRIVES), why: "" },
    {
      key: "replaces",
      label: "In the place of",
      group: "Rotary",
      ...choice(REPLACED),
      why: "",
    },
    {
      key: "holds",
      label: "Its controller holds",
      group: "Rotary",
      ...choice(HELD),
      why: "One of them is corrected: only their ratio matters.",
      when: rollers,
    },
    {
      key: "runoutMm",
      label: "Runs out by",
      group: "Rotary",
      ...LENGTH,
      why: "Up and down in a turn, by an indicator or by eye.",
      when: chuck,
    },
    {
      key: "diameterMm",
      label: "Across, where it is marked",
      group: "Part",
      ...LENGTH,
      why: "As the machine is told it. It is measured well when the burn is read.",
    },
    { key: "sizedBy", label: "Measured by", group: "Part", ...choice(SIZED), why: "" },
    {
      key: "rests",
      label: "It lies on the rollers",
      group: "Part",
      ...choice(RESTS),
      why: "Another diameter goes another way for the same turn.",
      when: rollers,
    },
    {
      key: "restsOnMm",
      label: "Across, where it lies",
      group: "Part",
      ...LENGTH,
      why: "",
      when: { field: "rests", is: ["other"] },
    },
    ...gaugeFields(context, "The longest that can be measured."),
    {
      key: "repeats",
      label: "Readings a site",
      group: "Reading",
      kind: "count",
      why: "Turn the part between readings across: ovals and flats show.",
    },
    {
      key: "readoutStepMm",
      label: "Step of the readout",
      group: "Reading",
      ...LENGTH,
      why: "Smallest change of the number that the controller shows.",
      when: traced,
    },
    {
      key: "dotMm",
      label: "The dot is set within",
      group: "Reading",
      ...LENGTH,
      why: "How well you see it on the line.",
      when: traced,
    },
    {
      key: "speedMmPerS",
      label: "Speed",
      group: "Burn",
      ...SPEED,
      why: "Slow: a part that is hurried slips.",
      when: burned,
    },
    { key: "powerPct", label: "Power, %", group: "Burn", kind: "count", why: "", when: burned },
    {
      key: "beginsAtMm",
      label: "Marks begin at",
      group: "Burn",
      ...LENGTH,
      why: "Along the part, from the edge of the working area.",
      when: burned,
    },
  ];
}
