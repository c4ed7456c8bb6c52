/** Cards of stock: the steps as the screens call them, on the demo bench. */
import { beforeEach, describe, expect, it } from "vitest";
import { type Database, openDatabase } from "../../data/database";
import { addMachine, deleteMachine, machineBySlug } from "../../data/machines";
import { batchByKey, batchesOf, everyStock, resultsOfBatch, stocksAtHand } from "../../data/stocks";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { benchView } from "../screens/bench-view";
import { procedureView } from "../screens/procedure-view";
import { beginCheck } from "../trial/check-steps";
import { loadDocument } from "../trial/load-document";
import { trialDocument } from "../trial/trial-document";
import { fullTrial, readingStamp, stockOfTrial } from "../trial/trial-record";
import { beginTrial } from "../trial/trial-steps";
import { keepForStock, takeOffCard } from "../trial/trial-stock";
import { trialView } from "../trial/trial-view";
import { loadStock } from "./load-stock";
import { stockDocument, stockFile } from "./stock-files";
import {
  beginBatch,
  keepStock,
  type StockInput,
  setArchived,
  setOffCard,
  type ThicknessInput,
  takeBackBatch,
  takeThickness,
  undoThickness,
} from "./stock-steps";
import { stockList, stockView } from "./stock-view";

const BIRCH = "birch-plywood-3-mm";
const DAY_MS = 86_400_000;
let db: Database;

beforeEach(() => {
  db = demoCopy();
});

const card = (changes: Partial<StockInput> = {}): StockInput => ({
  slug: null,
  name: "Cork 2 mm",
  nominal: "2 mm",
  note: "",
  batch: "A",
  ...changes,
});
const birchBatch = () => batchByKey(db, `${BIRCH}/spring`)?.batch.id ?? 0;
const squeezed = (text: string, changes: Partial<ThicknessInput> = {}): ThicknessInput => ({
  stock: BIRCH,
  batchId: birchBatch(),
  text,
  gauge: "calipers",
  sure: false,
  clientKey: `key ${text}`,
  ...changes,
});

describe("a card", () => {
  it("is made once by its name, changed from now on, and put away", () => {
    const slug = keepStock(db, card(), NOW);
    expect(stockView(db, slug, NOW)).toMatchObject({
      spec: { name: "Cork 2 mm", nominalMm: 2 },
      batches: [{ label: "A" }],
    });
    expect(refusal(() => keepStock(db, card(), NOW))).toMatchObject({ field: "name" });
    keepStock(db, card({ slug, name: "Cork 2.2 mm", nominal: "2.2" }), NOW + 1);
    expect(stockView(db, slug, NOW)?.spec).toEqual({ name: "Cork 2.2 mm", nominalMm: 2.2, note: "" });
    setArchived(db, slug, true, NOW);
    expect(stocksAtHand(db).map((s) => s.key)).not.toContain(`${slug}/A`);
    expect(stockList(db, NOW).at(-1)).toMatchObject({ slug, archived: true });
  });

  it.each([
    [{ name: " " }, "name"],
    [{ nominal: "thin" }, "nominal"],
    [{ nominal: "0" }, "nominal"],
    [{ nominal: "-3 mm" }, "nominal"],
    [{ nominal: "5 in" }, "nominal"],
    [{ batch: "a/b" }, "batch"],
  ] as const)("is refused at its field: %o", (changes, field) => {
    expect(refusal(() => keepStock(db, card(changes), NOW))).toMatchObject({ field });
    expect(everyStock(db)).toHaveLength(2);
  });

  it("says above which energy it chars, which test arrays then leave out", () => {
    const slug = keepStock(db, card({ limit: "4.5 J/mm²" }), NOW);
    expect(stocksAtHand(db).find((s) => s.key.startsWith(slug))).toMatchObject({ mostJPerMm2: 4.5 });
    keepStock(db, card({ slug, limit: "" }), NOW + 1);
    expect(stocksAtHand(db).find((s) => s.key.startsWith(slug))).not.toHaveProperty("mostJPerMm2");
    for (const [limit, message] of [
      ["much", /Enter the energy per area, for example 5/],
      ["0", /more than 0 J\/mm²/],
      ["4 kg", /Enter the energy per area/],
    ] as const)
      expect(refusal(() => keepStock(db, card({ name: "Felt", limit }), NOW))).toMatchObject({
        field: "limit",
        message: expect.stringMatching(message),
      });
  });

  it("is refused with all faults of the form", () => {
    const refused = refusal(() => keepStock(db, card({ name: " ", nominal: "thin", batch: "a/b" }), NOW));
    expect([refused, ...refused.more].map((f) => f.field)).toEqual(["name", "nominal", "batch"]);
  });
});

