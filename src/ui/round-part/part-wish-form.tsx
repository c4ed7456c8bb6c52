import { LAYS, LEVELS } from "../../core/round-part/taper";
import { PickField, TextField } from "../primitives/fields";
import { Folded } from "../primitives/folded";
import { type PartWish, type ReadWish, SHAPES, shapeOf, type WishField } from "./part-wish";

type Props = { wish: PartWish; faults: ReadWish["faults"]; onChange: (change: Partial<PartWish>) => void };

/** The part as it lies on the rotary, and what drives it. */
export function PartWishForm({ wish, faults, onChange }: Props) {
  const field = (key: WishField) => ({
    value: wish[key],
    onChange: (value: string) => onChange({ [key]: value }),
    fault: faults[key] ?? "",
  });
  const pick = <K extends keyof PartWish>(key: K, of: Record<string, string>) => ({
    value: String(wish[key]),
    onChange: (value: string) => onChange({ [key]: value } as Partial<PartWish>),
    choices: Object.entries(of).map(([value, label]) => ({ value, label })),
  });
  const isRoller = wish.drive === "roller";
  const shape = shapeOf(wish);
  const isUnknown = wish.steps === "" || wish.mostSteps === "" || (isRoller && wish.roller === "");
  const lies = isRoller ? "Across, on the rollers" : "Across, as told";
  return (
    <div className="grid grid-cols-2 gap-3">
      <div className="col-span-2">
        <PickField label="The part is" {...pick("shape", shapesFor(isRoller))} value={shape} />
      </div>
      {shape === "taper" ? (
        <>
          <TextField label="Across, first end" {...field("first")} why="Where the artwork begins." />
          <TextField label="Across, other end" {...field("last")} />
          <TextField label="Between them" {...field("length")} why="Along the axis." />
          <TextField label="Artwork begins at" {...field("begins")} why="Along the side, from the first end." />
          <TextField label={lies} {...field("turnsBy")} />
          <PickField label="Tilted so that" {...pick("level", LEVELS)} />
          <div className="col-span-2">
            <PickField label="Artwork goes on" {...pick("lay", LAYS)} />
          </div>
        </>
      ) : (
        <>
          <TextField label="Across, where marked" {...field("marked")} />
          {shape === "neck" && <TextField label={lies} {...field("turnsBy")} />}
        </>
      )}
      <TextField label="Artwork is long, around" {...field("artwork")} why="Empty: not asked." />
      <PickField label="Around is" {...pick("around", { y: "Y of the drawing", x: "X of the drawing" })} />
      <Folded
        title="What drives it"
        titleClass="font-semibold"
        isOpen={isUnknown}
        className="col-span-2 border-t border-hair pt-2"
      >
        <div className="mt-2 grid grid-cols-2 gap-3">
          <PickField label="Drive" {...pick("drive", { roller: "Rollers carry it", chuck: "A chuck holds it" })} />
          <TextField label="Steps per revolution" {...field("steps")} />
          {isRoller && <TextField label="Roller diameter" {...field("roller")} />}
          <TextField label="Most steps a second" {...field("mostSteps")} why="That its driver follows." />
        </div>
      </Folded>
    </div>
  );
}

function shapesFor(isRoller: boolean): Record<string, string> {
  const { tube, neck, taper } = SHAPES;
  return isRoller ? { tube, neck, taper } : { tube, taper };
}
