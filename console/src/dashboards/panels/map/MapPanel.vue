<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import type { Point } from "@/api/types";
import { useSeriesSource } from "@/chart/series";
import { oneZone, useTimeRange } from "@/chart/timeRange";
import { moment } from "@/look/clock";
import { useRefreshed } from "@/look/load";
import { idsOf } from "@/points/names";
import FenceMark from "@/look/FenceMark.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import { hoursOf } from "../../layout";
import { withUnit, zoneOf } from "../look";
import type { ViewProps } from "../view";
import { project, scaleBar, spots, stretchesOf, type Spot } from "./track";

/** Where things were: a track for each place that has a latitude and a longitude, and the sites whose position is known. */
const { panel, points, limits, open } = defineProps<ViewProps<"map">>();
const WIDTH = 600;
const HEIGHT = 380;
const BUCKETS = 1500;
const REFRESH_SECONDS = 30;
const source = useSeriesSource();
const time = useTimeRange(() => hoursOf(panel.range));
const places = open ? undefined : usePlaces();

/** Of each place with a position its points: where, and what is measured there. */
const movers = computed(() => {
  const found = new Map<string, { latitude?: Point; longitude?: Point; value?: Point }>();
  for (const point of points) {
    const of = found.get(point.placeId) ?? {};
    const part = point.quantity === "latitude" || point.quantity === "longitude" ? point.quantity : ("value" as const);
    found.set(point.placeId, { ...of, [part]: of[part] ?? point });
  }
  return [...found.values()].flatMap(({ latitude, longitude, value }) =>
    latitude && longitude ? { latitude, longitude, value, name: latitude.path.at(-1) ?? latitude.name } : [],
  );
});
const sites = computed(() =>
  (places?.places ?? []).flatMap((place) =>
    place.kind === "site" &&
    place.latitude !== null &&
    place.longitude !== null &&
    points.some((point) => places?.path(point.placeId)[0]?.id === place.id)
      ? { name: place.name, latitude: place.latitude, longitude: place.longitude }
      : [],
  ),
);

type Mover = (typeof movers.value)[number];
const { data, error, loading } = useRefreshed(
  async () => {
    const range = time.current();
    const line = (point: Point) => source(point, range, BUCKETS);
    const tracks = await Promise.all(
      movers.value.map(async (mover) => ({
        mover,
        spots: spots(
          await line(mover.latitude),
          await line(mover.longitude),
          mover.value ? await line(mover.value) : undefined,
        ),
      })),
    );
    return { ...range, tracks };
  },
  [() => idsOf(points), time.key],
  REFRESH_SECONDS,
);
const tracks = computed(() => data.value?.tracks ?? []);

const timeZone = computed(() => oneZone(points));

/** How far along the time one looks, in percent; at the end it is now. */
const along = ref(100);
const looked = computed(() => {
  const { from = 0, until = 0 } = data.value ?? {};
  return from + ((until - from) * along.value) / 100;
});
const everything = computed(() => [...tracks.value.flatMap((track) => track.spots), ...sites.value]);
const projection = computed(() => project(everything.value, WIDTH, HEIGHT));
const bar = computed(() => scaleBar(projection.value.metresAUnit, WIDTH / 4));
const at = (spot: { latitude: number; longitude: number }) =>
  `${projection.value.x(spot).toFixed(1)} ${projection.value.y(spot).toFixed(1)}`;

/** Where a name stands beside its mark, so that it does not leave the drawing. */
const beside = (spot: { longitude: number }) =>
  projection.value.x(spot) > WIDTH * 0.6 ? { x: -11, "text-anchor": "end" } : { x: 11 };

const severityOf = (mover: Mover, spot: Spot) =>
  mover.value && spot.value !== undefined
    ? (zoneOf(spot.value, limitsOf(mover.value, limits))?.severity ?? null)
    : null;

