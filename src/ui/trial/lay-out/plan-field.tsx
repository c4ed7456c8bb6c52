import clsx from "clsx";
import type { FieldSpec } from "../../../core/trial/plan-form";
import { ColourField } from "../../primitives/colour-field";
import { Link } from "../../primitives/link";
import { Fault } from "../../primitives/notice";
import { OneOf } from "../../primitives/one-of";
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
      <div className="col-span-2">
        <p className="mb-1 text-[14px] text-ink2" aria-hidden={!isSettled}>
          {field.label}
        </p>
        {isSettled ? (
          <p>{field.options[0]?.label}</p>
        ) : (
          <OneOf label={field.label} describedBy={described} value={text} options={field.options} onChange={onChange} />
        )}
        <Below id={id} why={field.why} fault={fault} warnings={warnings} />
        {field.elsewhere && (
          <Link href={field.elsewhere.href} className="mt-1 inline-block text-[14px] underline underline-offset-4">
            {field.elsewhere.label}
          </Link>
        )}
      </div>
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
