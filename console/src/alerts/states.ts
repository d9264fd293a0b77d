import { fixed } from "@/look/numbers";
import { said, t } from "@/language";
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
import { format } from "@/look/format";
import { asRead, read, readBy } from "@/look/units";

/** The states of an alert (IEC 62682) as people say them. */
export const STATES: Record<AlertState, string> = {
  normal: t("over (of an alert)"),
  "on-delay": t("not held long enough yet"),
  unacknowledged: t("not acknowledged"),
  acknowledged: t("acknowledged"),
  returned: t("back to normal, not acknowledged"),
  shelved: t("shelved"),
  "out-of-service": t("out of service"),
};

/**
 * A value of an alert; in the unit that one reads if it is one of the point's own, and not a rate or the like. It may be a
 * difference too, so that units with a zero of their own, such as °F, are not used.
 */
function valueWords(value: number, unit: string, point?: Point): string {
  const own = point?.unit === unit ? asRead(point) : undefined;
  const by = own && readBy(own);
  return by && by.offset === 0
    ? `${fixed(read(by, value), 2 + by.moreDecimals)} ${by.to}`
    : `${fixed(value, 2)} ${unit}`.trimEnd();
}

/** A step of an alert in words, with the value at that moment. */
export function stepWords(step: AlertStep, unit: string, point?: Point): string {
  const value =
    step.value === null ? "" : ` ${t("at {valueWords}", { valueWords: valueWords(step.value, unit, point) })}`;
  switch (step.kind) {
    case "raised":
      return t("raised as {severity}{value}", { severity: said(step.severity ?? ""), value });
    case "worsened":
      return t("became {severity}{value}, {text}", { severity: said(step.severity ?? ""), value, text: step.text });
    case "eased":
      return t("eased to {severity}{value}", { severity: said(step.severity ?? ""), value });
    case "acknowledged":
      return t("acknowledged by {person}", { person: step.person || "Open Pasture" });
    case "returned":
      return t("back to normal{value}", { value });
    case "recurred":
      return t("applies again");
    case "latched":
      return t("over; waits for an acknowledgement");
    case "shelved":
      return t("shelved by {person}: {text}", { person: step.person, text: step.text });
    case "unshelved":
      return step.person ? t("shelving ended by {person}", { person: step.person }) : t("shelving ended");
    case "assigned":
      return step.text
        ? t("assigned to {text} by {person}", { text: step.text, person: step.person })
        : t("assigned to nobody by {person}", { person: step.person });
    case "done":
      return t("{person} ticked off “{text}”", { person: step.person, text: step.text });
    case "undone":
      return t("{person} took back the tick of “{text}”", { person: step.person, text: step.text });
    case "closed":
      return t("closed");
  }
}

/** What became of a notice. */
export function noticeWords(notice: Notice): string {
  const later = notice.nextAt !== null && notice.attempts === 0 && notice.nextAt > notice.createdAt;
  const to = t("{way} to {recipient}", {
    way: notice.recipient.includes("@") ? t("mail") : t("text message"),
    recipient: notice.recipient,
  });
  return later
    ? t("{to}: at {moment}, unless somebody acknowledges before", { to, moment: moment(notice.nextAt ?? "") })
    : `${to}: ${said(notice.state)}${notice.lastError ? ", " + notice.lastError : ""}`;
}

/** Everything that happened to an alert, in the order in which it happened. */
export function history(alert: Alert, point?: Point): { at: string; what: string }[] {
  const late = Date.parse(alert.learntAt) - Date.parse(alert.raisedAt) > 120_000;
  return [
    { at: alert.startedAt, what: t("began") },
    ...(late ? [{ at: alert.learntAt, what: t("reported late: this service learnt of it now") }] : []),
    ...alert.steps.map((step) => ({ at: step.at, what: stepWords(step, alert.unit, point) })),
    ...alert.notes.map((note) => ({ at: note.at, what: `${note.person}: “${note.text}”` })),
    ...alert.notices.map((notice) => ({ at: notice.sentAt ?? notice.createdAt, what: noticeWords(notice) })),
  ].sort((a, b) => a.at.localeCompare(b.at));
}

