<script setup lang="ts">
import { t } from "@/language";
import { summariesOf, usePointPath } from "@/chart/series";
import { HOUR, useTimeRange } from "@/chart/timeRange";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { limitsOf } from "@/points/limits";
import { computed } from "vue";
import { hoursOf } from "../../layout";
import { digits, withUnit } from "../look";
import { STATISTICS } from "../summaries";
import type { ViewProps } from "../view";
import { rowsOf, type Cell } from "./cells";

/** The hours of a point, a row for each day: darker the higher, outlined where limits were left. */
const { panel, points, limits } = defineProps<ViewProps<"hours">>();
const MOST_HOURS = 62 * 24;
const REFRESH_SECONDS = 300;
const path = usePointPath();
const point = computed(() => points[0]);
const time = useTimeRange(() => hoursOf(panel.range ?? "P7D"));
/** The time that is looked at, and of a longer one its end. */
function looked() {
  const { from, until } = time.current();
  const first = until - MOST_HOURS * HOUR;
  return { from: Math.max(from, first), until, isCut: from < first };
}
const cut = computed(() => looked().isCut);
const { data, error, loading } = useRefreshed(
  async () => {
    const of = point.value;
    return of ? summariesOf(path(of.id), of, "hour", looked()) : [];
  },
  [() => point.value?.id, time.key],
  REFRESH_SECONDS,
);
const statistic = computed(() => panel.statistic ?? "mean");
const rows = computed(() =>
  rowsOf(data.value ?? [], statistic.value, limitsOf(point.value, limits), point.value?.timeZone),
);
const ends = computed(() => {
  const values = rows.value.flatMap((row) => row.cells.flatMap((cell) => (cell ? [cell.value] : [])));
  return { lowest: Math.min(...values), highest: Math.max(...values) };
});

/** How dark a cell is, in percent; all alike where there is one value only. */
function shade(cell: Cell): string {
  const { lowest, highest } = ends.value;
  const share = highest > lowest ? (cell.value - lowest) / (highest - lowest) : 0;
  return `color-mix(in srgb, var(--ramp-1) ${Math.round(share * 100)}%, var(--ramp-0))`;
}

function words(cell: Cell | undefined, day: string, hour: number): string {
  const at = `${day}, ${String(hour).padStart(2, "0")} h`;
  return cell && point.value
    ? `${at}: ${withUnit(cell.value, point.value, panel.look)}${cell.severity && cell.severity !== "normal" ? ", " + cell.severity : ""}`
    : t("{at}: no readings", { at });
}
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!loading && !error && !rows.length" class="soft">{{ t("No readings in this time.") }}</p>
  <template v-else-if="rows.length && point">
    <div class="frame" tabindex="0" role="region" :aria-label="t('Hours by days of {name}', { name: point.name })">
      <table>
        <caption class="soft small">
          {{
            t("{statistic} of each hour", { statistic: STATISTICS[statistic] })
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">
              <span class="unseen">{{ t("Day") }}</span>
            </th>
            <th v-for="hour in 24" :key="hour" scope="col">
              <span :class="{ unseen: (hour - 1) % 3 }">{{ hour - 1 }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.day">
            <th scope="row">{{ row.day }}</th>
            <td
              v-for="(cell, hour) in row.cells"
              :key="hour"
              :class="cell?.severity"
              :style="cell ? { background: shade(cell) } : {}"
              :title="words(cell, row.day, hour)"
            >
              <span class="unseen">{{ cell ? digits(cell.value, point, panel.look) : t("none") }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft small scale">
      <span>{{ withUnit(ends.lowest, point, panel.look) }}</span>
      <i aria-hidden="true"></i>
      <span>{{ withUnit(ends.highest, point, panel.look) }}</span>
      <span v-if="cut">{{ t("The last 62 days.") }}</span>
    </p>
  </template>
</template>

<style scoped>
.frame {
  flex: 1;
  overflow: auto;
}
table {
  width: 100%;
  min-width: 300px;
  border-collapse: separate;
  border-spacing: 1px;
  table-layout: fixed;
}
caption {
  text-align: left;
}
th {
  font-weight: 400;
  font-size: 0.8rem;
  color: var(--ink-soft);
  padding: 0;
  text-align: left;
  white-space: nowrap;
}
th:first-child {
  width: 5.4rem;
}
td {
  height: 1.15rem;
  padding: 0;
  border: 0;
  border-radius: 1px;
}
td.advisory {
  box-shadow: inset 0 0 0 2px var(--advisory);
}
td.warning {
  box-shadow: inset 0 0 0 2px var(--warning);
}
td.critical {
  box-shadow: inset 0 0 0 3px var(--critical);
}
.scale {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin: 0.3rem 0 0;
}
.scale i {
  width: 6rem;
  height: 0.6rem;
  background: linear-gradient(90deg, var(--ramp-0), var(--ramp-1));
}
</style>
