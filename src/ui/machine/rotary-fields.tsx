import type { SetAside } from "../../core/machine/part-spec";
import { CheckBox } from "../primitives/check-box";
import { PickField, TextField } from "../primitives/fields";
import type { PartTexts } from "./part-texts";

type TypedField = (key: Exclude<keyof PartTexts, "setAside">) => {
  value: string;
  onChange: (value: string) => void;
  fault: string;
};

const ASIDE: readonly [SetAside, string][] = [
  ["limits", "Travel limits of the axis"],
  ["homing", "Homing"],
  ["motor", "The motor of the axis, unplugged"],
  ["scale", "The axis scale, set for the rotary"],
];

/** What is known of a rotary: how it turns, what drives it, what it takes, and what is switched off for it. */
export function RotaryFields({
  texts,
  field,
  setAside,
  onSetAside,
}: {
  texts: PartTexts;
  field: TypedField;
  setAside: SetAside[];
  onSetAside: (next: SetAside[]) => void;
}) {
  return (
    <>
      <PickField
        label="Drive"
        {...field("drive")}
        choices={[
          { value: "roller", label: "rollers carry the part" },
          { value: "chuck", label: "a chuck holds it" },
        ]}
      />
      <PickField
        label="Replaced axis"
        {...field("replaces")}
        choices={[
          { value: "y", label: "Y: parts lie along X" },
          { value: "x", label: "X: parts lie along Y" },
        ]}
      />
      {texts.drive === "roller" && (
        <TextField label="Roller diameter" {...field("rollerDiameter")} why="Leave unknown values empty." />
      )}
      <TextField label="Full steps of its motor" {...field("motorSteps")} why="In a turn; 200 is usual." />
      <TextField label="Microsteps" {...field("microsteps")} why="Of its driver, for one full step." />
      <TextField label="Turns of the motor" {...field("ratio")} why="For one of roller or chuck; 60/20 is fine." />
      <TextField label="Steps per revolution" {...field("steps")} why="Where its parts are not known." />
      <TextField label="Most steps a second" {...field("mostStepsPerS")} why="That its driver follows." />
      <TextField label="Thinnest part" {...field("thinnest")} />
      <TextField label="Thickest part" {...field("thickest")} />
      <fieldset className="col-span-2">
        <legend className="text-[14px] text-ink2">
          Switched off or set otherwise for it: listed before each burn, and on the bench until it is put back
        </legend>
        <div className="mt-1 grid gap-x-4 sm:grid-cols-2">
          {ASIDE.map(([kind, label]) => (
            <CheckBox
              key={kind}
              label={label}
              checked={setAside.includes(kind)}
              onChange={(on) => onSetAside(on ? [...setAside, kind] : setAside.filter((k) => k !== kind))}
            />
          ))}
        </div>
      </fieldset>
      <div className="col-span-2">
        <TextField label="And besides" words {...field("setAsideToo")} why="In your words." />
      </div>
    </>
  );
}
