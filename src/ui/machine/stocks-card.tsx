import { isOpen, STATE_WORDS } from "../../core/course/state";
import type { StockState } from "../../server/procedures/procedure-state";
import type { ProcedureView } from "../../server/screens/procedure-view";
import { Ago } from "../primitives/ago";
import { Link } from "../primitives/link";
import { StateMark } from "../primitives/state-mark";
import { BeginButton } from "../shell/begin-button";

type Props = {
  view: Pick<ProcedureView, "machineSlug" | "procedure" | "title">;
  stocks: readonly StockState[];
  now: number;
};

/** How what is done stock by stock stands on each. */
export function StocksCard({ view, stocks, now }: Props) {
  return (
    <section className="card p-5" aria-label="By stock">
      <h2 className="text-[17px] font-bold">By stock</h2>
      {stocks.length === 0 ? (
        <p className="mt-1 text-ink2">
          No stock is measured yet. Each result is stored on its{" "}
          <Link href="/stock" className="underline underline-offset-4">
            stock card
          </Link>
          .
        </p>
      ) : (
        <ul>
          {stocks.map((stock) => (
            <li
              key={stock.card}
              className="flex flex-wrap items-start gap-x-4 gap-y-1 border-t border-hair py-2 first:border-0"
            >
              <span className="mt-0.5">
                <StateMark state={stock.state} />
              </span>
              <div className="min-w-0 flex-1">
                <p className="font-semibold">
                  {stock.newest ? (
                    <Link href={`/stock/${stock.card}`} className="underline decoration-line underline-offset-4">
                      {stock.name}
                    </Link>
                  ) : (
                    stock.name
                  )}
                </p>
                <p className="text-[14px] text-ink2">
                  {STATE_WORDS[stock.state]}
                  {stock.since !== null && (
                    <>
                      {" · "}
                      <Ago at={stock.since} now={now} />
                    </>
                  )}
                  {stock.reasons.map((reason) => ` · ${reason}`)}
                </p>
                {stock.detail && (
                  <p className="text-[13px] text-ink2">
                    {!isOpen(stock.state) && "residual error "}
                    <span className="num">{stock.detail}</span>
                  </p>
                )}
              </div>
              <StockActions view={view} stock={stock} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function StockActions({ view, stock }: { view: Props["view"]; stock: StockState }) {
  if (isOpen(stock.state))
    return (
      <Link href={`/trial/${stock.trialId}`} className="underline underline-offset-4">
        Continue
      </Link>
    );
  const begin = { machine: view.machineSlug, procedure: view.procedure, stock: stock.newest || null };
  return (
    <p className="flex flex-wrap gap-x-3">
      <BeginButton {...begin} weight="quiet" check />
      <BeginButton {...begin} weight="quiet" label="Begin a new trial" />
    </p>
  );
}