const shown = computed(() =>
  tracks.value.flatMap(({ mover, spots: all }) => {
    const now = [...all].reverse().find((spot) => spot.time <= looked.value);
    const abnormal = all.slice(1).flatMap((spot, i) => {
      const severity = severityOf(mover, spot);
      return severity && severity !== "normal" ? { severity, path: `M${at(all[i] ?? spot)}L${at(spot)}` } : [];
    });
    return {
      mover,
      path: stretchesOf(all)
        .map((stretch) => "M" + stretch.map(at).join("L"))
        .join(""),
      abnormal,
      now,
      severity: now ? severityOf(mover, now) : null,
    };
  }),
);
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!movers.length && !sites.length" class="soft">
    {{ t("A map needs the latitude and the longitude of something among its points, or a site with a position.") }}
  </p>
  <p v-else-if="!loading && !error && !everything.length" class="soft">{{ t("No positions in this time.") }}</p>
  <template v-else-if="everything.length">
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      :aria-label="
        t('Map: {join}', { join: [...movers.map((one) => one.name), ...sites.map((one) => one.name)].join(', ') })
      "
    >
      <rect class="ground" :width="WIDTH" :height="HEIGHT" />
      <g v-for="site in sites" :key="site.name" :transform="`translate(${at(site)})`">
        <path class="site" d="M-7 6V-3L0 -9L7 -3V6Z" />
        <text v-bind="beside(site)" y="4">{{ site.name }}</text>
      </g>
      <g v-for="track in shown" :key="track.mover.latitude.id">
        <path class="track" :d="track.path" />
        <path v-for="(part, i) in track.abnormal" :key="i" :class="['part', part.severity]" :d="part.path" />
        <g v-if="track.now" :transform="`translate(${at(track.now)})`">
          <circle :class="['here', track.severity]" r="7" />
          <text v-bind="beside(track.now)" y="-8" class="name">{{ track.mover.name }}</text>
        </g>
      </g>
      <g :transform="`translate(16 ${HEIGHT - 18})`" class="measure">
        <path :d="`M0 -5V0H${bar.units.toFixed(1)}V-5`" />
        <text :x="bar.units / 2" y="-6" text-anchor="middle">{{ bar.words }}</text>
      </g>
      <g :transform="`translate(${WIDTH - 20} 30)`" class="measure">
        <path d="M0 14V-8M-5 -2L0 -9L5 -2" />
        <text y="-14" text-anchor="middle">N</text>
      </g>
    </svg>
    <div class="time">
      <el-slider v-model="along" :show-tooltip="false" :step="0.5" :aria-label="t('Moment')" />
      <span class="small soft">{{
        along === 100 && !time.page?.chosen.value ? t("now") : moment(looked, timeZone)
      }}</span>
    </div>
    <p v-for="track in shown" :key="track.mover.latitude.id" class="small">
      <strong>{{ track.mover.name }}</strong>{{
        track.now
          ? ` ${t("was heard there {moment}", { moment: moment(track.now.time, timeZone) })}`
          : t(": nothing by then")
      }}
      <template v-if="track.now?.value !== undefined && track.mover.value">
        {{ t("with {withUnit}", { withUnit: withUnit(track.now.value, track.mover.value, panel.look) }) }}
        <FenceMark v-if="track.severity && track.severity !== 'normal'" :severity="track.severity" />
      </template>
    </p>
  </template>
</template>

<style scoped>
svg {
  flex: 1;
  min-height: 180px;
  width: 100%;
}
.ground {
  fill: var(--moss-soft);
}
.track {
  fill: none;
  stroke: var(--moss);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.part {
  fill: none;
  stroke-width: 5;
  stroke-linecap: round;
}
.part.advisory {
  stroke: var(--advisory);
}
.part.warning {
  stroke: var(--warning);
}
.part.critical {
  stroke: var(--critical);
}
.here {
  fill: var(--ink);
  stroke: var(--sheet);
  stroke-width: 2;
}
.here.warning {
  fill: var(--warning);
}
.here.critical {
  fill: var(--critical);
}
.site {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
text {
  font-size: 17px;
  fill: var(--ink);
}
.name {
  font-weight: 640;
}
.measure path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.time {
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0 0.5rem;
}
.time .small {
  min-width: 8.5rem;
}
p {
  margin: 0;
}
</style>
