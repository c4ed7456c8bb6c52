"use client";
import { type Axes, axesSchema } from "../../core/machine/machine-spec";
import type { Choice } from "../primitives/closed-pick";
import { PickField } from "../primitives/fields";
import { AxesDrawing } from "./axes-drawing";

const asChoice = (value: string): Choice => ({ value, label: value });
const HOMES = axesSchema.shape.home.options.map(asChoice);
const X_WAYS = axesSchema.shape.x.options.map(asChoice);
const Y_WAYS = axesSchema.shape.y.options.map(asChoice);

/** Where the head goes home and which way the axes count up, with a drawing of what is chosen. */
export function AxesFields({ axes, onChange }: { axes: Axes; onChange: (axes: Axes) => void }) {
  return (
    <div className="grid grid-cols-[1fr_1fr] items-start gap-x-4 gap-y-3 border-t border-hair pt-3">
      <div className="grid gap-3">
        <PickField
          label="Home corner"
          value={axes.home}
          choices={HOMES}
          onChange={(home) => onChange({ ...axes, home: home as Axes["home"] })}
        />
        <PickField
          label="X counts up"
          value={axes.x}
          choices={X_WAYS}
          onChange={(x) => onChange({ ...axes, x: x as Axes["x"] })}
        />
        <PickField
          label="Y counts up"
          value={axes.y}
          choices={Y_WAYS}
          onChange={(y) => onChange({ ...axes, y: y as Axes["y"] })}
        />
      </div>
      <AxesDrawing axes={axes} />
    </div>
  );
}
