<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { LimitSet, LimitTrial } from "@/api/types";
import { useAction } from "@/look/act";
import FenceMark from "@/look/FenceMark.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { ref, watch } from "vue";
import { alerts, shares, times } from "./trial";

/** Tries a set on the last 30 days: at the points for which it holds, or at those of a place. */
const { set, somewhere = false } = defineProps<{
  /** A draft, or a set as it is. */
  set: LimitSet;
  /** Whether a place is chosen; else it is tried where it holds. */
  somewhere?: boolean;
}>();
const places = usePlaces();
const { busy, error, run } = useAction();
const found = ref<LimitTrial>();
const placeId = ref(places.editable.find((place) => place.kind === "site")?.id ?? places.editable[0]?.id ?? "");
const DAYS = 30;
const SHOWN = 30;

// What was found belongs to what was tried.
watch([() => JSON.stringify(set), placeId], () => (found.value = undefined));

async function tryOut() {
  await run(async () => {
    found.value = await api.post<LimitTrial>("limits/trial", {
      limitSet: set,
      placeId: somewhere ? placeId.value : null,
      days: DAYS,
    });
  });
}
</script>

<template>
  <section class="trial" aria-live="polite">
    <div class="ask">
      <el-select v-if="somewhere" v-model="placeId" filterable :aria-label="t('Tried at the points of')">
        <el-option v-for="place in places.editable" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
      <el-button :loading="busy" :disabled="somewhere && !placeId" @click="tryOut">{{
        t("Test on the last 30 days")
      }}</el-button>
    </div>
    <ProblemNote :error="error" />
    <p v-if="found && !found.points.length" class="soft">
      {{ somewhere ? t("No point of this quantity there.") : t("The set holds for no point yet.") }}
    </p>
    <template v-else-if="found">
      <table class="rows cards">
        <thead>
          <tr>
            <th scope="col">{{ t("Point") }}</th>
            <th scope="col">{{ t("Now") }}</th>
            <th scope="col">{{ t("With this set") }}</th>
            <th scope="col">{{ t("Time in zones") }}</th>
            <th scope="col">{{ t("Became abnormal") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="point in found.points.slice(0, SHOWN)" :key="point.pointId">
            <td>
              <RouterLink :to="'/points/' + point.number">{{ point.path.at(-1) }}, {{ point.name }}</RouterLink>
            </td>
            <td :data-label="t('Now')">{{ point.zoneNow ?? t("no limits") }}</td>
            <td :data-label="t('With this set')">
              <span v-if="point.zoneThen" class="zone">
                {{ point.zoneThen }}
                <FenceMark v-if="point.severityThen" :severity="point.severityThen" />
              </span>
              <span v-else class="soft">{{ t("no value") }}</span>
            </td>
            <td :data-label="t('Time in zones')">{{ shares(point.secondsInZone) }}</td>
            <td :data-label="t('Became abnormal')">{{ point.crossings ? times(point.crossings) : t("never") }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="found.points.length > SHOWN" class="soft small">
        {{ t("The first {SHOWN} of {points} points, worst first.", { SHOWN, points: found.points.length }) }}
      </p>
      <p v-for="rule in found.rules" :key="rule.ruleId" class="small">
        {{
          t("Rule {name}: {alerts} with the limits as they are, {timesThen} with this set.", {
            name: rule.name,
            alerts: alerts(rule.times),
            timesThen: rule.timesThen,
          })
        }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.trial {
  border-top: 1px solid var(--line);
  padding-top: 0.75rem;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
table {
  margin-top: 0.75rem;
}
.zone {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
.ask .el-select {
  flex: 1 1 14rem;
}
</style>
