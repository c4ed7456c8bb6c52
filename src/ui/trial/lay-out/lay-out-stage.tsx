"use client";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import type { AnyProcedure } from "../../../core/procedures/contract";
import type { Draft } from "../../../core/trial/draft";
import { draftOf, readDraft, wholeDraft } from "../../../core/trial/draft";
import type { PlanContext } from "../../../core/trial/plan-form";
import { askedFields } from "../../../core/trial/plan-table";
import { CouponDrawing } from "../../drawing/coupon-drawing";
import { LoneDetail } from "../../drawing/detail-view";
import { Button, buttonClass } from "../../primitives/button";
import { Link } from "../../primitives/link";
import { planContext, procedureOf, unreadHistory } from "../shared/known-procedure";
import type { StageProps } from "../shared/stages";
import { stageHref } from "../shared/stages";
import { titleBlock } from "../shared/title-block";
import { VerdictLine } from "../shared/verdict-line";
import { ArrayEditor } from "./array-editor";
import { DraftConflict } from "./draft-conflict";
import { ForecastCard } from "./forecast-card";
import { PlanField } from "./plan-field";
import { useKeptDraft } from "./use-kept-draft";

type Form = ReturnType<AnyProcedure["plan"]>;

/** The texts of some fields of a plan. */
function textsOf(form: Form, changes: Record<string, unknown>): Draft {
  const texts = draftOf(form, { ...form.defaults, ...changes });
  return Object.fromEntries(Object.keys(changes).flatMap((key) => (key in texts ? [[key, texts[key] ?? ""]] : [])));
}

/** Lengths follow the gauge that is chosen. */
function longestTexts(procedure: AnyProcedure, form: Form, draft: Draft, context: PlanContext): Draft {
  const read = readDraft(form, draft);
  const plan = read.ok ? read.plan : read.unfit;
  return plan && procedure.longest ? textsOf(form, procedure.longest(plan, context)) : {};
}

/** Fields that are changed on the drawing of an array: the settings on its edges, and their values. */
function edgeKeys({ edges }: AnyProcedure, draft: Draft): ReadonlySet<string> {
  if (!edges) return new Set();
  const chosen = Object.values(edges.keys);
  return new Set([...chosen, ...chosen.flatMap((key) => draft[key] ?? [])]);
}

