/**
 * Reads a coupon SVG back: any drawing whose groups carry marking settings, with every line in one of them.
 *
 * Whatever is not understood is refused with its place; nothing is skipped silently.
 */
import type { CouponPath, MarkingSettings } from "../core/coupon/piece";
import { FormatFault, type Parsed, parsing } from "./parsed";
import { parseSvgDrawing, refuseEmpty, type SvgPath } from "./svg-drawing";
import { groupSettings, isMarkedGroup } from "./svg-group";
import { faultAt, type SvgNode } from "./svg-tree";

export type SvgCoupon = {
  title: string;
  widthMm: number;
  heightMm: number;
  settings: MarkingSettings[];
  paths: CouponPath[];
};

/**
 * @param text the file as text
 * @param chordErrorMm largest distance of a chord from its curve; the drawing's own where it is left out
 */
export function parseSvg(text: string, chordErrorMm?: number): Parsed<SvgCoupon> {
  const drawing = parseSvgDrawing(text, chordErrorMm);
  if (!drawing.ok) return drawing;
  return parsing(() => {
    const { title, widthMm, heightMm, paths, root } = drawing.value;
    for (const side of ["width", "height"] as const)
      if (!/^[\d.]+mm$/.test(root.attributes[side] ?? "")) throw faultAt(root, `The ${side} must be given in mm.`);
    const box = (root.attributes.viewBox ?? "")
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    if (box.length !== 4 || box[0] !== 0 || box[1] !== 0 || box[2] !== widthMm || box[3] !== heightMm)
      throw faultAt(root, "The viewBox must be 0 0 width height, so that one unit is one mm.");
    refuseEmpty(paths);
    for (const node of new Set([root, ...paths.flatMap((p) => p.within)])) refuseUnsaid(node);
    const groups = new Map<SvgNode, MarkingSettings>();
    for (const child of root.children)
      if (child.name === "g" && isMarkedGroup(child.attributes)) groups.set(child, settingsOf(child));
    return {
      title,
      widthMm,
      heightMm,
      settings: [...groups.values()],
      paths: paths.map((path) => couponPath(path, groups)),
    };
  });
}

/** All that a coupon's elements say; what is spelled otherwise would be lost without a word. */
const SAID =
  /^(?:xmlns(?::\w+)?|version|id|d|transform|width|height|viewBox|data-[a-z-]+|fill|stroke(?:-[a-z]+)*|style|class)$/;

function refuseUnsaid(node: SvgNode): void {
  for (const name of Object.keys(node.attributes))
    if (!SAID.test(name)) throw faultAt(node, `${name.slice(0, 40)} is not understood at <${node.name}> of a coupon.`);
}

function couponPath({ points, closed, within }: SvgPath, groups: ReadonlyMap<SvgNode, MarkingSettings>): CouponPath {
  const settings = within.map((node) => groups.get(node)).find((s) => s !== undefined);
  const own = within.at(-1);
  if (!settings)
    throw own ? faultAt(own, "This line is in no group with marking settings.") : new FormatFault(1, 1, "No group.");
  return { points, closed, settings: settings.id };
}

function settingsOf(node: SvgNode): MarkingSettings {
  const read = groupSettings(node.attributes);
  if ("why" in read) throw faultAt(node, `The settings of a group cannot be read. ${read.why}`);
  return read;
}