describe("the thickness of a batch", () => {
  it("takes several readings at once, each on disk, once however often they are sent", () => {
    const before = stockView(db, BIRCH, NOW)?.batches[0]?.readings.length ?? 0;
    expect(takeThickness(db, squeezed("3.02 3,05 2.99 mm"), NOW)).toBe(3);
    expect(takeThickness(db, squeezed("3.02 3,05 2.99 mm"), NOW)).toBe(0);
    const batch = stockView(db, BIRCH, NOW)?.batches[0];
    expect(batch?.readings).toHaveLength(before + 3);
    expect(batch?.thickness).toMatchObject({ mostMm: 3.05, count: before + 3 });
    const last = batch?.readings.at(-1);
    expect(last).toMatchObject({ raw: "3.02 3,05 2.99 mm", valueMm: 2.99 });
    undoThickness(db, BIRCH, birchBatch(), last?.id ?? 0, NOW);
    expect(stockView(db, BIRCH, NOW)?.batches[0]?.readings).toHaveLength(before + 2);
    expect(refusal(() => undoThickness(db, BIRCH, birchBatch(), last?.id ?? 0, NOW))).toMatchObject({
      field: "reading",
    });
  });

  it("asks once about what is far from its name, and refuses what is no thickness", () => {
    expect(refusal(() => takeThickness(db, squeezed("29.8"), NOW))).toMatchObject({ field: "sure" });
    expect(takeThickness(db, squeezed("29.8", { sure: true }), NOW)).toBe(1);
    expect(refusal(() => takeThickness(db, squeezed("3.0 thick"), NOW))).toMatchObject({ field: "text" });
    expect(refusal(() => takeThickness(db, squeezed("3.0 -3.1"), NOW)).message).toBe("It must be thicker than 0.");
    expect(refusal(() => takeThickness(db, squeezed(""), NOW))).toMatchObject({ field: "text" });
    expect(refusal(() => takeThickness(db, squeezed("3", { gauge: "ell" }), NOW))).toMatchObject({ field: "gauge" });
    expect(refusal(() => takeThickness(db, squeezed("3", { batchId: 999 }), NOW))).toMatchObject({ field: "batch" });
  });
});

describe("a new batch", () => {
  it("makes what was measured on the one before due, on the bench, by stock, and nowhere else", () => {
    const state = () => procedureView(db, "bracken", "kerf", NOW + DAY_MS)?.state;
    expect(state()).toMatchObject({ state: "holding", detail: "1 stock" });
    beginBatch(db, BIRCH, "autumn", NOW);
    expect(state()).toMatchObject({
      state: "check due",
      detail: "1 stock, 1 due",
      reasons: ["Birch plywood 3 mm: a new batch of the stock was begun"],
      stocks: [{ card: BIRCH, newest: `${BIRCH}/autumn` }],
    });
    expect(stockView(db, BIRCH, NOW + DAY_MS)?.results[0]?.standing).toMatchObject({ state: "check due" });
    const bracken = benchView(db, NOW + DAY_MS).machines.find((m) => m.slug === "bracken");
    expect(bracken?.next).toMatchObject({ action: "check", procedure: "kerf", stock: `${BIRCH}/autumn` });
    const id = beginCheck(db, "bracken", "kerf", NOW + DAY_MS, BIRCH);
    expect(stockOfTrial(fullTrial(db, id))).toBe(`${BIRCH}/autumn`);
    expect(refusal(() => beginBatch(db, BIRCH, "Autumn", NOW))).toMatchObject({ field: "batch" });
  });

  it("that was begun by mistake is taken back, while nothing hangs on it", () => {
    const newest = () => stockView(db, BIRCH, NOW)?.batches[0];
    beginBatch(db, BIRCH, "autumn", NOW);
    takeBackBatch(db, BIRCH, newest()?.id ?? 0);
    expect(newest()?.label).toBe("spring");
    expect(refusal(() => takeBackBatch(db, BIRCH, newest()?.id ?? 0)).message).toMatch(/the only batch/);
    beginBatch(db, BIRCH, "autumn", NOW);
    beginTrial(db, "alder", "kerf", NOW + 1, `${BIRCH}/autumn`);
    expect(refusal(() => takeBackBatch(db, BIRCH, newest()?.id ?? 0)).message).toMatch(/it stays/);
  });

  it("is what a trial is begun on, unless another is asked for", () => {
    beginBatch(db, BIRCH, "autumn", NOW);
    const newest = beginTrial(db, "alder", "kerf", NOW + 1);
    expect(stockOfTrial(fullTrial(db, newest))).toBe(`${BIRCH}/autumn`);
    const asked = beginTrial(db, "alder", "kerf", NOW + 2, "clear-acrylic-5-mm/1");
    expect(stockOfTrial(fullTrial(db, asked))).toBe("clear-acrylic-5-mm/1");
    const states = procedureView(db, "alder", "kerf", NOW + 3)?.state.stocks?.map((s) => [s.name, s.state]);
    expect(states).toEqual([
      ["Clear acrylic 5 mm", "open"],
      ["Birch plywood 3 mm", "open"],
    ]);
  });
});

