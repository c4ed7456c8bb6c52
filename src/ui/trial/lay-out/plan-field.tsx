import clsx from "clsx";
import type { FieldSpec } from "../../../core/trial/plan-form";
import { ColourField } from "../../primitives/colour-field";
import { Link } from "../../primitives/link";
import { Fault } from "../../primitives/notice";
import { DrawingField } from "./drawing-field";

type Props = {
  field: FieldSpec;
  text: string;
  fault: string | null;
  warnings: string[];
  onChange: (text: string) => void;
};

/** One field of a layout: label, why, and its fault right below. */
export function PlanField({ field, text, fault, warnings, onChange }: Props) {
  const id = `plan-${field.key}`;
  const described = clsx(field.why && `${id}-why`, fault && `${id}-fault`) || undefined;
  const wide = field.kind === "choice" || field.kind === "quantities" || field.kind === "numbers";
  // Where there is one way alone, there is nothing to choose.
  const isSettled = field.kind === "choice" && field.options.length === 1 && field.options[0]?.value === text;
  if (field.kind === "colour")
    return (
      <div className="col-span-2">
        <ColourField
          id={id}
          label={field.label}
          value={text}
          describedBy={described}
          isWrong={fault !== null}
          onChange={onChange}
        />
        <Below id={id} why={field.why} fault={fault} warnings={warnings} />
      </div>
    );
  if (field.kind === "drawing") return <DrawingField field={field} text={text} fault={fault} onChange={onChange} />;
  if (field.kind === "choice")
    return (
      <fieldset className="col-span-2">
        <legend className="mb-1 text-[14px] text-ink2">{field.label}</legend>
        {isSettled ? (
          <p>{field.options[0]?.label}</p>
        ) : (
          <div className="grid gap-1.5">
            {field.options.map((option) => (
              <label key={option.value} className="flex cursor-pointer items-start gap-2.5">
                <input
                  type="radio"
                  name={id}
                  className="mt-1 size-4 shrink-0"
                  checked={text === option.value}
                  onChange={() => onChange(option.value)}
                />
                <span>
                  {option.label}
                  <span className="block text-[13px] text-ink2">{option.why}</span>
                </span>
              </label>
            ))}
          </div>
        )}
        <Below id={id} why={field.why} fault={fault} warnings={warnings} />
        {field.elsewhere && (
          <Link href={field.elsewhere.href} className="mt-1 inline-block text-[14px] underline underline-offset-4">
            {field.elsewhere.label}
          </Link>
        )}
      </fieldset>
    );
  return (
    <div className={clsx(wide && "col-span-2")}>
      <label htmlFor={id} className="mb-1 block text-[14px] text-ink2">
        {field.label}
      </label>
      <input
        id={id}
        className={clsx("field num w-full", fault && "!border-ember")}
        value={text}
        inputMode="text"
        autoComplete="off"
        aria-invalid={fault !== null}
        aria-describedby={described}
        onChange={(e) => onChange(e.target.value)}
      />
      <Below id={id} why={field.why} fault={fault} warnings={warnings} />
    </div>
  );
}

type BelowProps = { id: string; why: string; fault: string | null; warnings: string[] };

/** Below a field: why it matters, or its fault, and its warnings. */
function Below({ id, why, fault, warnings }: BelowProps) {
  return (
    <>
      {why && !fault && (
        <p id={`${id}-why`} className="mt-0.5 text-[13px] text-ink2">
          {why}
        </p>
      )}
      {fault && <Fault id={`${id}-fault`}>{fault}</Fault>}
      {warnings.map((w) => (
        <p key={w} className="mt-1 border-l-2 border-ochre pl-2 text-[13px] text-ochre">
          {w}
        </p>
      ))}
    </>
  );
}
