<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import { useSeriesSource } from "@/chart/series";
import { ticks } from "@/chart/ticks";
import { oneZone, useTimeRange } from "@/chart/timeRange";
import { moment } from "@/look/clock";
import { useRefreshed } from "@/look/load";
import { idsOf } from "@/points/names";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed } from "vue";
import { hoursOf } from "../../layout";
import { digits } from "../look";
import PointName from "../PointName.vue";
import type { ViewProps } from "../view";
import { stretches, type Stretch } from "./strip";

/** A strip over time for each point, by the words for its values or the zones of its limits. Gaps stay empty. */
const { panel, points, limits, open } = defineProps<ViewProps<"states">>();
const BUCKETS = 400;
const REFRESH_SECONDS = 30;
const MOST_TICKS = 4;
const source = useSeriesSource();
const time = useTimeRange(() => hoursOf(panel.range));
const { data, error, loading } = useRefreshed(
  async () => {
    const range = time.current();
    const lines = await Promise.all(points.map((point) => source(point, range, BUCKETS)));
    return { ...range, lines };
  },
  [() => idsOf(points), time.key],
  REFRESH_SECONDS,
);
const from = computed(() => data.value?.from ?? 0);
const until = computed(() => data.value?.until ?? 1);

const rows = computed(() =>
  (data.value?.lines ?? []).map((line) => ({
    point: line.point,
    parts: stretches(line, limitsOf(line.point, limits), panel.look, until.value),
  })),
);
const legend = computed(() => {
  const seen = new Map<string, Stretch>();
  rows.value.forEach((row) => row.parts.filter((part) => part.name).forEach((part) => seen.set(part.name, part)));
  return [...seen.values()].sort((a, b) => a.word - b.word || a.name.localeCompare(b.name)).slice(0, 12);
});
const percent = (time: number) => ((time - from.value) / (until.value - from.value)) * 100;
const left = (part: Stretch) => Math.max(0, percent(part.from));
const width = (part: Stretch) => Math.max(0.15, percent(part.until) - left(part));
const look = (part: Stretch) => [part.severity ?? `word-${part.word % 4}`];
const timeZone = computed(() => oneZone(points));
const below = computed(() => ticks({ from: from.value, until: until.value }, MOST_TICKS, timeZone.value));
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!loading && !error && !rows.some((row) => row.parts.length)" class="soft">
    {{ t("No readings in this time.") }}
  </p>
  <div v-else class="states">
    <template v-for="row in rows" :key="row.point.id">
      <PointName class="small" :point="row.point" :all="points" :open="open" />
      <div class="strip" role="img" :aria-label="`${row.point.name}: ${row.parts.at(-1)?.name ?? t('unknown')}`">
        <span
          v-for="part in row.parts"
          :key="part.from"
          :class="['part', ...look(part)]"
          :style="{ left: left(part) + '%', width: width(part) + '%' }"
          :title="
            t('{state}, {from} to {until}', {
              state: part.name || t('measured'),
              from: moment(part.from, timeZone),
              until: moment(part.until, timeZone),
            })
          "
        />
      </div>
      <span class="small last">{{
        row.parts.at(-1)?.name || digits(row.point.latest?.value, row.point, panel.look)
      }}</span>
    </template>
    <span></span>
    <div class="ticks soft small">
      <span v-for="tick in below" :key="tick.at" :style="{ left: percent(tick.at) + '%' }">{{ tick.label }}</span>
    </div>
    <span></span>
  </div>
  <p v-if="legend.length" class="legend soft small">
    <span v-for="part in legend" :key="part.name"><i :class="['part', ...look(part)]"></i>{{ part.name }}</span>
  </p>
</template>

<style scoped>
.states {
  display: grid;
  grid-template-columns: fit-content(40%) minmax(0, 1fr) max-content;
  gap: 0.3rem 0.6rem;
  align-items: center;
}
.strip {
  position: relative;
  height: 22px;
  border: 1px solid var(--line);
  border-radius: 2px;
  overflow: hidden;
}
.part {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--ramp-0);
}
.word-1 {
  background: var(--ramp-1);
}
.word-2 {
  background: var(--line-c);
}
.word-3 {
  background: var(--line-b);
}
.advisory {
  background: var(--advisory-fill);
}
.warning {
  background: var(--warning-fill);
}
.critical {
  background: var(--critical-fill);
}
.ticks {
  white-space: nowrap;
  position: relative;
  height: 1.4em;
}
.ticks span {
  position: absolute;
  transform: translateX(-50%);
}
.last {
  min-width: 3rem;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  margin: 0.5rem 0 0;
}
.legend i {
  position: static;
  display: inline-block;
  width: 0.9em;
  height: 0.9em;
  margin-right: 0.35em;
  vertical-align: -0.1em;
  border: 1px solid var(--line-strong);
}
</style>