export function span(seconds: number): string {
  return seconds % 3600 === 0 && seconds > 0
    ? seconds / 3600 + " h"
    : seconds % 60 === 0 && seconds > 0
      ? t("{minutes} min", { minutes: seconds / 60 })
      : seconds + " s";
}

/** A rule's condition in words. */
export function conditionWords(condition: Condition, unit: string): string {
  switch (condition.kind) {
    case "above":
      return t("above {limit} {unit}", { limit: condition.limit, unit }).trim();
    case "below":
      return t("below {limit} {unit}", { limit: condition.limit, unit }).trim();
    case "outside":
      return t("outside {low} to {high} {unit}", { low: condition.low, high: condition.high, unit }).trim();
    case "in-zone":
      return t("in a zone that is {atLeast} or worse", { atLeast: said(condition.atLeast) });
    case "off-baseline":
      return condition.percentOfLimit != null
        ? t("changed from the baseline by more than {percentOfLimit} % of the limit", {
            percentOfLimit: condition.percentOfLimit,
          })
        : condition.by != null
          ? t("changed from the baseline by more than {by} {unit}", { by: condition.by, unit }).trim()
          : t("outside the normal range of the baseline");
    case "silent":
      return t("silent for {span}", { span: span(condition.seconds) });
    case "faulty":
      return t("impossible: the sensor is at fault");
    case "device-says":
      return t("said by the device, until it says 0 or is silent for {span}", { span: span(condition.silentSeconds) });
  }
}

export function holdWords(hold: Hold): string {
  return hold.kind === "reports"
    ? hold.count === 1
      ? t("at once")
      : t("in {count} reports in a row", { count: hold.count })
    : hold.seconds === 0
      ? t("at once")
      : t("for {span}", { span: span(hold.seconds) });
}

/** The unit of what a measure comes to. */
export function measureUnit(kind: Measure["kind"], unit: string): string {
  return kind === "rate" ? unit + "/h" : unit;
}

export function measureWords(measure: Measure, pointName: (id: string) => string = () => t("another point")): string {
  switch (measure.kind) {
    case "last":
      return "";
    case "mean":
      return `${t("mean over {span}", { span: span(measure.seconds) })} `;
    case "minimum":
      return `${t("minimum over {span}", { span: span(measure.seconds) })} `;
    case "maximum":
      return `${t("maximum over {span}", { span: span(measure.seconds) })} `;
    case "range":
      return `${t("range over {span}", { span: span(measure.seconds) })} `;
    case "rate":
      return `${t("rate of change over {span}", { span: span(measure.seconds) })} `;
    case "deviation":
      return `${t("deviation from mean over {span}", { span: span(measure.seconds) })} `;
    case "forecast":
      return `${t("forecast for {span} (trend of {past})", { span: span(measure.aheadSeconds), past: span(measure.seconds) })} `;
    case "difference":
      return `${t("difference from {pointName}", { pointName: pointName(measure.pointId) })} `;
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
  const on = days.length === 7 ? "" : ` ${t("on {days}", { days: days.map((day) => dayName(day)).join(", ") })}`;
  const span = t("{from} to {until}{on}", { from: hours.from.slice(0, 5), until: hours.until.slice(0, 5), on: on });
  return hours.outside ? t("except {span}", { span }) : span;
}

/** The days of the week, as the service names them. */
export const DAYS = ["MONDAY", "TUESDAY", "WEDNESDAY", "THURSDAY", "FRIDAY", "SATURDAY", "SUNDAY"] as const;

/** A day of the week as it is written in short: the fifth of January 1970 was a Monday. */
export function dayName(day: (typeof DAYS)[number]): string {
  return format({ weekday: "short", timeZone: "UTC" }).format(new Date(Date.UTC(1970, 0, 5 + DAYS.indexOf(day))));
}

/** A rule in words; what its further conditions look at is named by the caller. */
export function ruleWords(
  rule: Rule,
  unit: string,
  name: (term: Term) => string = () => t("another value"),
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
      ? all.join(` ${t("while")} `)
      : rule.atLeast === 1
        ? all.join(` ${t("or")} `)
        : t("at least {atLeast} of: {join}", { atLeast: rule.atLeast, join: all.join("; ") });
  const hours = hoursWords(rule.active);
  return joined + held + (hours && "; " + hours);
}
