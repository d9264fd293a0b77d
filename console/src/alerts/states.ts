import type {
  ActiveHours,
  Alert,
  AlertState,
  AlertStep,
  Condition,
  Hold,
  Measure,
  Notice,
  Point,
  Rule,
  Term,
} from "@/api/types";
import { moment } from "@/look/clock";
import { asRead, read, readBy } from "@/look/units";

/** The states of an alert (IEC 62682) as people say them. */
export const STATES: Record<AlertState, string> = {
  normal: "over",
  "on-delay": "not held long enough yet",
  unacknowledged: "not acknowledged",
  acknowledged: "acknowledged",
  returned: "back to normal, not acknowledged",
  shelved: "shelved",
  "out-of-service": "out of service",
};

/**
 * A value of an alert; in the unit that one reads if it is one of the point's own, and not a rate or the like. It may be a
 * difference too, so that units with a zero of their own, such as °F, are not used.
 */
function valueWords(value: number, unit: string, point?: Point): string {
  const own = point?.unit === unit ? asRead(point) : undefined;
  const by = own && readBy(own);
  return by && by.offset === 0
    ? `${read(by, value).toFixed(2 + by.moreDecimals)} ${by.to}`
    : `${value.toFixed(2)} ${unit}`.trimEnd();
}

/** A step of an alert in words, with the value at that moment. */
export function stepWords(step: AlertStep, unit: string, point?: Point): string {
  const value = step.value === null ? "" : ` at ${valueWords(step.value, unit, point)}`;
  switch (step.kind) {
    case "raised":
      return `raised as ${step.severity}${value}`;
    case "worsened":
      return `became ${step.severity}${value}, ${step.text}`;
    case "eased":
      return `eased to ${step.severity}${value}`;
    case "acknowledged":
      return "acknowledged by " + (step.person || "Open Pasture");
    case "returned":
      return "back to normal" + value;
    case "recurred":
      return "applies again";
    case "latched":
      return "over; waits for an acknowledgement";
    case "shelved":
      return `shelved by ${step.person}: ${step.text}`;
    case "unshelved":
      return step.person ? `shelving ended by ${step.person}` : "shelving ended";
    case "assigned":
      return step.text ? `assigned to ${step.text} by ${step.person}` : `assigned to nobody by ${step.person}`;
    case "done":
      return `${step.person} ticked off “${step.text}”`;
    case "undone":
      return `${step.person} took back the tick of “${step.text}”`;
    case "closed":
      return "closed";
  }
}

/** What became of a notice. */
export function noticeWords(notice: Notice): string {
  const later = notice.nextAt !== null && notice.attempts === 0 && notice.nextAt > notice.createdAt;
  const to = `${notice.recipient.includes("@") ? "mail" : "text message"} to ${notice.recipient}`;
  return later
    ? `${to}: at ${moment(notice.nextAt ?? "")}, unless somebody acknowledges before`
    : `${to}: ${notice.state}${notice.lastError ? ", " + notice.lastError : ""}`;
}

/** Everything that happened to an alert, in the order in which it happened. */
export function history(alert: Alert, point?: Point): { at: string; what: string }[] {
  const late = Date.parse(alert.learntAt) - Date.parse(alert.raisedAt) > 120_000;
  return [
    { at: alert.startedAt, what: "began" },
    ...(late ? [{ at: alert.learntAt, what: "reported late: this service learnt of it now" }] : []),
    ...alert.steps.map((step) => ({ at: step.at, what: stepWords(step, alert.unit, point) })),
    ...alert.notes.map((note) => ({ at: note.at, what: `${note.person}: “${note.text}”` })),
    ...alert.notices.map((notice) => ({ at: notice.sentAt ?? notice.createdAt, what: noticeWords(notice) })),
  ].sort((a, b) => a.at.localeCompare(b.at));
}

export function span(seconds: number): string {
  return seconds % 3600 === 0 && seconds > 0
    ? seconds / 3600 + " h"
    : seconds % 60 === 0 && seconds > 0
      ? seconds / 60 + " min"
      : seconds + " s";
}