/** Few fields, a drawing that follows every change, and what does not fit said at its field. */
export function LayOutStage({ view, n }: StageProps) {
  const procedure = procedureOf(view);
  const round = view.rounds.find((r) => r.n === n);
  const frozen = round?.spec !== null;
  const context: PlanContext = useMemo(
    () => planContext(view, round?.couponCode ?? view.code),
    [view, round?.couponCode],
  );
  const form = useMemo(() => procedure.plan(context), [procedure, context]);
  const [typed, setDraft] = useState<Draft>(round?.draft ?? {});
  const [showsCoupon, setShowsCoupon] = useState(false);
  const [isGoing, setGoing] = useState(false);
  const layout = useRef<HTMLFormElement>(null);
  const router = useRouter();
  // Burned, perhaps from another window: what was burned is shown, not what was typed here since.
  const draft = frozen ? (round?.draft ?? {}) : typed;
  const { kept, words, theirs, settle } = useKeptDraft({
    trialId: view.id,
    n,
    draft,
    setDraft,
    onServer: round?.draft ?? {},
    active: !frozen,
  });
  const read = useMemo(() => readDraft(form, draft), [form, draft]);
  const warnings = read.ok ? procedure.warnings(read.plan, context) : [];
  const spec = useMemo(() => {
    const drawn = (plan: unknown) => procedure.round(plan, context, round?.purpose ?? "measure");
    if (frozen) return round?.spec ?? null;
    if (read.ok) return drawn(read.plan);
    if (read.unfit === null) return round?.spec ?? null;
    try {
      return drawn(read.unfit);
    } catch {
      // Nothing can be drawn of some plans that are refused: the faults at their fields say what to change.
      return null;
    }
  }, [read, procedure, context, frozen, round]);
  const piece = spec?.pieces[0];
  const example = spec?.sites.findLast((s) => s.place) ?? spec?.sites.at(-1) ?? null;
  const plan = read.ok ? read.plan : (read.unfit ?? round?.plan ?? null);
  const unread = spec && plan ? unreadHistory(view, spec, plan) : null;
  const detail = unread && example ? procedure.detail(unread, { site: example.id, typed: null }) : null;
  const whole = wholeDraft(form, draft);
  const onEdges = edgeKeys(procedure, whole);
  const fields = askedFields(form.fields, (key) => whole[key] ?? "").filter((f) => !onEdges.has(f.key));
  const groups = [...new Set(fields.map((f) => f.group))];
  // Enter in a field goes on as soon as what was typed is kept.
  useEffect(() => {
    if (!isGoing || !read.ok) return setGoing(false);
    if (kept) router.push(stageHref(view, "burn", n));
  }, [isGoing, read.ok, kept, router, view, n]);
  useEffect(() => {
    // A keyboard on the glass would cover the drawing.
    if (document.activeElement === document.body && matchMedia("(pointer: fine)").matches)
      layout.current?.querySelector<HTMLElement>("input:not([aria-hidden])")?.focus({ preventScroll: true });
  }, []);
  const change = (key: string, text: string) =>
    setDraft((d) => {
      const next = { ...d, [key]: text };
      return key === "gauge" ? { ...next, ...longestTexts(procedure, form, next, context) } : next;
    });
  const changePlan = (changes: Record<string, unknown>) => setDraft((d) => ({ ...d, ...textsOf(form, changes) }));

  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_430px]">
        <section className="card min-h-[420px] max-lg:order-2 lg:max-h-[calc(100dvh-190px)]" aria-label="Drawing">
          {procedure.edges && plan && !frozen && !showsCoupon ? (
            <ArrayEditor
              edges={procedure.edges}
              fields={form.fields}
              draft={whole}
              plan={plan}
              context={context}
              faults={read.ok ? [] : read.issues}
              onChange={(texts) => setDraft((d) => ({ ...d, ...texts }))}
            />
          ) : piece && spec ? (
            <CouponDrawing
              piece={piece}
              overlay={unread ? procedure.overlay(unread) : []}
              site={example}
              detail={detail}
              titleBlock={titleBlock(view, procedure.title, context.couponCode, spec.delivery)}
            />
          ) : spec && detail ? (
            <LoneDetail detail={detail} />
          ) : (
            <p className="p-8 text-ink2">The drawing comes back when every field can be read.</p>
          )}
          {procedure.edges && !frozen && (
            <p className="px-5 pb-3">
              <Button weight="quiet" onClick={() => setShowsCoupon(!showsCoupon)}>
                {showsCoupon ? "Change the array" : "Show the coupon"}
              </Button>
            </p>
          )}
        </section>
        <form
          className="card relative overflow-y-auto p-5 lg:max-h-[calc(100dvh-190px)]"
          aria-label="Layout"
          // It scrolls, and once it is burned nothing in it takes the focus.
          tabIndex={frozen ? 0 : undefined}
          ref={layout}
          onSubmit={(e) => {
            e.preventDefault();
            if (frozen || (read.ok && kept)) router.push(stageHref(view, "burn", n));
            else if (read.ok) setGoing(true);
            else layout.current?.querySelector<HTMLElement>("[aria-invalid=true]")?.focus();
          }}
        >
          {/* With it, Enter in a field sends the form. */}
          <button type="submit" hidden />
          {theirs && <DraftConflict mine={draft} theirs={theirs} fields={form.fields} onSettle={settle} />}
          {frozen && (
            <p className="mb-4 rounded-md bg-steel-tint px-3 py-2 text-steel">
              This round is burned: its layout stays as it was.
            </p>
          )}
          {!frozen && read.ok && (
            <ForecastCard view={view} procedure={procedure} plan={read.plan} context={context} onChange={changePlan} />
          )}
          {groups.map((group) => (
            <fieldset key={group} disabled={frozen} className="mb-4 border-b border-hair pb-4 last:border-0">
              <legend className="mb-2 font-semibold">{group}</legend>
              <div className="grid grid-cols-2 gap-x-4 gap-y-3">
                {fields
                  .filter((f) => f.group === group)
                  .map((field) => (
                    <PlanField
                      key={field.key}
                      field={field}
                      text={draft[field.key] ?? ""}
                      fault={read.ok ? null : (read.issues.find((i) => i.field === field.key)?.message ?? null)}
                      warnings={warnings.filter((w) => w.field === field.key).map((w) => w.message)}
                      onChange={(text) => change(field.key, text)}
                    />
                  ))}
              </div>
            </fieldset>
          ))}
          {!frozen && (
            <Button weight="quiet" onClick={() => setDraft(draftOf(form, form.defaults))}>
              Back to the usual layout
            </Button>
          )}
        </form>
      </main>
      <VerdictLine
        outcome={null}
        text={
          frozen
            ? "Burned."
            : read.ok
              ? words
              : `${read.issues.length === 1 ? "One field needs" : `${read.issues.length} fields need`} you before the burn.`
        }
      >
        {/* What is not on disk yet would not be on the next page. */}
        {read.ok && kept ? (
          <Link href={stageHref(view, "burn", n)} className={buttonClass("primary")}>
            To the burn
          </Link>
        ) : (
          <Button weight="primary" disabled>
            To the burn
          </Button>
        )}
      </VerdictLine>
    </>
  );
}
