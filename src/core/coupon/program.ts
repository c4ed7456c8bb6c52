/** What is done, in order, to burn a round. Run sheet, G-code and practice machine all walk it. */
import { z } from "zod";
import { couponPointSchema } from "../geometry/frames";

export const opSchema = z.discriminatedUnion("kind", [
  /** Burn every path of a piece that has these settings, in the order of the piece. */
  z.object({ kind: z.literal("mark"), piece: z.string(), settings: z.string() }),
  z.object({
    kind: z.literal("pulse"),
    at: couponPointSchema,
    durationS: z.number().positive(),
    powerPct: z.number().positive().max(100),
  }),
  /** `zMm` is the number that is read at the machine; a hand is told in words. */
  z.object({ kind: z.literal("set height"), zMm: z.number(), by: z.enum(["hand", "motor"]), text: z.string() }),
  /** The stock is propped: from here on it rises along X by so much a mm, from a place of the coupon on. */
  z.object({ kind: z.literal("prop"), fromXMm: z.number(), tangent: z.number().positive(), text: z.string() }),
  /** `aboveFocusMm`: the height is set so far above the one in focus. */
  z.object({ kind: z.literal("move by hand"), text: z.string(), aboveFocusMm: z.number().optional() }),
  z.object({ kind: z.literal("trace"), points: z.array(couponPointSchema).min(2) }),
  z.object({ kind: z.literal("apply setting"), setting: z.string(), text: z.string() }),
  z.object({ kind: z.literal("tell"), text: z.string() }),
]);
export type Op = z.infer<typeof opSchema>;
