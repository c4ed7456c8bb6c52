/** What burns show of how a controller takes a setting: kept with the machine, so that the next trial knows it. */
import type { HeldSetting } from "./setting";

const [SENSE, EFFECT] = ["sense: ", "effect, mm: "];

/** Learned of this key: 1 or -1, which of the two a larger value does. */
export function learnedSenseKey(setting: string): string {
  return `${SENSE}${setting}`;
}

/** Learned of this key: what one more of it moves the corner of the field, mm. */
export function learnedEffectKey(setting: string): string {
  return `${EFFECT}${setting}`;
}

/**
 * How the controller takes its settings, with what was learned.
 *
 * @param learned by the keys above; other keys are left alone
 * @param usual how a setting is taken of which nothing was said
 */
export function withLearned(
  held: Readonly<Record<string, HeldSetting>>,
  learned: Readonly<Record<string, number>>,
  usual: (setting: string) => HeldSetting | undefined,
): Record<string, HeldSetting> {
  const next: Record<string, HeldSetting> = { ...held };
  for (const [key, value] of Object.entries(learned)) {
    const setting = [SENSE, EFFECT].flatMap((prefix) => (key.startsWith(prefix) ? [key.slice(prefix.length)] : []))[0];
    const before = setting === undefined ? undefined : (next[setting] ?? usual(setting));
    if (setting === undefined || !before) continue;
    const { senseAssumed: _, ...known } = before;
    next[setting] = key.startsWith(SENSE) ? { ...known, sense: value > 0 ? 1 : -1 } : { ...before, effectMm: value };
  }
  return next;
}
