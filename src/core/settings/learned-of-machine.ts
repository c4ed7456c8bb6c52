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
  const learn = (setting: string, of: (before: HeldSetting) => HeldSetting) => {
    const before = next[setting] ?? usual(setting);
    if (before) next[setting] = of(before);
  };
  for (const [key, value] of Object.entries(learned)) {
    if (key.startsWith(SENSE)) learn(key.slice(SENSE.length), (before) => withSense(before, value > 0 ? 1 : -1));
    else if (key.startsWith(EFFECT)) learn(key.slice(EFFECT.length), (before) => ({ ...before, effectMm: value }));
  }
  return next;
}

function withSense({ senseAssumed: _, ...known }: HeldSetting, sense: HeldSetting["sense"]): HeldSetting {
  return { ...known, sense };
}
