"use client";
import { useRouter } from "next/navigation";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { StockSpec } from "../../core/stock/stock-spec";
import { keepStock } from "../../server/actions/stock-actions";
import { Button } from "../primitives/button";
import { LinesField, TextField } from "../primitives/fields";
import { Faults } from "../primitives/notice";
import { textFields } from "../primitives/text-fields";
import { faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";

type Texts = { name: string; nominal: string; limit: string; batch: string; note: string };

type Props = {
  /** `null` = a new card. */
  stock: { slug: string; spec: StockSpec } | null;
  /** @param slug of the card; `null` where nothing was kept */
  onDone: (slug: string | null) => void;
};

/** The head of a card. */
export function StockForm({ stock, onDone }: Props) {
  const router = useRouter();
  const [texts, setTexts, forget] = useSurviving<Texts>(`stock ${stock?.slug ?? ""}`, {
    name: stock?.spec.name ?? "",
    nominal: stock ? inUnit(stock.spec.nominalMm, "mm") : "",
    limit: stock?.spec.mostJPerMm2 === undefined ? "" : plain(stock.spec.mostJPerMm2),
    batch: "",
    note: stock?.spec.note ?? "",
  });
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (name) => name in texts);
  const field = textFields(texts, setTexts, fault);
  const save = () =>
    run(
      () => keepStock({ slug: stock?.slug ?? null, ...texts }),
      (slug) => {
        forget();
        router.refresh();
        onDone(slug);
      },
    );
  return (
    <form
      className="card grid gap-3 p-5"
      aria-label={stock ? `Change ${stock.spec.name}` : "New card"}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h2 className="text-[17px] font-bold">{stock ? "Change the head of the card" : "Make a card"}</h2>
      <TextField label="Kind" words why="For example birch plywood 3 mm." {...field("name")} />
      <TextField label="Thickness as it is sold" why="What it really is is measured below." {...field("nominal")} />
      <TextField
        label="Charring limit, J/mm²"
        why="Test arrays leave out stronger cells. Leave empty without a limit."
        {...field("limit")}
      />
      {!stock && <TextField label="Batch" words why="By which you know this delivery; empty: 1." {...field("batch")} />}
      <LinesField label="Note" {...field("note")} />
      <Faults of={elsewhere} />
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {stock ? "Keep the change" : "Make the card"}
        </Button>
        <Button onClick={() => onDone(null)}>Back</Button>
      </div>
    </form>
  );
}
