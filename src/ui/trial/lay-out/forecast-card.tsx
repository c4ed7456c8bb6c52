import { useMemo } from "react";
import { forecastOf, type Help, isRecord } from "../../../core/course/forecast";
import { gaugeName } from "../../../core/measuring/read-lengths";
import { afterNumber, decimalsFor, fixed } from "../../../core/metrology/quantity-text";
import { fromInternal } from "../../../core/metrology/units";
import type { AnyProcedure } from "../../../core/procedures/contract";
import { lengthUnitOf, shownUnit } from "../../../core/trial/decisions";
import type { PlanContext } from "../../../core/trial/plan-form";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { aloneText } from "../shared/alone-text";

type Props = {
  view: TrialView;
  procedure: AnyProcedure;
  plan: unknown;
  context: PlanContext;
  /** Fields of the plan that change. */
  onChange: (plan: Record<string, unknown>) => void;
};

/** The uncertainty to expect of this layout, gauge and number of readings, and what would make it smaller. */
export function ForecastCard({ view, procedure, plan, context, onChange }: Props) {
  const { tolerance } = view;
  const forecast = useMemo(
    () => (isRecord(plan) ? forecastOf({ procedure, plan, context, tolerance }) : null),
    [procedure, plan, context, tolerance],
  );
  if (!forecast) return null;
  const unit = shownUnit(procedure.tolerance.unit, lengthUnitOf(view));
  const decimals = decimalsFor(fromInternal(forecast.expanded, unit));
  const shown = (internal: number) => `${fixed(fromInternal(internal, unit), decimals)}${afterNumber(unit)}`;
  const { help, decidesUpTo } = forecast;
  return (
    <section className="mb-4 rounded-md bg-steel-tint px-3 py-2" aria-label="Forecast">
      <p>
        <b className="font-semibold">Expected: ± {shown(forecast.expanded)}</b> for {forecast.label},{" "}
        {forecast.gauge ? `with the ${gaugeName(forecast.gauge)}` : "judged without a gauge"}. Tolerance:{" "}
        {shown(tolerance)}.{" "}
        {decidesUpTo === null
          ? "A proof cannot succeed with this layout."
          : `A proof succeeds if the residual error is at most ${shown(decidesUpTo)}.`}
      </p>
      {forecast.alone.length > 0 && <p className="mt-1">{aloneText(forecast.alone)}</p>}
      {help && (
        <p className="mt-1 flex flex-wrap items-center gap-2">
          <Button weight="small" onClick={() => onChange(help.plan)}>
            {helpText(help)}
          </Button>
          <span>± {shown(help.expanded)} is expected then.</span>
        </p>
      )}
    </section>
  );
}

function helpText({ by }: Help): string {
  if ("longer" in by) return "Use the longest lengths that fit";
  return "gauge" in by ? `Read with the ${gaugeName(by.gauge)}` : `Read each point ${by.repeats} times`;
}
