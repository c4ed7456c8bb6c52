import { describe, expect, it } from "vitest";
import {
  AS_DRAWN,
  inverse,
  isMirrored,
  isSameLie,
  type Lie,
  lieOf,
  made,
  nameOf,
  ORDERS,
  possibleOrders,
  product,
  righted,
  type Switches,
  switchesFor,
  WAYS,
} from "./eight";
import { orderMatters } from "./solve";

const BOTH = [false, true];
const SWITCHES: Switches[] = BOTH.flatMap((swap) =>
  BOTH.flatMap((invertX) => BOTH.map((invertY) => ({ swap, invertX, invertY }))),
);
const MACHINES: Lie[] = SWITCHES.map((s) => made(s, "swap first"));
const CASES = ORDERS.flatMap((order) =>
  MACHINES.flatMap((machine) =>
    SWITCHES.map((present) => ({ order, machine, present, seen: product(machine, made(present, order)) })),
  ),
);

describe("the eight ways", () => {
  it("are all different, and have names of their own", () => {
    expect(MACHINES.filter((a, i) => MACHINES.findIndex((b) => isSameLie(a, b)) === i)).toHaveLength(8);
    expect(new Set(MACHINES.map(nameOf)).size).toBe(8);
    expect(MACHINES.filter(isMirrored)).toHaveLength(4);
  });

  it("are told by where two arrows end; arrows along one line tell none", () => {
    const lies = WAYS.flatMap((x) => WAYS.map((y) => lieOf(x, y)));
    expect(lies.filter((lie) => lie === null)).toHaveLength(8);
    expect(lieOf("right", "away")).toEqual(AS_DRAWN);
    // A quarter counter-clockwise: X ends away from the operator, Y to the left.
    expect(nameOf(lieOf("away", "left") as Lie)).toBe("The drawing is turned a quarter counter-clockwise.");
    expect(nameOf(lieOf("left", "away") as Lie)).toBe("The drawing is mirrored, left to right.");
    // Swapped: X ends where Y is drawn.
    expect(lieOf("away", "right")).toEqual(made({ swap: true, invertX: false, invertY: false }, "swap first"));
  });

  it("need different switches in the two orders: swap, then invert X is not invert X, then swap", () => {
    const one = { swap: true, invertX: true, invertY: false };
    // Swapped first, then the new X is inverted: what was drawn along Y ends to the left.
    expect(made(one, "swap first")).toEqual([0, -1, 1, 0]);
    expect(made(one, "invert first")).toEqual([0, 1, -1, 0]);
    for (const lie of MACHINES) for (const order of ORDERS) expect(made(switchesFor(lie, order), order)).toEqual(lie);
  });

  it("come right in all 128 cases with C' = C O^-1, and O^-1 C fails for 24 of 64", () => {
    for (const { order, machine, present, seen } of CASES) {
      const next = righted(seen, present, order);
      expect(isSameLie(product(machine, made(next, order)), AS_DRAWN)).toBe(true);
    }
    const ofOneOrder = CASES.filter((c) => c.order === "swap first");
    const otherWay = ofOneOrder.filter(
      ({ machine, present, seen, order }) =>
        !isSameLie(product(machine, product(inverse(seen), made(present, order))), AS_DRAWN),
    );
    expect([ofOneOrder.length, otherWay.length]).toEqual([64, 24]);
  });

  it("ask for the same switches in both orders in 80 of 128 cases", () => {
    expect(CASES.filter(({ seen, present }) => !orderMatters(seen, present))).toHaveLength(80);
  });

  it("show the order in the second burn wherever it matters", () => {
    for (const { order, machine, present, seen } of CASES) {
      const tried = righted(seen, present, "swap first");
      const second = { seen: product(machine, made(tried, order)), present: tried };
      const possible = possibleOrders([{ seen, present }, second]);
      expect(possible).toContain(order);
      if (orderMatters(seen, present)) expect(possible).toEqual([order]);
    }
  });
});