describe("what a trial tells of its stock", () => {
  const kerfTrial = () => stockView(db, BIRCH, NOW)?.trials[0]?.id ?? 0;

  it("is on its card once: a later round takes the place of the one before", () => {
    const id = kerfTrial();
    const kept = () => resultsOfBatch(db, birchBatch());
    expect(kept()).toHaveLength(1);
    expect(trialView(db, id, NOW).keptForStock).toMatchObject([{ n: 1 }]);
    keepForStock(db, id, 2, readingStamp(fullTrial(db, id), 2), NOW);
    expect(kept()).toHaveLength(1);
    expect(trialView(db, id, NOW).keptForStock).toMatchObject([{ n: 2 }]);
    expect(refusal(() => keepForStock(db, id, 2, "other readings", NOW))).toMatchObject({ field: "readings" });
    takeOffCard(db, id, NOW);
    expect(kept()).toEqual([]);
    expect(refusal(() => takeOffCard(db, id, NOW))).toMatchObject({ field: "stock" });
  });

  it("is taken off its card and put back", () => {
    const id = resultsOfBatch(db, birchBatch())[0]?.id ?? 0;
    setOffCard(db, id, true, NOW);
    expect(stockView(db, BIRCH, NOW)?.results).toEqual([]);
    setOffCard(db, id, false, NOW);
    expect(stockView(db, BIRCH, NOW)?.results).toMatchObject([{ machine: "Bracken", trial: { end: "proved" } }]);
  });

  it("goes with its trial to another bench, where the stock gets a card", () => {
    const document = JSON.stringify(trialDocument(db, kerfTrial())).replaceAll(BIRCH, "birch-elsewhere");
    const other = document.replace('"code":"B-15"', '"code":"Q-1"');
    const id = loadDocument(db, other, NOW);
    expect(batchByKey(db, "birch-elsewhere/spring")?.stock.spec.note).toMatch(/^Came with trial Q-1\. 2\.986 mm/);
    const view = trialView(db, id, NOW);
    expect(view.rounds[0]?.plan).toMatchObject({ from: { batch: "spring", thickness: { count: 5 } } });
  });
});

