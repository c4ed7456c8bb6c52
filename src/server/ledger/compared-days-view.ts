/** The two days of a comparison, as the address of its page names them. */
import { endOfDay, format, isValid, parseISO, subMonths } from "date-fns";

export type ComparedDays = {
  /** As date fields show them, `2026-11-25`. */
  from: string;
  to: string;
  /** The last moment of each. */
  before: number;
  after: number;
};

const USUAL_MONTHS = 6;

/** Half a year ago and today, where a day is missing or none. */
export function comparedDays(from: string | undefined, to: string | undefined, now: number): ComparedDays {
  const [before, after] = [dayOf(from) ?? subMonths(now, USUAL_MONTHS), dayOf(to) ?? new Date(now)];
  const text = (day: Date) => format(day, "yyyy-MM-dd");
  return { from: text(before), to: text(after), before: endOfDay(before).getTime(), after: endOfDay(after).getTime() };
}

function dayOf(text: string | undefined): Date | null {
  const day = /^\d{4}-\d\d-\d\d$/.test(text ?? "") ? parseISO(text ?? "") : null;
  return day && isValid(day) ? day : null;
}
