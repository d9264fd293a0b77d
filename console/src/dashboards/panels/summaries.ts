import type { Exposure, Point, Summary } from "@/api/types";
import { usePointPath } from "@/chart/series";
import { api } from "@/api/http";
import { every } from "@/look/clock";
import { onScopeDispose, ref, shallowRef, watch } from "vue";
import { hoursOf } from "../layout";

const REFRESH_SECONDS = 60;

/** Asks something of each point, again when the points change and once a minute while the page is seen. */
function useOfEach<T>(points: () => Point[], ask: (path: string) => Promise<T>, also: () => unknown) {
  const path = usePointPath();
  const found = shallowRef(new Map<string, T>());
  const error = shallowRef<unknown>();
  const loading = ref(true);
  let turn = 0;

  async function load() {
    const mine = ++turn;
    try {
      const answers = await Promise.all(
        points().map(async (point) => [point.id, await ask(path(point.id))] as [string, T]),
      );
      if (mine === turn) {
        found.value = new Map(answers);
        error.value = undefined;
      }
    } catch (problem) {
      error.value = mine === turn ? problem : error.value;
    } finally {
      loading.value = false;
    }
  }

  watch(
    [
      () =>
        points()
          .map((point) => point.id)
          .join(),
      also,
    ],
    load,
    { immediate: true },
  );
  every(REFRESH_SECONDS, () => {
    if (!document.hidden) {
      void load();
    }
  });
  onScopeDispose(() => turn++);
  return { found, error, loading };
}

const ago = (hours: number) => new Date(Date.now() - hours * 3_600_000).toISOString();

/** What the readings of a range up to now come to, for each point. */
export function useSummaries(points: () => Point[], range: () => string | null) {
  return useOfEach(points, (path) => api.get<Summary>(`${path}/summary?from=${ago(hoursOf(range()))}`), range);
}

/** What the readings of each day come to, for each point. */
export function useDays(points: () => Point[], range: () => string | null) {
  return useOfEach(points, (path) => api.get<Summary[]>(`${path}/summaries?from=${ago(hoursOf(range()))}`), range);
}

/** The running mean of a window up to now, for each point. */
export function useExposures(points: () => Point[], minutes: () => number) {
  return useOfEach(points, (path) => api.get<Exposure>(`${path}/exposure?minutes=${minutes()}`), minutes);
}
