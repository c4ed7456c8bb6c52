import { describe, expect, it } from "vitest";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { historyOf, readAs } from "../../testing/scan-offset-history";
import type { Site } from "../coupon/site";
import { scanOffset } from "../procedures/scan-offset/procedure";
import { type Answer, PLAIN_SHARES } from "../trial/answer";
import type { History } from "../trial/history";
import { questionAbout } from "./plausibility";

const late = (v: number) => 0.001 * v;
const all = (v: number) => readAs({ staggers: { [v]: late(v) } });
const round = readAs({ staggers: { 100: late(100), 200: late(200), 300: late(300), 400: late(400), 500: late(500) } });

/** The history as it stands before anything is read at a site, and the question about a value there. */
function question(site: string, value: number, keep: (a: Answer) => boolean = () => true): string | null {
  const answers = round.answers.filter((a) => a.site !== site && keep(a));
  const history = historyOf([{ ...round, answers }]) as unknown as History;
  const found = round.spec.sites.find((s) => s.id === site) as Site;
  return questionAbout(scanOffset, history, found, { kind: "quantity", value });
}

describe("likelihood of a reading", () => {
  it("has no question about what the others say", () => {
    expect(question("v300-left", 0.3)).toBeNull();
    expect(question("v300-left", 0.32)).toBeNull();
  });

  it("asks about inches taken for mm, mm for inches, and thousandths", () => {
    expect(question("v300-left", 0.3 * 25.4)).toMatch(/about 25 times what its neighbours read/);
    expect(question("v300-left", 0.3 / 25.4)).toMatch(/about 25 times less/);
    expect(question("v300-left", 300)).toMatch(/about 1000 times what/);
    expect(question("v300-left", 0.0003)).toMatch(/about 1000 times less/);
  });

  it("asks nothing about a step that is small beside how well it is known", () => {
    const near = readAs({ staggers: { 10: 0, 100: 0.0915, 200: 0.1915, 300: 0.2915 } });
    const answers = near.answers.filter((a) => a.site !== "v10-left" && a.site !== "v10-right");
    const site = near.spec.sites.find((s) => s.id === "v10-left") as Site;
    const history = historyOf([{ ...near, answers }]) as unknown as History;
    const expected = scanOffset.expected(history as never, "v10-left")?.value ?? 0;
    expect(Math.abs(expected)).toBeLessThan(0.003);
    expect(questionAbout(scanOffset, history, site, { kind: "quantity", value: 25.4 * expected })).toBeNull();
  });

  it("asks about a value far off the line of the others, from five readings on", () => {
    expect(question("v300-left", 0.45, (a) => a.site !== "v300-right")).toMatch(/about 0\.30 mm here/);
    expect(question("v300-left", 0.45, (a) => a.site === "v100-left")).toBeNull();
  });

  it("asks whether the other rows stand out where only the sign is off", () => {
    expect(question("v300-left", -0.3)).toMatch(/say “left-going stand out” here/);
  });

  it("asks about more than can be expected of a coupon, in the unit of the screen", () => {
    const history = { ...historyOf([{ ...round, answers: [] }]), decisions: { "length unit": "in" } };
    const site = round.spec.sites.find((s) => s.id === "v300-left") as Site;
    expect(questionAbout(scanOffset, history as never, site, { kind: "quantity", value: 3 })).toMatch(
      /More than 0\.08 in/,
    );
  });

  it("asks about a series that repeats another number for number, and about a gauge that is stuck", () => {
    const at = (site: string, values: number[]): Answer[] =>
      values.map((value) => ({
        site,
        content: { status: "read", value: { kind: "quantity", value } },
        u: null,
        gauge: "calipers",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
      }));
    const ask = (answers: Answer[], site: string, value: number) => {
      const read = all(300);
      const history = historyOf([{ ...read, answers }]) as unknown as History;
      return questionAbout(scanOffset, history, read.spec.sites.find((s) => s.id === site) as Site, {
        kind: "quantity",
        value,
      });
    };
    const series = [0.29, 0.31, 0.3, 0.28, 0.31, 0.3];
    const twice = [...at("v300-left", series), ...at("v300-right", series.slice(0, -1))];
    expect(ask(twice, "v300-right", 0.3)).toMatch(/very numbers of “300 mm\/s, left end”/);
    expect(ask(twice, "v300-right", 0.31)).toBeNull();
    // Three equal ones at both ends of a row are no wonder in steps of 0.01 mm.
    const short = [...at("v300-left", series.slice(0, 3)), ...at("v300-right", series.slice(0, 2))];
    expect(ask(short, "v300-right", 0.3)).toBeNull();
    const stuck = [...at("v300-left", [0.3, 0.3, 0.3]), ...at("v300-right", [0.3, 0.3])];
    expect(ask(stuck, "v300-right", 0.3)).toMatch(/sixth time/);
  });
});

describe("likelihood of several numbers", () => {
  const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
  const spec = madeUp.round({ sizeMm: 20 }, context, "measure");
  const site = (id: string) => spec.sites.find((s) => s.id === id) as Site;
  const history = (answers: Answer[]) =>
    ({ rounds: [{ n: 1, purpose: "measure", plan: {}, spec, inForce: {}, answers }], decisions: {} }) as never;

  it("asks whether X and Y changed places against the drawing", () => {
    const swapped = { ...site("points"), ask: { kind: "points" as const, nominal: [{ x: 10, y: 40 }] } };
    const ask = (x: number, y: number) =>
      questionAbout(madeUp, history([]), swapped, { kind: "points", points: [{ x, y }] });
    expect(ask(40.1, 9.9)).toMatch(/X and Y look as if/);
    expect(ask(10.1, 39.9)).toBeNull();
  });

  it("asks whether they changed places against an earlier reading", () => {
    const earlier: Answer = {
      site: "vector",
      content: { status: "read", value: { kind: "vector", x: 1, y: -4 } },
      u: null,
      gauge: "c",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    };
    const ask = (x: number, y: number) =>
      questionAbout(madeUp, history([earlier]), site("vector"), { kind: "vector", x, y });
    expect(ask(-4.1, 1)).toMatch(/X and Y/);
    expect(ask(1.1, -4)).toBeNull();
  });
});
