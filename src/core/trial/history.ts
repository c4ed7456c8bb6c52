/** What happened in a trial, round by round, as procedures see it. */
import { z } from "zod";
import type { RoundSpec } from "../coupon/round-spec";
import type { MachineSpec } from "../machine/machine-spec";
import type { Gauge } from "../metrology/gauge";
import type { SettingsInForce } from "../settings/setting";
import type { Answer } from "./answer";

export const purposeSchema = z.enum(["measure", "tune", "refine", "proof", "check"]);
export type Purpose = z.infer<typeof purposeSchema>;

export type RoundRecord<P = unknown> = {
  n: number;
  purpose: Purpose;
  plan: P;
  spec: RoundSpec;
  /** What the controller held while this round was burned, as read back. */
  inForce: SettingsInForce;
  answers: readonly Answer[];
  /** New values were entered or hardware was adjusted because of this burn. The burn no longer shows the present machine. */
  corrected?: boolean;
};

export type History<P = unknown> = {
  rounds: readonly RoundRecord<P>[];
  /** Gauges that were read with. */
  gauges: readonly Gauge[];
  /** Gauges there are in the workshop. */
  available: readonly Gauge[];
  machine: MachineSpec;
  /** Largest residual that is still good, internal unit. */
  tolerance: number;
  /** Choices made while correcting: `table: line`, `accept:400: yes`. */
  decisions: Readonly<Record<string, string>>;
};

export type Next<P> =
  | { do: "round"; purpose: Purpose; plan: P; set: string[]; why: string }
  | { do: "read"; sites: string[]; why: string }
  | { do: "stop"; why: string };

/** Where the person is looking while reading, and what is typed so far (internal unit, signed). */
export type Focus = { site: string; typed: number | null };
