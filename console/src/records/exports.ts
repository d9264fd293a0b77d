import { t } from "@/language";
import { rangeQuery, type TimeRange } from "@/chart/timeRange";
import { readsOtherUnits } from "@/look/units";

/** The formats in which readings leave, with their names. */
export const FORMATS = { csv: "CSV", xlsx: t("Workbook (XLSX)"), "json-lines": t("JSON lines"), senml: "SenML" };

/** The address at which the readings of points over a time are downloaded, in the units in which they are read. */
export function exportOf(points: string[], range: TimeRange, format: string): string {
  return `/api/v1/readings/export?points=${points.join(",")}&${rangeQuery(range)}&format=${format}${readsOtherUnits() ? "&units=mine" : ""}`;
}