/** A rule's condition in words. */
export function conditionWords(condition: Condition, unit: string): string {
  switch (condition.kind) {
    case "above":
    case "below":
      return `${condition.kind} ${condition.limit} ${unit}`.trim();
    case "outside":
      return `outside ${condition.low} to ${condition.high} ${unit}`.trim();
    case "in-zone":
      return `in a zone that is ${condition.atLeast} or worse`;
    case "off-baseline":
      return condition.percentOfLimit != null
        ? `changed from the baseline by more than ${condition.percentOfLimit} % of the limit`
        : condition.by != null
          ? `changed from the baseline by more than ${condition.by} ${unit}`.trim()
          : "outside the normal range of the baseline";
    case "silent":
      return `silent for ${span(condition.seconds)}`;
    case "faulty":
      return "impossible: the sensor is at fault";
    case "device-says":
      return `said by the device, until it says 0 or is silent for ${span(condition.silentSeconds)}`;
  }
}

export function holdWords(hold: Hold): string {
  return hold.kind === "reports"
    ? hold.count === 1
      ? "at once"
      : `in ${hold.count} reports in a row`
    : hold.seconds === 0
      ? "at once"
      : `for ${span(hold.seconds)}`;
}

/** The unit of what a measure comes to. */
export function measureUnit(kind: Measure["kind"], unit: string): string {
  return kind === "rate" ? unit + "/h" : unit;
}

export function measureWords(measure: Measure, pointName: (id: string) => string = () => "another point"): string {
  switch (measure.kind) {
    case "last":
      return "";
    case "mean":
      return `mean over ${span(measure.seconds)} `;
    case "minimum":
    case "maximum":
      return `${measure.kind} over ${span(measure.seconds)} `;
    case "range":
      return `range over ${span(measure.seconds)} `;
    case "rate":
      return `rate of change over ${span(measure.seconds)} `;
    case "deviation":
      return `deviation from mean over ${span(measure.seconds)} `;
    case "forecast":
      return `forecast for ${span(measure.aheadSeconds)} (trend of ${span(measure.seconds)}) `;
    case "difference":
      return `difference from ${pointName(measure.pointId)} `;
  }
}

/** What one begins with where hours are wanted: a working week. */
export function usualHours(): ActiveHours {
  return { days: DAYS.slice(0, 5), from: "08:00", until: "17:00", outside: false, holidays: null, siteHolidays: true };
}

/** The hours in which a rule applies, in words; empty for always. */
export function hoursWords(hours: ActiveHours | null | undefined): string {
  if (!hours) {
    return "";
  }
  const days = DAYS.filter((day) => (hours.days ?? DAYS).includes(day));
  const on = days.length === 7 ? "" : " on " + days.map((day) => day[0] + day.slice(1, 3).toLowerCase()).join(", ");
  const span = `${hours.from.slice(0, 5)} to ${hours.until.slice(0, 5)}${on}`;
  return hours.outside ? `except ${span}` : span;
}

/** The days of the week, as the service names them. */
export const DAYS = ["MONDAY", "TUESDAY", "WEDNESDAY", "THURSDAY", "FRIDAY", "SATURDAY", "SUNDAY"] as const;

/** A rule in words; what its further conditions look at is named by the caller. */
export function ruleWords(
  rule: Rule,
  unit: string,
  name: (term: Term) => string = () => "another value",
  pointName?: (id: string) => string,
): string {
  const held = rule.condition.kind === "silent" ? "" : ", " + holdWords(rule.hold);
  const first =
    measureWords(rule.measure, pointName) + conditionWords(rule.condition, measureUnit(rule.measure.kind, unit));
  const terms = rule.also.map(
    (term) => `${name(term)} ${measureWords(term.measure, pointName)}${conditionWords(term.condition, "")}`,
  );
  const all = [first, ...terms];
  const joined =
    rule.atLeast === null || rule.atLeast === all.length
      ? all.join(" while ")
      : rule.atLeast === 1
        ? all.join(" or ")
        : `at least ${rule.atLeast} of: ${all.join("; ")}`;
  const hours = hoursWords(rule.active);
  return joined + held + (hours && "; " + hours);
}
