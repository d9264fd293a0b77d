import { said, t } from "@/language";
import type { CalibrationStretch, Command } from "@/api/types";
import type { ChartMark } from "@/chart/lineOption";
import type { TimeRange } from "@/chart/timeRange";
import { calibrationWords } from "./trace";

/** Something that somebody did and that may explain what a line does: a calibration, another device, a command. */
export interface Doing {
  at: number;
  label: string;
  text: string;
  by: string;
}

/** More would hide the line; the newest are shown. */
const MOST = 12;

/** What was done in a stretch of time, oldest first, with a letter for each. */
export function doingsOf(stretches: CalibrationStretch[], commands: Command[], range: TimeRange): Doing[] {
  const measured = stretches.flatMap((one) =>
    one.from
      ? [
          {
            at: Date.parse(one.from),
            text: t("{device}, calibration: {calibration}", {
              device: one.deviceName || t("A device that was removed"),
              calibration: calibrationWords(one.calibration),
            }),
            by: one.by,
          },
        ]
      : [],
  );
  const sent = commands
    .filter((one) => one.state === "sent" || one.state === "acknowledged")
    .map((one) => ({ at: Date.parse(one.changedAt), text: `${one.what}, ${said(one.state)}`, by: one.person }));
  return [...measured, ...sent]
    .filter(({ at }) => at >= range.from && at <= range.until)
    .sort((one, other) => one.at - other.at)
    .slice(-MOST)
    .map((one, i) => ({ ...one, label: String.fromCharCode("a".charCodeAt(0) + i) }));
}

/** The same as marks of a chart; their numbers are below those of the logbook's entries. */
export function doingMarks(doings: Doing[]): ChartMark[] {
  return doings.map(({ at, label }, i) => ({ id: -1 - i, at, label }));
}
