import { t } from "@/language";
import { api } from "@/api/http";
import type { Exposure, LimitSet, Point, Severity, Statistic, Summary } from "@/api/types";
import { summariesOf, usePointPath } from "@/chart/series";
import { rangeQuery, useTimeRange } from "@/chart/timeRange";
import { useRefreshed } from "@/look/load";
import { worstJudged } from "@/look/severity";
import { latestAsRead, readBy, summaryAsRead } from "@/look/units";
import { idsOf } from "@/points/names";
import { computed } from "vue";
import { hoursOf } from "../layout";

const REFRESH_SECONDS = 60;

/** Asks something of each point, again when the points change and once a minute while the page is seen. */
function useOfEach<T>(points: () => Point[], ask: (path: string, point: Point) => Promise<T>, also: () => unknown) {
  const path = usePointPath();
  const { data, error, loading } = useRefreshed(
    async () =>
      new Map(await Promise.all(points().map(async (point) => [point.id, await ask(path(point.id), point)] as const))),
    [() => idsOf(points()), also],
    REFRESH_SECONDS,
  );
  return { found: computed(() => data.value ?? new Map<string, T>()), error, loading };
}

/** What the readings of a range come to, for each point: that of the page, else the panel's up to now. */
export function useSummaries(points: () => Point[], range: () => string | null) {
  const time = useTimeRange(() => hoursOf(range()));
  return useOfEach(
    points,
    async (path, point) =>
      summaryAsRead(await api.get<Summary>(`${path}/summary?${rangeQuery(time.current())}`), point),
    time.key,
  );
}

/** What the readings of each day come to, for each point. */
export function useDays(points: () => Point[], range: () => string | null) {
  const time = useTimeRange(() => hoursOf(range()));
  return useOfEach(points, (path, point) => summariesOf(path, point, "day", time.current()), time.key);
}

/** The running mean of a window up to now, for each point. */
export function useExposures(points: () => Point[], minutes: () => number) {
  return useOfEach(
    points,
    async (path, point) => {
      const found = await api.get<Exposure>(`${path}/exposure?minutes=${minutes()}`);
      return { ...found, mean: found.mean && latestAsRead(found.mean, readBy(point)) };
    },
    minutes,
  );
}

/** What a statistic of readings is called. */
export const STATISTICS = { mean: t("Mean"), minimum: t("Lowest"), maximum: t("Highest"), sum: t("Mean") } as const;

const FIGURES = { mean: "mean", minimum: "min", maximum: "max", sum: "mean" } as const;

/** What a summary says of a statistic; readings are not added up. */
export function figure(summary: Summary | undefined, statistic: Statistic): number | null | undefined {
  return summary?.[FIGURES[statistic]];
}

/** The worst zone in which a value lay for any time of a stretch; null where nothing is judged. */
export function worst(summary: Summary | undefined, set: LimitSet | undefined): Severity | null {
  const seen = (set?.zones ?? []).filter((zone) => (summary?.secondsInZone[zone.label] ?? 0) > 0);
  return worstJudged(seen.map((zone) => zone.severity));
}
