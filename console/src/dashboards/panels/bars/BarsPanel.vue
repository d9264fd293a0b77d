<script setup lang="ts">
import { limitsOf } from "@/points/limits";
import type { Point } from "@/api/types";
import { age, now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { byHeadroom, isStale } from "@/look/reading";
import { unjudged } from "@/look/severity";
import { computed } from "vue";
import { marks, scaleOf, share, withUnit } from "../look";
import { nameAmong } from "@/points/names";
import PointName from "../PointName.vue";
import type { ViewProps } from "../view";

/** A row with a bar for each point. Rows of one unit without limits of their own have one scale, so that bars compare. */
const { panel, points, limits, open } = defineProps<ViewProps<"bars">>();

const ordered = computed(() =>
  [...points].sort((a, b) =>
    panel.order === "name"
      ? nameAmong(a, points).localeCompare(nameAmong(b, points), undefined, { numeric: true })
      : panel.order === "value"
        ? (b.latest?.value ?? -Infinity) - (a.latest?.value ?? -Infinity)
        : byHeadroom(a, b),
  ),
);

/** The point with the highest value of each unit, by which the scale of those without limits is chosen. */
const highest = computed(() => {
  const found = new Map<string, Point>();
  for (const point of points) {
    if ((point.latest?.value ?? -Infinity) > (found.get(point.unit)?.latest?.value ?? -Infinity)) {
      found.set(point.unit, point);
    }
  }
  return found;
});

const rows = computed(() =>
  ordered.value.map((point) => {
    const set = limitsOf(point, limits);
    const scale = scaleOf(panel.look, set, highest.value.get(point.unit));
    const latest = point.latest?.quality === "BAD" ? undefined : point.latest;
    const zero = share(0, scale);
    const part = latest ? share(latest.value, scale) : zero;
    return {
      point,
      from: Math.min(zero, part) * 100,
      width: Math.abs(part - zero) * 100,
      marks: marks(set, scale),
      stale: isStale(point, now.value),
    };
  }),
);
</script>

<template>
  <table class="rows bars">
    <tbody>
      <tr v-for="row in rows" :key="row.point.id" :class="{ stale: row.stale }">
        <th scope="row"><PointName :point="row.point" :all="points" :open="open" /></th>
        <td class="track">
          <span
            class="bar"
            :class="row.point.latest?.severity"
            :style="{ left: row.from + '%', width: row.width + '%' }"
          ></span>
          <span
            v-for="mark in row.marks"
            :key="mark.value"
            class="mark"
            :style="{ left: mark.at * 100 + '%' }"
            :title="`${mark.name} ${mark.value}`"
          ></span>
        </td>
        <td class="amount" :class="{ bad: row.point.latest?.quality === 'BAD' }">
          {{ withUnit(row.point.latest?.value, row.point, panel.look) }}
        </td>
        <td>
          <FenceMark
            v-if="row.point.latest"
            :severity="row.point.latest.severity"
            :unknown="unjudged(row.point.latest)"
          />
          <span v-if="row.stale" class="soft small"> {{ age(row.point.latest?.time ?? null, now) }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.bars {
  width: 100%;
}
.bars th {
  width: 30%;
  font-weight: 400;
  text-align: left;
}
.track {
  position: relative;
  width: 40%;
  min-width: 60px;
}
.track::before {
  content: "";
  position: absolute;
  inset: 0.55rem 0;
  background: var(--ramp-0);
  border-radius: 2px;
}
.bar {
  position: absolute;
  top: 0.55rem;
  bottom: 0.55rem;
  background: var(--ramp-1);
  border-radius: 2px;
}
.bar.advisory {
  background: var(--advisory);
}
.bar.warning {
  background: var(--warning);
}
.bar.critical {
  background: var(--critical);
}
.stale .bar {
  background: none;
  border: 1.5px solid var(--line-strong);
}
.mark {
  position: absolute;
  top: 0.3rem;
  bottom: 0.3rem;
  width: 1.5px;
  background: var(--line-strong);
}
.amount {
  text-align: right;
  white-space: nowrap;
  font-weight: 640;
}
.stale .amount {
  font-weight: 400;
  color: var(--ink-soft);
}
.bad {
  text-decoration: line-through;
  color: var(--ink-soft);
}
tbody th {
  border-bottom-color: var(--line);
}
th {
  white-space: normal;
}
</style>