describe("all cards as files", () => {
  it("are there already where they came from", () => {
    for (const file of ["stock.json", "stock.csv"])
      expect(loadStock(db, stockFile(db, file).text, NOW)).toEqual({ cards: 0, batches: 0, readings: 0, results: 0 });
    expect(refusal(() => stockFile(db, "stock.pdf"))).toMatchObject({ field: "file" });
  });

  it("load in linear time", () => {
    const many = (from: number, count: number) =>
      ["card,nominal mm,batch,what,label,value mm,u mm,freedom,when,machine,conditions,note"]
        .concat(
          Array.from({ length: count }, (_, i) => [
            `Sheet ${from + i},3,,card,,,,,,,,`,
            `Sheet ${from + i},,A,batch,,,,,2026-01-02T10:00:00.000Z,,,`,
          ]).flat(),
        )
        .join("\n");
    const took = (from: number, count: number) => {
      const text = many(from, count);
      const began = performance.now();
      expect(loadStock(db, text, NOW).cards).toBe(count);
      return performance.now() - began;
    };
    took(0, 200);
    const [few, lots] = [took(1000, 500), took(10_000, 5000)];
    // Ten times as many cards. Quadratic time would be a factor of 100.
    expect(lots / few).toBeLessThan(40);
    // About 0.3 s on an idle machine.
    expect(lots).toBeLessThan(3000);
  });

  it.each(["stock.json", "stock.csv"])("come whole onto another bench from %s", (file) => {
    const text = stockFile(db, file).text;
    const before = stockDocument(db);
    for (const { slug } of everyStock(db)) keepStock(db, { ...card({ name: `old ${slug}` }), slug }, NOW);
    expect(loadStock(db, text, NOW)).toEqual({ cards: 2, batches: 2, readings: 5, results: 1 });
    const after = stockDocument(db).cards.filter((c) => !c.name.startsWith("old"));
    expect(after.map((c) => [c.name, c.nominalMm, c.note])).toEqual(
      before.cards.map((c) => [c.name, c.nominalMm, c.note]),
    );
    const values = (cards: typeof after) =>
      cards.flatMap((c) =>
        c.batches.flatMap((b) => b.results.map((r) => [r.kept, r.machine, r.result.values, r.result.conditions])),
      );
    expect(values(after)).toEqual(values(before.cards));
    expect(after[0]?.batches[0]?.thickness).toEqual(before.cards[0]?.batches[0]?.thickness);
  });

  it("may contain a card and a batch twice, also in other capitals", () => {
    const text = [
      "card,nominal mm,batch,what,label,value mm,u mm,freedom,when,machine,conditions,note",
      "Felt 4 mm,4,,card,,,,,,,,",
      "Felt 4 mm,,A,batch,,,,,2026-01-02T10:00:00.000Z,,,",
      "Felt 4 mm,,A,thickness,,4.1,,,2026-01-02T11:00:00.000Z,,,",
      "Felt 4 mm,,a,batch,,,,,2026-01-02T10:00:00.000Z,,,",
      "Felt 4 mm,,a,thickness,,4.1,,,2026-01-02T11:00:00.000Z,,,",
      "FELT 4 MM,4,,card,,,,,,,,",
      "FELT 4 MM,,B,batch,,,,,2026-01-03T10:00:00.000Z,,,",
    ].join("\n");
    expect(loadStock(db, text, NOW)).toEqual({ cards: 1, batches: 2, readings: 1, results: 0 });
    expect(loadStock(db, text, NOW)).toEqual({ cards: 0, batches: 0, readings: 0, results: 0 });
    const felt = everyStock(db).find((s) => s.spec.name === "Felt 4 mm");
    expect(batchesOf(db, felt?.id ?? 0).map((b) => b.label)).toEqual(["B", "A"]);
  });

  it("name a value in words, and read older files with its key", () => {
    const { text } = stockFile(db, "stock.csv");
    expect(text).toMatch(/kerf: offset per side/);
    const before = text
      .replaceAll("kerf: offset per side", "kerf offset")
      .replaceAll("kerf: width of cut", "kerf kerf");
    const again = openDatabase(":memory:");
    expect(loadStock(again, before, NOW)).toMatchObject({ results: 1 });
    expect(stockDocument(again).cards[0]?.batches[0]?.results[0]?.result.values.map((v) => v.id)).toEqual(
      stockDocument(db).cards[0]?.batches[0]?.results[0]?.result.values.map((v) => v.id),
    );
  });

  it.each([
    ["{}", /not a stock document/],
    ['{"format":"ustrina stock","version":1,"cards":[{"name":"X","nominalMm":-1}]}', /cards\[0\]\.nominalMm/],
    ["card,what\r\nX,card\r\n", /value mm/],
    [
      "card,nominal mm,batch,what,value mm,when\r\nX,3,,card,,\r\nX,,b,thickness,3,2026-01-01T00:00:00Z\r\n",
      /Line 3.*batch/,
    ],
    ["card,nominal mm,batch,what,value mm,when\r\nX,thick,,card,,\r\n", /Line 2.*nominal mm/],
  ])("are refused with what is wrong: %s", (text, words) => {
    expect(refusal(() => loadStock(db, text, NOW)).message).toMatch(words);
    expect(everyStock(db)).toHaveLength(2);
  });

  it("do not bring moments that are still to come", () => {
    const ahead = stockFile(db, "stock.json").text.replace(/"begun": "\d{4}/g, '"begun": "2999');
    expect(refusal(() => loadStock(db, ahead, NOW)).message).toMatch(/still to come/);
  });

  it("stay when a machine that only they name is deleted", () => {
    addMachine(db, "dogwood", { ...SAMPLE_MACHINE, name: "Dogwood" }, [], NOW);
    const text = stockFile(db, "stock.csv").text.replaceAll("Bracken", "Dogwood").replaceAll("Birch", "Beech");
    loadStock(db, text, NOW);
    deleteMachine(db, machineBySlug(db, "dogwood")?.id ?? 0);
    const beech = everyStock(db).find((s) => s.spec.name.startsWith("Beech"));
    expect(batchesOf(db, beech?.id ?? 0)).toHaveLength(1);
    expect(stockView(db, beech?.slug ?? "", NOW)?.results).toMatchObject([{ machine: "Dogwood" }]);
  });
});
