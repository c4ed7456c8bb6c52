/** Readings that wait for the server, without a page: what is kept, in which order it is sent, and what becomes of what is refused. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { takeReading as TakeReading } from "../../server/actions/trial-actions";

type Taken = Awaited<ReturnType<typeof TakeReading>>;
const takeReading = vi.fn<(input: { clientKey: string }) => Promise<Taken>>();
vi.mock("../../server/actions/trial-actions", () => ({
  takeReading: (input: { clientKey: string }) => takeReading(input),
}));

const kept = new Map<string, string>();
const listeners = new Map<string, () => void>();

/** As a browser has them; keys of the storage are its own properties. */
function browser(): void {
  vi.stubGlobal(
    "localStorage",
    new Proxy({} as Storage, {
      get: (_, name) =>
        ({
          getItem: (key: string) => kept.get(key) ?? null,
          setItem: (key: string, value: string) => kept.set(key, value),
          removeItem: (key: string) => kept.delete(key),
        })[name as "getItem"],
      ownKeys: () => [...kept.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    }),
  );
  vi.stubGlobal("window", {
    addEventListener: (name: string, act: () => void) => listeners.set(name, act),
    removeEventListener: (name: string) => listeners.delete(name),
  });
}

const answer = { site: "a" } as never;
const input = { kind: "quantity", text: "0.1", words: "positive", unit: "mm" } as const;
const waiting = (clientKey: string, order: number) => ({
  trialId: 1,
  n: 1,
  site: "a",
  input,
  from: "typed" as const,
  clientKey,
  session: 2,
  answer,
  raw: "0.1 mm",
  order,
});
const onDisk = (clientKey: string): Taken => ({ ok: true, value: { clientKey } as never });

async function module() {
  vi.resetModules();
  return import("./waiting-readings");
}

beforeEach(() => {
  vi.useFakeTimers();
  kept.clear();
  listeners.clear();
  takeReading.mockReset();
  browser();
});

describe("readings that wait", () => {
  it("are sent in their order once the server answers, each told of, and none is kept behind", async () => {
    const w = await module();
    const sent: string[] = [];
    w.onTaken((reading) => sent.push(reading.clientKey));
    takeReading.mockRejectedValue(new Error("away"));
    for (const [i, key] of ["one", "two", "three"].entries()) w.wait(waiting(key, i));
    await vi.advanceTimersByTimeAsync(5000);
    expect(w.waitingState().waiting.map((r) => r.clientKey)).toEqual(["one", "two", "three"]);
    expect(kept.size).toBe(3);
    takeReading.mockImplementation(async ({ clientKey }) => onDisk(clientKey));
    await vi.advanceTimersByTimeAsync(2500);
    expect(sent).toEqual(["one", "two", "three"]);
    expect(w.waitingState().waiting).toEqual([]);
    expect(kept.size).toBe(0);
  });

  it("outlive the page, and begin to be sent with the next one, or when the network comes back", async () => {
    const before = await module();
    takeReading.mockRejectedValue(new Error("away"));
    before.wait(waiting("late", 2));
    before.wait(waiting("early", 1));
    kept.set("ustrina reading damaged", "{");
    const after = await module();
    const stop = after.beginSending();
    expect(after.waitingState().waiting.map((r) => r.clientKey)).toEqual(["early", "late"]);
    await vi.advanceTimersByTimeAsync(10);
    takeReading.mockImplementation(async ({ clientKey }) => onDisk(clientKey));
    listeners.get("online")?.();
    await vi.advanceTimersByTimeAsync(10);
    expect(after.waitingState().waiting).toEqual([]);
    stop();
    expect(listeners.size).toBe(0);
  });

  it("wait in the page alone where the browser keeps nothing", async () => {
    vi.stubGlobal("localStorage", undefined);
    const w = await module();
    const stop = w.beginSending();
    takeReading.mockRejectedValue(new Error("away"));
    w.wait(waiting("one", 1));
    await vi.advanceTimersByTimeAsync(2500);
    expect(w.waitingState().waiting).toHaveLength(1);
    takeReading.mockImplementation(async ({ clientKey }) => onDisk(clientKey));
    await vi.advanceTimersByTimeAsync(2500);
    expect(w.waitingState().waiting).toEqual([]);
    stop();
  });

  it("that are refused are shown with the reason, and hold up none behind them", async () => {
    const w = await module();
    takeReading.mockImplementation(async ({ clientKey }) =>
      clientKey === "bad" ? { ok: false, field: "site", message: "This coupon has no such place." } : onDisk(clientKey),
    );
    w.wait(waiting("bad", 1));
    w.wait(waiting("good", 2));
    await vi.advanceTimersByTimeAsync(2500);
    expect(w.waitingState().waiting).toEqual([]);
    expect(w.waitingState().refused).toMatchObject([{ clientKey: "bad", message: "This coupon has no such place." }]);
    // It is not lost with the page either: it is kept until it is left out, or sent again
    const later = await module();
    const stop = later.beginSending();
    expect(later.waitingState().refused.map((r) => r.clientKey)).toEqual(["bad"]);
    takeReading.mockImplementation(async ({ clientKey }) => onDisk(clientKey));
    const sent: string[] = [];
    later.onTaken((r) => sent.push(r.clientKey));
    const [refused] = later.waitingState().refused;
    if (refused) later.sendAgain(refused);
    await vi.advanceTimersByTimeAsync(10);
    expect(sent).toEqual(["bad"]);
    expect(kept.size).toBe(0);
    stop();
  });

  it("stay in their place while a fault of the server may pass, such as a full disk", async () => {
    const w = await module();
    takeReading.mockResolvedValue({
      ok: false,
      field: "",
      message: "Nothing was changed.",
      mayPass: "The disk is full.",
    });
    w.wait(waiting("one", 1));
    w.wait(waiting("two", 2));
    await vi.advanceTimersByTimeAsync(7000);
    expect(w.waitingState()).toMatchObject({
      waiting: [{ clientKey: "one" }, { clientKey: "two" }],
      refused: [],
      why: "The disk is full.",
    });
    expect(new Set(takeReading.mock.calls.map(([i]) => i.clientKey))).toEqual(new Set(["one"]));
    w.drop("one");
    w.drop("two");
    expect(kept.size).toBe(0);
  });

  it("of a server that says nothing wait as well, and are taken once although they are sent twice", async () => {
    const w = await module();
    takeReading.mockImplementation(() => new Promise(() => undefined));
    const asked = w.send(waiting("slow", 1));
    await vi.advanceTimersByTimeAsync(8000);
    expect(await asked).toBeNull();
    takeReading.mockImplementation(async ({ clientKey }) => onDisk(clientKey));
    w.wait(waiting("slow", 1));
    await vi.advanceTimersByTimeAsync(2500);
    expect(takeReading.mock.calls.map(([i]) => i.clientKey)).toEqual(["slow", "slow"]);
  });
});
