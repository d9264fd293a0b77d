import { locale as ours } from "@/language";

/** Making one takes longer than using it a hundred times. */
const formats = new Map<string, Intl.DateTimeFormat>();

/** How moments are written in a zone of the service's: one that this browser does not know is left to the browser's. */
export function format(options: Intl.DateTimeFormatOptions, locale = ours): Intl.DateTimeFormat {
  const key = JSON.stringify([options, locale]);
  const found = formats.get(key) ?? made(options, locale);
  formats.set(key, found);
  return found;
}

function made(options: Intl.DateTimeFormatOptions, locale?: string): Intl.DateTimeFormat {
  for (const timeZone of [options.timeZone, fixed(options.timeZone)]) {
    try {
      return new Intl.DateTimeFormat(locale, { ...options, timeZone });
    } catch {
      // The next one is tried.
    }
  }
  return new Intl.DateTimeFormat(locale, { ...options, timeZone: undefined });
}

/** A fixed offset by a name that browsers know: UTC+3 is Etc/GMT-3 (signs are the other way round there), +05:30 itself. */
function fixed(timeZone: string | undefined): string | undefined {
  const [, sign, hours = "", minutes = "00"] =
    /^(?:UTC|GMT|UT)?([+-])(\d{1,2})(?::?(\d{2}))?$/.exec(timeZone ?? "") ?? [];
  return sign === undefined
    ? timeZone
    : minutes === "00"
      ? `Etc/GMT${sign === "+" ? "-" : "+"}${Number(hours)}`
      : `${sign}${hours.padStart(2, "0")}:${minutes}`;
}
