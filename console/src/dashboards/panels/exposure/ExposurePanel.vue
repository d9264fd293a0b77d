<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import { computed } from "vue";
import FenceMark from "@/look/FenceMark.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { readBy } from "@/look/units";
import { spanWords } from "../../layout";
import { digits, marks, scaleOf, share, withUnit } from "../look";
import PointName from "../PointName.vue";
import { useExposures } from "../summaries";
import type { ViewProps } from "../view";

/** How much of what a limit allows the running mean of a window has used up, beside the newest value. */
const { panel, points, limits, open } = defineProps<ViewProps<"exposure">>();
/** A mean of a mean says nothing more. */
const measured = computed(() => points.filter((point) => point.formula?.kind !== "overTime"));
const { found, error } = useExposures(
  () => measured.value,
  () => panel.minutes ?? 480,
);

const meters = computed(() =>
  measured.value.map((point) => {
    const exposure = found.value.get(point.id);
    const set = limitsOf({ ...point, limitSet: exposure?.limitSet ?? null }, limits);
    const mean = exposure?.mean ?? undefined;
    const scale = scaleOf(panel.look, set, point, Math.max(mean?.value ?? 0, point.latest?.value ?? 0));
    const above = (set?.zones ?? []).filter((zone) => zone.severity !== "normal" && zone.from !== null);
    // The limit itself, not the level at which one begins to look for the source.
    const first = (above.find((zone) => zone.severity !== "advisory") ?? above[0])?.from ?? undefined;
    return {
      point,
      mean,
      latest: point.latest?.quality === "BAD" || !point.latest ? undefined : share(point.latest.value, scale),
      filled: mean ? share(mean.value, scale) : 0,
      bounds: marks(set, scale),
      used:
        first && mean && !readBy(point)?.offset
          ? { percent: Math.round((mean.value / first) * 100), limit: first }
          : undefined,
      covered: exposure ? spanWords(`PT${Math.round(exposure.coveredSeconds / 60)}M`) : undefined,
    };
  }),
);
</script>

<template>
  <ProblemNote :error="error" />
  <div class="meters">
    <div v-for="{ point, mean, latest, filled, bounds, used, covered } in meters" :key="point.id" class="meter">
      <PointName class="small" :point="point" :all="points" :open="open" />
      <div class="row">
        <span class="figure"
          >{{ digits(mean?.value, point, panel.look) }} <span class="unit">{{ point.unit }}</span></span
        >
        <FenceMark v-if="mean?.severity" :severity="mean.severity" />
        <span class="soft small"
          >{{ t("mean of {spanWords}", { spanWords: spanWords(`PT${panel.minutes ?? 480}M`) })
          }}<template v-if="used">{{
            t(", {percent} % of {withUnit}", {
              percent: used.percent,
              withUnit: withUnit(used.limit, point, panel.look),
            })
          }}</template
          ><template v-else-if="mean && !mean.severity">{{ t(", no limits") }}</template></span
        >
      </div>
      <div class="track" aria-hidden="true">
        <span class="filled" :class="mean?.severity" :style="{ width: filled * 100 + '%' }"></span>
        <span v-for="mark in bounds" :key="mark.value" class="mark" :style="{ left: mark.at * 100 + '%' }"
          ><i>{{ mark.value }}</i></span
        >
        <span v-if="latest !== undefined" class="now" :style="{ left: latest * 100 + '%' }"></span>
      </div>
      <p v-if="!mean && covered !== undefined" class="soft small">
        {{ t("Readings cover {covered} of it; a mean is shown from half of the time.", { covered }) }}
      </p>
      <p v-else class="soft small">
        {{
          t("Newest value {withUnit} (mark below the bar)", {
            withUnit: withUnit(point.latest?.value, point, panel.look),
          })
        }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.meters {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 0.75rem 1.5rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 0.75rem;
}
.figure {
  font-size: 1.7rem;
  font-weight: 640;
}
.unit {
  font-size: 1rem;
  font-weight: 400;
  color: var(--ink-soft);
}
.track {
  position: relative;
  height: 14px;
  margin: 0.2rem 0 1.3rem;
  background: var(--ramp-0);
  border-radius: 2px;
}
.filled {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--ramp-1);
  border-radius: 2px;
}
.filled.advisory {
  background: var(--advisory);
}
.filled.warning {
  background: var(--warning);
}
.filled.critical {
  background: var(--critical);
}
.mark {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 1.5px;
  background: var(--line-strong);
}
.mark i {
  position: absolute;
  top: 100%;
  transform: translateX(-50%);
  font-style: normal;
  font-size: 0.8rem;
  color: var(--ink-soft);
}
.now {
  position: absolute;
  top: 14px;
  border: 5px solid transparent;
  border-bottom-color: var(--ink);
  border-top: 0;
  transform: translateX(-5px);
}
p {
  margin: 0;
}
</style>
